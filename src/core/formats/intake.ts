/** Files of any kind that can be read, recognised by what is in them: what comes in, which rows do not and why. */
import { fileMessages as say } from '../messages';
import { applyEdits, emptyDesign } from '../design';
import type { Design, Edit } from '../design';
import { applyWhatFits, mergeByName, partOf, pastePart } from '../editing';
import type { Reception, NewId } from '../editing';
import { LINKS, SWITCHES, VLANS, writeRows } from '../editing/tables';
import type { RowText, Table } from '../editing/tables';
import { LINK_COLUMNS, SWITCH_COLUMNS, VLAN_COLUMNS } from './csv-columns';
import { importCsv } from './csv-import';
import { readAll } from './recognise';
import type { FileKind, Read, SourceFile } from './recognise';
import type { ColumnRule, TableFault, TableRow } from './table';
import { count } from '../standard';

/** One row of a preview: its line in the file, its cells, and why it stays out. */
export interface PreviewRow {
  readonly row: number;
  readonly cells: readonly string[];
  readonly fault: string | null;
}

export interface TakenFile {
  readonly file: string;
  readonly kind: FileKind;
  /** What comes in, in words: `12 switches, 14 links`. */
  readonly comes: string;
  readonly columns: readonly string[];
  readonly rows: readonly PreviewRow[];
  readonly faults: readonly TableFault[];
}

export interface Intake {
  readonly files: readonly TakenFile[];
  /** The design with everything that fits. */
  readonly design: Design;
  /** Edits that lead there from the design it was given; of no use for a new design. */
  readonly edits: readonly Edit[];
  readonly receptions: readonly Reception[];
}

const wholeWords = (d: Design) =>
  [
    count(d.switches.length, 'switch', 'switches'),
    count(d.links.length, 'link'),
    count(d.vlans.length, 'VLAN'),
    d.hosts.length > 0 && count(d.hosts.length, 'host'),
  ]
    .filter(Boolean)
    .join(', ');

function preview(
  rule: ColumnRule,
  rows: readonly TableRow[],
  faults: readonly TableFault[],
): Pick<TakenFile, 'columns' | 'rows'> {
  const columns = [...rule.required, ...rule.optional].filter((c) => rows.some((r) => r.cell(c) !== ''));
  const byRow = new Map(faults.map((f) => [f.row, f]));
  return {
    columns,
    rows: rows.map((r) => {
      const fault = byRow.get(r.row);
      return {
        row: r.row,
        cells: columns.map((c) => r.cell(c)),
        fault: fault ? [fault.column, fault.sentence].filter(Boolean).join(': ') : null,
      };
    }),
  };
}

const taken = (read: Read, comes: string, more: Partial<TakenFile> = {}): TakenFile => ({
  file: read.file,
  kind: read.kind,
  comes,
  columns: [],
  rows: [],
  faults: [],
  ...more,
});

const RULE = { switches: SWITCH_COLUMNS, links: LINK_COLUMNS, vlans: VLAN_COLUMNS } as const;
const ONE = { switches: ['switch', 'switches'], links: ['link'], vlans: ['VLAN'] } as const;

type TableRead = Extract<Read, { kind: 'switches' | 'links' | 'vlans' }>;
const isTable = (read: Read): read is TableRead =>
  read.kind === 'switches' || read.kind === 'links' || read.kind === 'vlans';

function tableTaken(read: TableRead, faults: readonly TableFault[]): TakenFile {
  const refused = new Set(faults.map((f) => f.row));
  const [one, many] = ONE[read.kind];
  return taken(read, count(read.rows.length - refused.size, one, many), {
    faults,
    ...preview(RULE[read.kind], read.rows, faults),
  });
}

function otherTaken(read: Read): TakenFile {
  switch (read.kind) {
    case 'design':
    case 'graphml':
      return taken(read, wholeWords(read.design));
    case 'neighbours':
      return taken(read, count(read.receptions.length, 'neighbour'), { faults: read.faults });
    default:
      return taken(read, 'nothing', { faults: 'faults' in read ? read.faults : [] });
  }
}

/** Columns of the files by columns of the tables; a column of a link may go to both ends. */
const TO_CELLS: Readonly<Record<TableRead['kind'], Readonly<Record<string, readonly string[]>>>> = {
  switches: { switch: ['name'], cost_scale: ['scale'] },
  links: { speed_mbps: ['speed'], vlans: ['a_vlans', 'b_vlans'], native_vlan: ['a_native', 'b_native'] },
  vlans: { vlan: ['number'] },
};
const TABLE_OF = { switches: SWITCHES, links: LINKS, vlans: VLANS } as unknown as Record<TableRead['kind'], Table>;

/** A design that grows as files come in. */
interface Growing {
  design: Design;
  readonly edits: Edit[];
  readonly newId: NewId;
}

/** How a whole network comes into a design: below what is there, or what has the same name as the same thing. */
export type NetworkIntake = 'beside' | 'merge';

type NetworkRead = Extract<Read, { kind: 'design' | 'graphml' }>;

/** Edits taken one by one, those that fit. */
function takeEdits(growing: Growing, read: NetworkRead, edits: readonly Edit[]): readonly TableFault[] {
  const fitted = applyWhatFits(
    growing.design,
    edits.map((edit) => ({ from: edit, edits: [edit] })),
  );
  growing.design = fitted.design;
  growing.edits.push(...fitted.edits);
  return fitted.refused.map(({ sentence }) => ({ file: read.file, row: null, column: null, sentence }));
}

/** A whole network merged by names. */
function mergeNetwork(growing: Growing, read: NetworkRead): TakenFile {
  const edits = mergeByName(growing.design, read.design, growing.newId);
  const faults = takeEdits(growing, read, edits);
  const changed = new Set(edits.flatMap((e) => (e.type === 'set' ? [`${e.kind} ${e.id}`] : []))).size;
  const added = edits.filter((e) => e.type === 'add').length;
  const comes = [added > 0 && count(added, 'new thing'), changed > 0 && `${count(changed, 'change')} of what is here`]
    .filter(Boolean)
    .join(' and ');
  return taken(read, comes || 'nothing', { faults });
}

/** A whole network put below what is there. */
function takeNetwork(growing: Growing, read: NetworkRead): TakenFile {
  const { switches, hosts, segments } = read.design;
  const all = [
    ...switches.map(({ id }) => ({ kind: 'switch' as const, id })),
    ...hosts.map(({ id }) => ({ kind: 'host' as const, id })),
    ...segments.map(({ id }) => ({ kind: 'segment' as const, id })),
  ];
  const present = growing.design.switches;
  const below = present.reduce((most, s) => Math.max(most, s.y ?? 0), present.length === 0 ? -200 : 0) + 200;
  const pasted = pastePart(growing.design, partOf(read.design, all), growing.newId, { dx: 0, dy: below });
  const whole = applyEdits(growing.design, pasted.edits);
  if (whole.ok) {
    growing.design = whole.design;
    growing.edits.push(...pasted.edits);
    return otherTaken(read);
  }
  // What the open design does not accept, such as a cost on another scale, stays out by itself.
  return { ...otherTaken(read), faults: takeEdits(growing, read, pasted.edits) };
}

/** Rows of a table: those that the design has are changed, others are added. */
function takeTable(growing: Growing, read: TableRead): TakenFile {
  const { kind } = read;
  const table = TABLE_OF[kind];
  const rows = read.rows.map((row): RowText => {
    const columns = [...RULE[kind].required, ...RULE[kind].optional];
    const cells = new Map(
      columns.flatMap((c) =>
        row.cell(c) === '' ? [] : (TO_CELLS[kind][c] ?? [c]).map((to) => [to, row.cell(c)] as const),
      ),
    );
    return { id: table.match?.(growing.design, cells)?.id ?? null, cells };
  });
  const change = writeRows(growing.design, table, rows, growing.newId);
  growing.design = change.design;
  growing.edits.push(...change.edits);
  const faults = change.refused.map((r) => ({
    file: read.file,
    row: read.rows[r.row]!.row,
    column: r.column,
    sentence: r.sentence,
  }));
  return tableTaken(read, faults);
}

const hearingsOf = (reads: readonly Read[]) => reads.flatMap((r) => (r.kind === 'neighbours' ? r.receptions : []));

/** What the files bring to a design that is open: rows that it has are changed, others come in beside them; whole networks as `how` says. */
export function intakeInto(
  design: Design,
  sources: readonly SourceFile[],
  newId: NewId,
  how: NetworkIntake = 'beside',
): Intake {
  const reads = readAll(sources);
  const growing: Growing = { design, edits: [], newId };
  const files = new Map<Read, TakenFile>();
  for (const read of reads)
    if (read.kind !== 'design' && read.kind !== 'graphml') files.set(read, otherTaken(read));
    else files.set(read, how === 'merge' ? mergeNetwork(growing, read) : takeNetwork(growing, read));
  // Switches before the links that name them, whatever the order of the files.
  for (const kind of ['vlans', 'switches', 'links'] as const)
    for (const read of reads.filter(isTable).filter((r) => r.kind === kind)) files.set(read, takeTable(growing, read));
  return {
    files: reads.map((r) => files.get(r)!),
    design: growing.design,
    edits: growing.edits,
    receptions: hearingsOf(reads),
  };
}

const refusedWhole = (read: Read, sentence: string): TakenFile =>
  taken(read, 'nothing', { faults: [{ file: read.file, row: null, column: null, sentence }] });

type Skipped = Map<string, Map<number | null, TableFault>>;

/** A design from tables. Each round leaves out the rows that the round before refused: one left out can spoil another. */
function tablesAsDesign(name: string, [switches, links, vlans]: readonly (TableRead | undefined)[]) {
  const skipped: Skipped = new Map();
  const source = (read: TableRead | undefined, header: ColumnRule) => ({
    file: read?.file ?? '',
    text: read?.text ?? `${header.required.join(',')}\n`,
    skip: new Set([...(skipped.get(read?.file ?? '')?.keys() ?? [])].flatMap((r) => r ?? [])),
  });
  const count = () => [...skipped.values()].reduce((sum, m) => sum + m.size, 0);
  for (let round = 0; round < 40; round++) {
    const result = importCsv(
      name,
      source(switches, SWITCH_COLUMNS),
      source(links, LINK_COLUMNS),
      vlans && source(vlans, VLAN_COLUMNS),
    );
    if (result.ok) return { design: result.design, skipped };
    const before = count();
    for (const fault of result.faults)
      skipped.set(fault.file, (skipped.get(fault.file) ?? new Map<number | null, TableFault>()).set(fault.row, fault));
    if (count() === before) break;
  }
  return { design: emptyDesign(name), skipped };
}

/** A new design from files: a design or graph as it is, or tables; rows with a fault stay out. */
export function intakeAsDesign(name: string, sources: readonly SourceFile[]): Intake {
  const reads = readAll(sources);
  const whole = reads.find((r) => r.kind === 'design' || r.kind === 'graphml');
  if (whole && 'design' in whole) {
    const beside = say['whole-network']({ file: whole.file });
    return {
      files: reads.map((r) => (r === whole || r.kind === 'unknown' ? otherTaken(r) : refusedWhole(r, beside))),
      design: whole.design,
      edits: [],
      receptions: [],
    };
  }
  const tables = (['switches', 'links', 'vlans'] as const).map((kind) =>
    reads.filter(isTable).find((r) => r.kind === kind),
  );
  const { design, skipped } = tablesAsDesign(name, tables);
  const files = reads.map((r) => {
    if (!isTable(r)) return otherTaken(r);
    if (tables.includes(r)) return tableTaken(r, [...(skipped.get(r.file)?.values() ?? [])]);
    return refusedWhole(r, say['second-of-kind']());
  });
  return { files, design, edits: [], receptions: hearingsOf(reads) };
}
