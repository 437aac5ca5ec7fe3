/** Reading a design that comes from outside: a file, a request, an older release. */
import type { Fault } from './fault';
import { faultsOf } from './fault';
import { integrityFaults } from './rules/integrity';
import { DOCUMENT_LIMITS, jsonFault } from './json-limits';
import { jsonTextFault } from './json-text';
import type { Design } from './schema';
import { DESIGN_FORMAT, DESIGN_VERSION, designSchema } from './schema';
import { documentMessages as say } from '../messages';

export type ReadDesign = { ok: true; design: Design } | { ok: false; faults: Fault[] };

/** A parsed JSON value as a design, or every fault in it. */
export function readDesign(value: unknown): ReadDesign {
  const document = value as { format?: unknown; version?: unknown } | null;
  if (typeof document !== 'object' || document === null || document.format !== DESIGN_FORMAT)
    return { ok: false, faults: [{ code: 'not-a-design', path: ['format'], sentence: say.notADesign() }] };
  if (typeof document.version === 'number' && document.version > DESIGN_VERSION)
    return {
      ok: false,
      faults: [
        { code: 'later-version', path: ['version'], sentence: say.laterVersion(document.version, DESIGN_VERSION) },
      ],
    };
  const beyond = jsonFault(value, DOCUMENT_LIMITS);
  if (beyond !== null) return { ok: false, faults: [{ code: 'beyond-limits', path: [], sentence: beyond }] };
  const parsed = designSchema.safeParse(value);
  if (!parsed.success) return { ok: false, faults: faultsOf(parsed.error) };
  const faults = integrityFaults(parsed.data);
  return faults.length > 0 ? { ok: false, faults } : { ok: true, design: parsed.data };
}

/** JSON text as a design; a byte-order mark is allowed. */
export function readDesignText(text: string): ReadDesign {
  const refuse = (code: string, sentence: string): ReadDesign => ({
    ok: false,
    faults: [{ code, path: [], sentence }],
  });
  if (text.includes('\uFFFD')) return refuse('not-utf-8', say.notUtf8());
  const clean = text.replace(/^\uFEFF/, '');
  const fault = jsonTextFault(clean);
  if (fault && 'breaks' in fault) return refuse('broken-json', say.brokenJson(fault.breaks));
  if (fault) return refuse('duplicate-key', say.duplicateKey(fault.twice));
  return readDesign(JSON.parse(clean));
}
