/** Output of a walk with numeric identifiers (`-On`), one object a line; octets in hex may go on over lines, and texts hold line ends. */
import type { SnmpRow, SnmpValue } from './tree';

const LINE = /^(?:\.|iso\.)?(\d+(?:\.\d+)+) = (.*)$/;
const HEX_MORE = /^(?:[0-9A-Fa-f]{2} ?)+\s*$/;

/** Whether a text looks like the output of a walk. */
export const isWalkText = (text: string): boolean => /^(?:\.|iso\.)\d+(?:\.\d+)+ = /m.test(text.slice(0, 4000));

const hex = (text: string): Uint8Array =>
  Uint8Array.from(text.trim().split(/\s+/).filter(Boolean), (pair) => parseInt(pair, 16));

const unquoted = (text: string): string =>
  text.startsWith('"') ? text.replace(/^"|"\s*$/g, '').replace(/\\(["\\])/g, '$1') : text;

/** A value as printed; undefined for one that is none, as for an object that is not there. */
function valueOf(printed: string): SnmpValue | undefined {
  if (printed.trim() === '""') return new Uint8Array();
  const match = /^(?:Wrong Type \(should be [^)]*\): )?([A-Za-z][A-Za-z0-9-]*): ?([^]*)$/.exec(printed);
  if (!match) return undefined;
  const [, kind, rest] = match as unknown as [string, string, string];
  switch (kind) {
    case 'INTEGER':
    case 'Gauge32':
    case 'Counter32':
    case 'Counter64':
    case 'UInteger32':
    case 'Timeticks': {
      const number = /\((-?\d+)\)/.exec(rest) ?? /^(-?\d+)/.exec(rest.trim());
      return number ? Number(number[1]) : undefined;
    }
    case 'STRING':
      return new TextEncoder().encode(unquoted(rest));
    case 'Hex-STRING':
      return hex(rest);
    case 'BITS':
      return hex(rest.replace(/\s+\S*\(\d+\).*$/s, '').replace(/[^0-9A-Fa-f\s].*$/s, ''));
    case 'OID':
      return rest.trim().replace(/^\.|^iso\./, (m) => (m === '.' ? '' : '1.'));
    case 'IpAddress':
    case 'Network Address':
      return Uint8Array.from(rest.trim().split('.'), Number);
    default:
      return undefined;
  }
}

/** Rows of a walk. Other lines are passed over and counted. */
export function readWalkText(text: string): { readonly rows: SnmpRow[]; readonly passed: number } {
  const rows: SnmpRow[] = [];
  let passed = 0;
  let open: { oid: string; printed: string } | null = null;
  const close = () => {
    if (!open) return;
    const value = valueOf(open.printed);
    if (value !== undefined) rows.push({ oid: open.oid, value });
    open = null;
  };
  for (const line of text.split(/\r?\n/)) {
    const match = LINE.exec(line);
    if (match) {
      close();
      const oid: string = line.startsWith('iso.') ? `1.${match[1]!}` : match[1]!;
      open = { oid, printed: match[2]! };
      continue;
    }
    const now = open;
    const inText = now !== null && /^STRING: "/.test(now.printed) && !/[^\\]"\s*$/.test(now.printed.slice(9));
    if (now && ((now.printed.startsWith('Hex-STRING') && HEX_MORE.test(line)) || inText)) now.printed += `\n${line}`;
    else if (line.trim() !== '') passed++;
  }
  close();
  return { rows, passed };
}
