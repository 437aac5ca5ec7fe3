/** VLANs that edits name and that are not in the design: they are offered to be made. */
import type { Design, Edit } from '../design';
import { parseVlanRanges } from '../standard';

/** A longer list is a range that is meant to cover what may come, not VLANs that were forgotten. */
const MOST = 8;
const FIELDS: ReadonlySet<string> = new Set(['vlan', 'vlans', 'native']);
const KINDS: ReadonlySet<string> = new Set(['port', 'bundle', 'host']);

function named(value: unknown): readonly number[] {
  if (typeof value === 'number') return [value];
  if (typeof value !== 'string' || value === 'all') return [];
  const parsed = parseVlanRanges(value);
  return parsed.ok ? parsed.vlans : [];
}

/** In order; none where nothing is missing or more than a handful is. `design`: with the edits. */
export function missingVlans(design: Design, edits: readonly Edit[]): number[] {
  const there = new Set(design.vlans.map((v) => v.number));
  const values = edits.flatMap((e): unknown[] => {
    if (e.type === 'set') return KINDS.has(e.kind) && FIELDS.has(e.field) ? [e.value] : [];
    if (e.type !== 'add' || !KINDS.has(e.kind)) return [];
    return [...FIELDS].map((field) => (e.value as Record<string, unknown>)[field]);
  });
  const missing = new Set(values.flatMap(named).filter((n) => !there.has(n)));
  return missing.size > MOST ? [] : [...missing].sort((a, b) => a - b);
}
