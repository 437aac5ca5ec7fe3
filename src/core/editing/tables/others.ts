/** The tables of VLANs, hosts and shared segments. */
import {
  addElement,
  groupBy,
  hostById,
  linksOfHost,
  portById,
  segmentById,
  setField,
  switchById,
  vlansAt,
} from '../../design';
import { clipped, tableMessages as say } from '../../messages';
import type { Design, Host, Segment, Vlan } from '../../design';
import { Names, freeVlan, renumberVlan } from '..';
import { vlanMembership } from '../../standard';
import { isFault, numberCell, yesCell } from './column';
import type { Column, Table } from './column';

/** Links that carry each VLAN at both ends, counted once per list of links and ports. */
const counted = new WeakMap<
  readonly unknown[],
  { ports: readonly unknown[]; bundles: readonly unknown[]; counts: Map<number, number> }
>();
function linksCarrying(design: Design): Map<number, number> {
  const known = counted.get(design.links);
  if (known && known.ports === design.ports && known.bundles === design.bundles) return known.counts;
  const pairs = design.links.flatMap(({ a, b }) =>
    'port' in a && 'port' in b ? [`${vlansAt(design, a.port).vlans}\n${vlansAt(design, b.port).vlans}`] : [],
  );
  const counts = new Map<number, number>();
  for (const [pair, alike] of groupBy(pairs, (p) => p)) {
    const [a, b] = pair.split('\n').map((set) => vlanMembership(set)) as [Uint8Array, Uint8Array];
    for (const { number } of design.vlans)
      if (a[number] && b[number]) counts.set(number, (counts.get(number) ?? 0) + alike.length);
  }
  counted.set(design.links, { ports: design.ports, bundles: design.bundles, counts });
  return counts;
}

/** What a hue is called; the numbers are positions in the row of hues that trees are drawn in. */
export const HUES = ['indigo', 'teal', 'ochre', 'plum', 'umber', 'blue', 'rose'] as const;

const vlanColumns: Column<Vlan>[] = [
  {
    id: 'number',
    title: 'VLAN',
    also: ['vlan', 'id', 'number'],
    width: 70,
    numeric: true,
    mono: true,
    text: (_, v) => String(v.number),
    sort: (_, v) => v.number,
    set: ({ design }, v, text) => {
      const value = numberCell(text);
      if (value === v.number) return [];
      if (typeof value === 'number' && Number.isInteger(value) && value >= 1 && value <= 4094)
        return renumberVlan(design, v.number, value);
      return [setField('vlan', v.id, 'number', value ?? '')];
    },
  },
  {
    id: 'name',
    title: 'Name',
    width: 180,
    text: (_, v) => v.name ?? '',
    set: (_, v, text) => [setField('vlan', v.id, 'name', text.trim() === '' ? null : text.trim())],
  },
  {
    id: 'hue',
    title: 'Hue',
    width: 92,
    choices: ['', ...HUES],
    text: (design, v) => HUES[(v.hue ?? design.vlans.indexOf(v)) % HUES.length]!,
    set: (_, v, text) => {
      const word = text.trim().toLowerCase();
      const index = HUES.findIndex((h) => h === word);
      if (word !== '' && index < 0)
        return { fault: say['not-one-of']({ what: 'Hue', text: clipped(text.trim()), legal: HUES }) };
      return [setField('vlan', v.id, 'hue', word === '' ? null : index)];
    },
  },
  {
    id: 'links',
    title: 'On links',
    width: 76,
    numeric: true,
    mono: true,
    text: (design, v) => String(linksCarrying(design).get(v.number) ?? 0),
  },
  {
    id: 'hosts',
    title: 'Hosts',
    width: 260,
    text: (design, v) =>
      design.hosts
        .filter((h) => h.vlan === v.number)
        .map((h) => h.name)
        .join(', '),
  },
];

export const VLANS: Table<Vlan> = {
  id: 'vlans',
  title: 'VLANs',
  one: 'VLAN',
  kind: 'vlan',
  columns: vlanColumns,
  naming: ['number', 'name'],
  fields: {},
  rows: (design) => design.vlans,
  find: (design, id) => design.vlans.find((v) => v.id === id),
  match: (design, cells) => design.vlans.find((v) => String(v.number) === cells.get('number')?.trim()),
  create(wiring, cells) {
    const typed = numberCell(cells.get('number') ?? '');
    const planned = wiring.edits.flatMap((e) =>
      e.type === 'add' && e.kind === 'vlan' ? [e.value as unknown as Vlan] : [],
    );
    const number = typed ?? freeVlan({ ...wiring.design, vlans: [...wiring.design.vlans, ...planned] });
    if (number === null) return { column: 'number', fault: say['every-vlan']() };
    const name = cells.get('name')?.trim();
    const element = { id: wiring.newId('v'), number: number as number, ...(name ? { name } : {}) };
    const edits = [addElement('vlan', element)];
    wiring.edits.push(...edits);
    const hue = cells.get('hue');
    if (hue?.trim()) {
      const result = vlanColumns[2]!.set!(wiring, element, hue);
      if (isFault(result)) return { column: 'hue', fault: result.fault };
      edits.push(...result);
    }
    return { edits, id: element.id };
  },
};

const hostColumns: Column<Host>[] = [
  {
    id: 'name',
    title: 'Host',
    also: ['host', 'name'],
    width: 170,
    text: (_, h) => h.name,
    set: (_, h, text) => [setField('host', h.id, 'name', text.trim())],
  },
  {
    id: 'vlan',
    title: 'VLAN',
    width: 70,
    numeric: true,
    mono: true,
    text: (_, h) => String(h.vlan ?? ''),
    set: (_, h, text) => [setField('host', h.id, 'vlan', numberCell(text))],
  },
  {
    id: 'cards',
    title: 'Cards',
    width: 60,
    numeric: true,
    mono: true,
    text: (design, h) => String(linksOfHost(design, h.id).length),
  },
  {
    id: 'ports',
    title: 'Plugged into',
    width: 340,
    text: (design, h) =>
      linksOfHost(design, h.id)
        .map(({ a, b }) => {
          const [own, far] = 'host' in a && a.host === h.id ? [a, b] : [b, a];
          const port = 'port' in far ? portById(design, far.port) : undefined;
          const card = 'host' in own && own.card ? `${own.card}: ` : '';
          return port ? `${card}${switchById(design, port.switch)?.name} ${port.name}` : '';
        })
        .join(', '),
  },
];

export const HOSTS: Table<Host> = {
  id: 'hosts',
  title: 'Hosts',
  one: 'host',
  kind: 'host',
  columns: hostColumns,
  naming: ['name'],
  fields: {},
  rows: (design) => design.hosts,
  find: hostById,
  match: (design, cells) => design.hosts.find((h) => h.name === cells.get('name')?.trim()),
  create(wiring, cells) {
    const { design } = wiring;
    const planned = wiring.edits.flatMap((e) =>
      e.type === 'add' && e.kind === 'host' ? [e.value as unknown as Host] : [],
    );
    const name =
      cells.get('name')?.trim() || new Names([...design.hosts, ...planned].map((h) => h.name)).claim('host-1');
    const vlan = numberCell(cells.get('vlan') ?? '');
    const bottom = Math.max(0, ...design.switches.map((s) => s.y ?? 0)) + 130;
    const x = 80 + 130 * (design.hosts.length + planned.length);
    const element: Host = {
      id: wiring.newId('h'),
      name,
      x,
      y: bottom,
      ...(vlan === null ? {} : { vlan: vlan as number }),
    };
    const edits = [addElement('host', element)];
    wiring.edits.push(...edits);
    return { edits, id: element.id };
  },
};

const segmentColumns: Column<Segment>[] = [
  {
    id: 'name',
    title: 'Segment',
    width: 170,
    text: (_, s) => s.name,
    set: (_, s, text) => [setField('segment', s.id, 'name', text.trim())],
  },
  {
    id: 'ports',
    title: 'Ports on it',
    width: 400,
    text: (design, s) =>
      s.ports
        .map((id) => {
          const port = portById(design, id);
          return port ? `${switchById(design, port.switch)?.name} ${port.name}` : '';
        })
        .join(', '),
  },
  {
    id: 'down',
    title: 'Down',
    width: 58,
    choices: ['', 'yes'],
    text: (_, s) => (s.down ? 'yes' : ''),
    set: (_, s, text) => {
      const value = yesCell(text);
      return value !== null && typeof value === 'object' ? value : [setField('segment', s.id, 'down', value)];
    },
  },
];

export const SEGMENTS: Table<Segment> = {
  id: 'segments',
  title: 'Segments',
  one: 'segment',
  kind: 'segment',
  columns: segmentColumns,
  naming: ['name'],
  fields: {},
  rows: (design) => design.segments,
  find: segmentById,
  match: (design, cells) => design.segments.find((s) => s.name === cells.get('name')?.trim()),
  create(wiring, cells) {
    const names = new Names(wiring.design.segments.map((s) => s.name));
    const name = cells.get('name')?.trim() || names.claim('segment-1');
    const bottom = Math.max(0, ...wiring.design.switches.map((s) => s.y ?? 0)) + 90;
    const element: Segment = { id: wiring.newId('g'), name, ports: [], x: 300, y: bottom };
    return { edits: [addElement('segment', element)], id: element.id };
  },
};
