/** The table of ports. */
import {
  ACTIONS,
  LINK_TYPES,
  STORM_ACTIONS,
  bundleAt,
  endOwner,
  farEnd,
  linkAt,
  linkTypeOf,
  portById,
  segmentAt,
  setField,
  setPortCost,
  setPortPriority,
  switchById,
  vlansAt,
} from '../../design';
import { clipped, tableMessages as say } from '../../messages';
import type { Design, Edit, Port } from '../../design';
import { setNative, setVlans } from '..';
import type { Wiring } from '..';
import { PORT_PRIORITY } from '../../standard';
import { choiceCell, isFault, numberCell, speedCell, unlessFault, yesCell } from './column';
import { settingColumns } from './settings';
import type { CellEdits, Column, Table } from './column';

const set = (p: Port, field: keyof Port & string, value: unknown) => [setField('port', p.id, field, value)];
const chosen = (p: Port, field: keyof Port & string, value: unknown): CellEdits =>
  unlessFault(value, (v) => set(p, field, v));

/** The text of a cell that names the other end of a port's cable: `quay-a 3`, a host, a segment. */
function farText(design: Design, port: Port): string {
  const segment = segmentAt(design, port.id);
  if (segment) return segment.name;
  const link = linkAt(design, port.id);
  if (!link) return '';
  const end = farEnd(link, port.id);
  const owner = endOwner(design, end)?.name ?? '';
  return 'port' in end ? `${owner} ${portById(design, end.port)?.name}` : owner;
}

/** The untagged VLAN as typed. */
function nativeEdits(design: Design, portId: string, text: string): CellEdits {
  const value = numberCell(text);
  if (typeof value === 'string')
    return {
      fault: say['not-a-vlan']({ text: clipped(text.trim()) }),
    };
  return setNative(design, portId, value);
}

/** The switch named in a cell, for a port that moves there. */
function moveTo(wiring: Wiring, port: Port, text: string): CellEdits {
  const { design } = wiring;
  const to = design.switches.find((s) => s.name === text.trim());
  if (!to) return { fault: say['no-switch']({ text: clipped(text.trim()) }) };
  if (to.id === port.switch) return [];
  const bundle = bundleAt(design, port.id);
  if (bundle)
    return {
      fault: say['member-moves']({ port: port.name, bundle: bundle.name }),
    };
  const edits: Edit[] = [setField('port', port.id, 'switch', to.id)];
  const clash = wiring.named(to.id, port.name) !== undefined;
  const number = wiring.freeNumber(to.id, port.number);
  if (number !== port.number) edits.push(setField('port', port.id, 'number', number));
  if (clash) edits.push(setField('port', port.id, 'name', String(number)));
  return edits;
}

const { yes, yesOrNo, number, choice } = settingColumns<Port>('port');
/** Guards, and what acts over time alone. */
const settings: Column<Port>[] = [
  yes({ id: 'autoEdge', title: 'Auto edge', also: ['auto_edge'] }),
  yesOrNo({ id: 'bpduGuard', title: 'BPDU guard', also: ['bpdu_guard'], width: 92 }),
  yesOrNo({ id: 'bpduFilter', title: 'BPDU filter', also: ['bpdu_filter'], width: 92 }),
  yes({ id: 'filterYields', title: 'Yields', also: ['filter yields'], width: 64 }),
  yes({ id: 'rootGuard', title: 'Root guard', also: ['root_guard'] }),
  yes({ id: 'loopGuard', title: 'Loop guard', also: ['loop_guard'] }),
  yes({ id: 'silenceGuard', title: 'Silence guard', also: ['silence_guard'], width: 104 }),
  yes({ id: 'tcGuard', title: 'TC guard', also: ['topology change guard'] }),
  number({ id: 'helloTime', title: 'Hello, s', also: ['hello time'] }),
  choice({ id: 'oneWay', title: 'One-way', also: ['one-way detection'] }, 'One-way detection', ACTIONS),
  number({ id: 'oneWayInterval', title: 'Keepalive, s', also: ['keepalive interval'], width: 92 }),
  number({ id: 'stormLimit', title: 'Storm, %', also: ['storm limit'] }),
  choice({ id: 'stormAction', title: 'Beyond', also: ['storm action'] }, 'Storm action', STORM_ACTIONS),
];

const columns: Column<Port>[] = [
  {
    id: 'switch',
    title: 'Switch',
    stays: true,
    width: 120,
    text: (design, p) => switchById(design, p.switch)?.name ?? '',
    set: moveTo,
  },
  {
    id: 'name',
    title: 'Port',
    also: ['port name'],
    stays: true,
    width: 76,
    mono: true,
    text: (_, p) => p.name,
    set: (_, p, text) => set(p, 'name', text.trim()),
  },
  {
    id: 'number',
    title: 'No.',
    also: ['number', 'port number'],
    width: 52,
    numeric: true,
    mono: true,
    text: (_, p) => String(p.number),
    sort: (_, p) => p.number,
    set: (_, p, text) => {
      const value = numberCell(text);
      return value === null ? { fault: say['number-missing']() } : set(p, 'number', value);
    },
  },
  { id: 'to', title: 'Cabled to', width: 140, text: farText },
  {
    id: 'speed',
    title: 'Mb/s',
    also: ['speed', 'speed_mbps'],
    width: 68,
    numeric: true,
    mono: true,
    text: (_, p) => String(p.speed),
    sort: (_, p) => p.speed,
    set: (_, p, text) => set(p, 'speed', speedCell(text)),
  },
  {
    id: 'duplex',
    title: 'Duplex',
    width: 64,
    choices: ['', 'full', 'half'],
    text: (_, p) => p.duplex ?? 'full',
    set: (_, p, text) => {
      const value = choiceCell('Duplex', text, ['full', 'half'] as const);
      return chosen(p, 'duplex', value === 'full' ? null : value);
    },
  },
  {
    id: 'type',
    title: 'Link type',
    also: ['link_type'],
    width: 104,
    choices: ['', ...LINK_TYPES],
    text: (design, p) => (p.linkType ? p.linkType : `${linkTypeOf(design, p)}`),
    set: (_, p, text) => chosen(p, 'linkType', choiceCell('Link type', text, LINK_TYPES)),
  },
  {
    id: 'vlans',
    title: 'VLANs',
    width: 170,
    mono: true,
    text: (design, p) => vlansAt(design, p.id).vlans,
    set: ({ design }, p, text) => setVlans(design, p.id, text),
  },
  {
    id: 'native',
    title: 'Untagged',
    also: ['native', 'native_vlan', 'untagged vlan'],
    width: 72,
    numeric: true,
    mono: true,
    text: (design, p) => String(vlansAt(design, p.id).native ?? ''),
    set: ({ design }, p, text) => nativeEdits(design, p.id, text),
  },
  {
    id: 'cost',
    title: 'Cost',
    width: 76,
    numeric: true,
    mono: true,
    text: (_, p) => String(p.cost ?? ''),
    set: (_, p, text) => setPortCost('port', p, 'all', numberCell(text) as number | null),
  },
  {
    id: 'priority',
    title: 'Port prio.',
    also: ['port priority', 'port_priority'],
    width: 74,
    numeric: true,
    mono: true,
    text: (_, p) => String(p.priority ?? PORT_PRIORITY.default),
    set: (_, p, text) => setPortPriority('port', p, 'all', numberCell(text) as number | null),
  },
  {
    id: 'edge',
    title: 'Edge',
    width: 54,
    choices: ['', 'yes'],
    text: (_, p) => (p.edge ? 'yes' : ''),
    set: (_, p, text) => chosen(p, 'edge', yesCell(text)),
  },
  ...settings,
  {
    id: 'down',
    title: 'Down',
    also: ['administratively down', 'shutdown'],
    width: 58,
    choices: ['', 'yes'],
    text: (_, p) => (p.down ? 'yes' : ''),
    set: (_, p, text) => chosen(p, 'down', yesCell(text)),
  },
  {
    id: 'description',
    title: 'Description',
    width: 190,
    text: (_, p) => p.description ?? '',
    set: (_, p, text) => set(p, 'description', text.trim() === '' ? null : text.trim()),
  },
];

export const PORTS: Table<Port> = {
  id: 'ports',
  title: 'Ports',
  one: 'port',
  kind: 'port',
  columns,
  naming: ['switch', 'name'],
  fields: { vlanCost: 'cost', vlanPriority: 'priority', linkType: 'type' },
  rows: (design) => design.ports,
  find: portById,
  match: (design, cells) => {
    const at = design.switches.find((s) => s.name === cells.get('switch'));
    return design.ports.find((p) => p.switch === at?.id && p.name === cells.get('name'));
  },
  create(wiring, cells) {
    const name = cells.get('switch')?.trim() ?? '';
    const at = wiring.design.switches.find((s) => s.name === name);
    if (!at)
      return {
        column: 'switch',
        fault: name ? say['no-switch']({ text: clipped(name) }) : say['port-needs-switch'](),
      };
    const called = cells.get('name')?.trim();
    if (called && wiring.named(at.id, called))
      return { column: 'name', fault: say['port-name-taken']({ name: clipped(name), port: clipped(called) }) };
    const before = wiring.edits.length;
    const typed = speedCell(cells.get('speed')?.trim() || '1000');
    const number = numberCell(cells.get('number') ?? '');
    const id = wiring.newPort(at.id, {
      speed: typed as number,
      ...(called ? { name: called } : {}),
      ...(number === null ? {} : { number: number as number }),
    });
    const edits = wiring.edits.slice(before);
    const element = { id, switch: at.id, name: called ?? '', number: 0, speed: 0 };
    for (const column of columns) {
      const text = cells.get(column.id);
      if (!text?.trim() || !column.set || ['switch', 'name', 'number', 'speed'].includes(column.id)) continue;
      const result =
        column.id === 'vlans' || column.id === 'native'
          ? newPortVlan(id, column.id, text)
          : column.set(wiring, element, text);
      if (isFault(result)) return { column: column.id, fault: result.fault };
      edits.push(...result);
    }
    return { edits, id };
  },
};

/** VLAN cells of a port that is not in the design yet. */
export function newPortVlan(id: string, field: 'vlans' | 'native', text: string): CellEdits {
  if (field === 'vlans') return /^all$/i.test(text.trim()) ? [] : [setField('port', id, 'vlans', text.trim())];
  const value = numberCell(text);
  return typeof value === 'string'
    ? { fault: say['not-a-vlan']({ text: clipped(text.trim()) }) }
    : value === null
      ? []
      : [setField('port', id, 'native', value)];
}

export { nativeEdits };
