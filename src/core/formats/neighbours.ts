/** Reading what switches say of their neighbours: JSON as `lldpcli -f json0` or `-f json` prints it, one file a switch; or a plain CSV. */
import { clipped, fileMessages as say } from '../messages';
import type { Reception } from '../editing';
import { readTable } from './table';
import type { TableFault } from './table';

export const NEIGHBOUR_COLUMNS = {
  required: ['switch', 'port', 'neighbour', 'neighbour_port'],
  optional: ['neighbour_mac'],
} as const;

export type ReadNeighbours =
  | { readonly ok: true; readonly receptions: readonly Reception[]; readonly refused: readonly TableFault[] }
  | { readonly ok: false; readonly faults: readonly TableFault[] };

/** A file name as the name of the switch it comes from. */
const stem = (file: string) => file.replace(/^.*[\\/]/, '').replace(/\.[^.]*$/, '');

const folder = (file: string) => /([^\\/]+)[\\/][^\\/]*$/.exec(file)?.[1];

/** The switch that each file comes from: named by the file, or by its folder where several files have one name. */
export function switchNames(files: readonly string[]): string[] {
  const stems = files.map(stem);
  return files.map((file, i) => {
    const shared = stems.indexOf(stems[i]!) !== stems.lastIndexOf(stems[i]!);
    return (shared ? folder(file) : undefined) ?? stems[i]!;
  });
}

type Plain = Record<string, unknown>;
const isPlain = (v: unknown): v is Plain => typeof v === 'object' && v !== null && !Array.isArray(v);
/** The two spellings differ in wrapping: what is a list of one in `json0` is bare in `json`. */
const list = (v: unknown): unknown[] => (Array.isArray(v) ? v : v === undefined || v === null ? [] : [v]);
const plain = (v: unknown): Plain => {
  const [first] = list(v);
  return isPlain(first) ? first : {};
};
/** `[{"value": "x"}]`, `{"value": "x"}` or `"x"`. */
function said(v: unknown): string {
  const [first] = list(v);
  if (isPlain(first)) return typeof first.value === 'string' ? first.value : '';
  return typeof first === 'string' || typeof first === 'number' ? String(first) : '';
}

/** In the short spelling, interfaces and chassis are keyed by name: `{"eth0": {…}}`. */
function named(v: unknown, key: string): Plain[] {
  return list(v).flatMap((item) => {
    if (!isPlain(item)) return [];
    if (key in item || 'chassis' in item || 'id' in item) return [item];
    return Object.entries(item).map(([name, inner]) => ({ name, ...plain(inner) }));
  });
}

/** A chassis or port identifier with its type. */
const identifier = (v: unknown): { type: string; value: string } => {
  const id = plain(v);
  return { type: String(id.type ?? ''), value: said(v) };
};

function hearingOf(from: string, at: Plain): Reception | null {
  const [chassis] = named(at.chassis, 'name');
  const port = plain(at.port);
  if (!chassis) return null;
  const id = identifier(chassis.id);
  const name = said(chassis.name) || (typeof chassis.name === 'string' ? chassis.name : '');
  const portId = identifier(port.id);
  const description = said(port.descr);
  // A MAC address as port identifier names no port: then the description does.
  const toPort = portId.type === 'mac' || portId.value === '' ? description || portId.value : portId.value;
  const fromPort = typeof at.name === 'string' ? at.name : said(at.name);
  if (fromPort === '' || toPort === '' || (name === '' && id.value === '')) return null;
  const bridge = list(chassis.capability).some((c) => isPlain(c) && c.type === 'Bridge' && c.enabled === true);
  return {
    from,
    fromPort,
    to: name || id.value,
    toPort,
    ...(id.type === 'mac' ? { toMac: id.value } : {}),
    ...(bridge ? { toBridge: true } : {}),
  };
}

/** Whether a JSON value looks like a list of neighbours. */
export const isNeighbourJson = (value: unknown): boolean => isPlain(value) && 'lldp' in value;

/** Neighbours that one switch prints as JSON; `from` is its name, that of the file where none is given. */
export function readNeighbourJson(file: string, value: unknown, from = stem(file)): ReadNeighbours {
  const fault = (sentence: string): ReadNeighbours => ({
    ok: false,
    faults: [{ file, row: null, column: null, sentence }],
  });
  if (!isNeighbourJson(value)) return fault(say['no-neighbours']());
  const interfaces = list((value as Plain).lldp).flatMap((l) => (isPlain(l) ? named(l.interface, 'name') : []));
  const receptions: Reception[] = [];
  const refused: TableFault[] = [];
  interfaces.forEach((at, i) => {
    const hearing = hearingOf(from, at);
    if (hearing) receptions.push(hearing);
    else
      refused.push({
        file,
        row: i + 1,
        column: null,
        sentence: say['neighbour-unnamed']({ port: typeof at.name === 'string' ? clipped(at.name) : '?' }),
      });
  });
  return { ok: true, receptions, refused };
}

/** Neighbours of many switches as a table: switch, port, neighbour, neighbour_port and, if wanted, neighbour_mac. */
export function readNeighbourCsv(file: string, text: string): ReadNeighbours {
  const { rows, faults } = readTable(file, text, {
    required: [...NEIGHBOUR_COLUMNS.required],
    optional: [...NEIGHBOUR_COLUMNS.optional],
  });
  if (faults.length > 0) return { ok: false, faults };
  const receptions: Reception[] = [];
  const refused: TableFault[] = [];
  for (const row of rows) {
    const [from, fromPort, to, toPort] = NEIGHBOUR_COLUMNS.required.map((c) => row.cell(c)) as [
      string,
      string,
      string,
      string,
    ];
    const empty = NEIGHBOUR_COLUMNS.required.find((c) => row.cell(c) === '');
    const mac = row.cell('neighbour_mac');
    if (empty)
      refused.push({
        file,
        row: row.row,
        column: empty,
        sentence: say['neighbour-cell-empty'](),
      });
    else receptions.push({ from, fromPort, to, toPort, ...(mac === '' ? {} : { toMac: mac }) });
  }
  return { ok: true, receptions, refused };
}
