/** A design from tables of switches, links and VLANs. All rows come in, or none and every refused one is named. */
import { MODES, emptyDesign, readDesign } from '../design';
import { clipped, fileMessages as say } from '../messages';
import type { Design, Fault, Mode, Port } from '../design';
import { canonicalMac, formatVlanRanges, parseVlanRanges } from '../standard';
import type { CostScale } from '../standard';
import { LINK_COLUMNS, SWITCH_COLUMNS, VLAN_COLUMNS } from './csv-columns';
import { numberPorts } from './csv-numbers';
import type { PendingPort } from './csv-numbers';
import { readTable } from './table';
import type { TableFault, TableRow } from './table';

export interface CsvSource {
  /** Name shown in faults. */
  readonly file: string;
  readonly text: string;
  /** Rows that are to be left out, by their line in the file. */
  readonly skip?: ReadonlySet<number>;
}

export type CsvImport = { ok: true; design: Design } | { ok: false; faults: TableFault[] };

const SCALES: Record<string, CostScale> = {
  long: 'long',
  '32': 'long',
  '32-bit': 'long',
  short: 'short',
  '16': 'short',
  '16-bit': 'short',
};

/** Collects what the tables say, and where each element came from, so that a later fault finds its row. */
class Intake {
  readonly faults: TableFault[] = [];
  readonly origin = new Map<string, { file: string; row: number; columns: Record<string, string> }>();
  readonly design: Design;
  private readonly switchIds = new Map<string, string>();
  private readonly pending: PendingPort[] = [];
  private readonly segmentIndex = new Map<string, number>();
  readonly portIds = new Map<string, { id: string; row: number }>();

  constructor(name: string) {
    this.design = { ...emptyDesign(name), vlans: [] };
  }

  refuse(file: string, row: TableRow, column: string | null, sentence: string): void {
    this.faults.push({ file, row: row.row, column, sentence });
  }

  /** A number from a cell; undefined when empty, NaN kept as text for the schema to refuse. */
  private number(file: string, row: TableRow, column: string): number | undefined {
    const text = row.cell(column);
    if (text === '') return undefined;
    const value = Number(text);
    if (Number.isFinite(value)) return value;
    this.refuse(file, row, column, say['not-a-number']({ text: clipped(text) }));
    return undefined;
  }

  switches(file: string, rows: readonly TableRow[]): void {
    const modes: { mode: Mode | null; scale: CostScale | null }[] = [];
    for (const row of rows) {
      const name = row.cell('switch');
      const id = `s${this.design.switches.length + 1}`;
      const mac = canonicalMac(row.cell('mac')) ?? row.cell('mac');
      const priority = this.number(file, row, 'priority');
      const tier = row.cell('tier').toLowerCase();
      this.origin.set(`switches.${this.design.switches.length}`, { file, row: row.row, columns: { name: 'switch' } });
      if (!this.switchIds.has(name)) this.switchIds.set(name, id);
      this.design.switches.push({
        id,
        name,
        mac,
        ...(priority === undefined ? {} : { priority }),
        ...(tier === '' ? {} : { tier: tier as 'core' }),
      });
      modes.push({ mode: this.protocol(file, row), scale: this.scale(file, row) });
    }
    this.modes(modes);
  }

  private protocol(file: string, row: TableRow): Mode | null {
    const text = row.cell('protocol').toLowerCase();
    if (text === '') return null;
    if ((MODES as readonly string[]).includes(text)) return text as Mode;
    this.refuse(file, row, 'protocol', say['unknown-mode']({ text: clipped(text), legal: MODES }));
    return null;
  }

  private scale(file: string, row: TableRow): CostScale | null {
    const text = row.cell('cost_scale').toLowerCase();
    if (text === '') return null;
    const scale = SCALES[text];
    if (!scale) this.refuse(file, row, 'cost_scale', say['unknown-scale']({ text: clipped(text) }));
    return scale ?? null;
  }

  /** The design takes what most switches say; the others keep their own. */
  private modes(said: readonly { mode: Mode | null; scale: CostScale | null }[]): void {
    const most = <T>(values: readonly (T | null)[], otherwise: T): T => {
      const counts = new Map<T, number>();
      for (const v of values) if (v !== null) counts.set(v, (counts.get(v) ?? 0) + 1);
      return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? otherwise;
    };
    this.design.mode = most(
      said.map((s) => s.mode),
      this.design.mode,
    );
    this.design.costScale = most(
      said.map((s) => s.scale),
      this.design.costScale,
    );
    said.forEach(({ mode, scale }, i) => {
      if (mode && mode !== this.design.mode) this.design.switches[i]!.protocol = mode;
      if (scale && scale !== this.design.costScale) this.design.switches[i]!.costScale = scale;
    });
  }

  private end(file: string, row: TableRow, side: 'a' | 'b', speed: number, vlans: string | undefined): string | null {
    const [name, portName] = [row.cell(`${side}_switch`), row.cell(`${side}_port`)];
    const at = this.switchIds.get(name);
    if (name === '' || portName === '') {
      const column = name === '' ? `${side}_switch` : `${side}_port`;
      this.refuse(file, row, column, say['link-cell-empty']());
      return null;
    }
    if (!at) {
      this.refuse(file, row, `${side}_switch`, say['no-switch-in-table']({ text: clipped(name) }));
      return null;
    }
    const key = `${at}\n${portName}`;
    const before = this.portIds.get(key);
    if (before) {
      this.refuse(
        file,
        row,
        `${side}_port`,
        say['port-used']({ port: clipped(portName), name: clipped(name), row: before.row }),
      );
      return null;
    }
    const id = `p${this.design.ports.length + 1}`;
    this.portIds.set(key, { id, row: row.row });
    const given = this.number(file, row, `${side}_port_number`) ?? null;
    const cost = this.number(file, row, `${side}_cost`);
    const priority = this.number(file, row, `${side}_port_priority`);
    const native = this.number(file, row, 'native_vlan');
    const port: Port = { id, switch: at, name: portName, number: given ?? 0, speed };
    if (cost !== undefined) port.cost = cost;
    if (priority !== undefined) port.priority = priority;
    if (vlans !== undefined) port.vlans = vlans;
    if (native !== undefined) port.native = native;
    this.origin.set(`ports.${this.design.ports.length}`, {
      file,
      row: row.row,
      columns: {
        name: `${side}_port`,
        number: `${side}_port_number`,
        cost: `${side}_cost`,
        priority: `${side}_port_priority`,
        speed: 'speed_mbps',
        vlans: 'vlans',
        native: 'native_vlan',
      },
    });
    this.design.ports.push(port);
    this.pending.push({ port, given });
    return id;
  }

  links(file: string, rows: readonly TableRow[]): void {
    for (const row of rows) {
      const speed = this.number(file, row, 'speed_mbps');
      if (speed === undefined) {
        if (row.cell('speed_mbps') === '') this.refuse(file, row, 'speed_mbps', say['speed-cell-empty']());
        continue;
      }
      const vlans = this.vlanCell(file, row);
      if (vlans === null) continue;
      const segment = row.cell('segment');
      const a = this.end(file, row, 'a', speed, vlans);
      if (segment !== '') {
        if (row.cell('b_switch') !== '' || row.cell('b_port') !== '')
          this.refuse(file, row, 'segment', say['segment-with-b-side']());
        else if (a !== null) this.attach(segment, a);
        continue;
      }
      const b = this.end(file, row, 'b', speed, vlans);
      if (a === null || b === null) continue;
      this.origin.set(`links.${this.design.links.length}`, { file, row: row.row, columns: {} });
      this.design.links.push({ id: `l${this.design.links.length + 1}`, a: { port: a }, b: { port: b } });
    }
    numberPorts(this.pending);
  }

  private vlanCell(file: string, row: TableRow): string | undefined | null {
    const text = row.cell('vlans');
    if (text === '' || text.toLowerCase() === 'all') return undefined;
    const parsed = parseVlanRanges(text);
    if (parsed.ok) return formatVlanRanges(parsed.vlans);
    this.refuse(file, row, 'vlans', say['vlan-list']({ text: clipped(text), part: clipped(parsed.part) }));
    return null;
  }

  private attach(name: string, port: string): void {
    let index = this.segmentIndex.get(name);
    if (index === undefined) {
      index = this.design.segments.length;
      this.segmentIndex.set(name, index);
      this.design.segments.push({ id: `g${index + 1}`, name, ports: [] });
    }
    this.design.segments[index]!.ports.push(port);
  }

  vlans(file: string, rows: readonly TableRow[]): void {
    for (const row of rows) {
      const number = this.number(file, row, 'vlan');
      if (number === undefined) {
        if (row.cell('vlan') === '') this.refuse(file, row, 'vlan', say['vlan-cell-empty']());
        continue;
      }
      const name = row.cell('name');
      this.origin.set(`vlans.${this.design.vlans.length}`, { file, row: row.row, columns: { number: 'vlan' } });
      this.design.vlans.push({ id: `v${this.design.vlans.length + 1}`, number, ...(name === '' ? {} : { name }) });
    }
  }

  /** Without a table of VLANs, those that links name; without any, VLAN 1. */
  vlansFromLinks(): void {
    const named = new Set<number>();
    for (const port of this.design.ports) {
      const parsed = parseVlanRanges(port.vlans ?? '');
      if (parsed.ok) for (const vlan of parsed.vlans) named.add(vlan);
      if (port.native !== undefined) named.add(port.native);
    }
    if (named.size === 0) named.add(1);
    this.design.vlans = [...named].sort((a, b) => a - b).map((number) => ({ id: `v${number}`, number }));
  }

  /** A fault of the finished design, led back to the cell it came from. */
  located(fault: Fault, files: { switches: string; links: string }): TableFault {
    const [list, index, field] = fault.path;
    const origin = this.origin.get(`${String(list)}.${String(index)}`);
    const fallback = list === 'switches' ? files.switches : files.links;
    if (!origin) return { file: fallback, row: null, column: null, sentence: fault.sentence };
    const column = field === undefined ? null : (origin.columns[String(field)] ?? String(field));
    return { file: origin.file, row: origin.row, column, sentence: fault.sentence };
  }
}

/** Reads the tables into a design. `vlans` may be left out: then the links say which VLANs there are. */
export function importCsv(name: string, switches: CsvSource, links: CsvSource, vlans?: CsvSource): CsvImport {
  const intake = new Intake(name);
  const tables = {
    switches: readTable(switches.file, switches.text, SWITCH_COLUMNS),
    links: readTable(links.file, links.text, LINK_COLUMNS),
    vlans: vlans ? readTable(vlans.file, vlans.text, VLAN_COLUMNS) : null,
  };
  const unread = [...tables.switches.faults, ...tables.links.faults, ...(tables.vlans?.faults ?? [])];
  if (unread.length > 0) return { ok: false, faults: unread };
  const wanted = ({ skip }: CsvSource, rows: readonly TableRow[]) => rows.filter((r) => !skip?.has(r.row));
  intake.switches(switches.file, wanted(switches, tables.switches.rows));
  intake.links(links.file, wanted(links, tables.links.rows));
  if (vlans && tables.vlans) intake.vlans(vlans.file, wanted(vlans, tables.vlans.rows));
  else intake.vlansFromLinks();
  const read = readDesign(intake.design);
  if (read.ok && intake.faults.length === 0) return read;
  const files = { switches: switches.file, links: links.file };
  const later = read.ok ? [] : read.faults.map((fault) => intake.located(fault, files));
  const faults = [...intake.faults, ...later].sort(
    (a, b) => a.file.localeCompare(b.file) || (a.row ?? 0) - (b.row ?? 0),
  );
  return { ok: false, faults };
}
