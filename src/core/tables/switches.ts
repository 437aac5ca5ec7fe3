/** The table of switches. */
import { MODES, TIERS, portsOf, setBridgePriority, setField, switchById } from '../design';
import type { Switch } from '../design';
import { addElement } from '../design';
import { BRIDGE_PRIORITY, macToNumber } from '../standard';
import { Macs, Names } from '../cabling';
import type { Wiring } from '../cabling';
import { choiceCell, isFault, numberCell, unlessFault, yesCell } from './column';
import type { CellEdits, Column, Table } from './column';

const set = (s: Switch, field: keyof Switch & string, value: unknown) => [setField('switch', s.id, field, value)];
const chosen = (s: Switch, field: keyof Switch & string, value: unknown): CellEdits =>
  unlessFault(value, (v) => set(s, field, v));

const columns: Column<Switch>[] = [
  {
    id: 'name',
    title: 'Switch',
    also: ['name', 'hostname'],
    width: 130,
    text: (_, s) => s.name,
    set: (_, s, text) => set(s, 'name', text.trim()),
  },
  {
    id: 'mac',
    title: 'MAC address',
    also: ['mac', 'base mac'],
    width: 148,
    mono: true,
    text: (_, s) => s.mac,
    sort: (_, s) => macToNumber(s.mac),
    set: (_, s, text) => set(s, 'mac', Macs.read(text)),
  },
  {
    id: 'priority',
    title: 'Priority',
    width: 88,
    numeric: true,
    mono: true,
    text: (_, s) => String(s.priority ?? BRIDGE_PRIORITY.default),
    set: (_, s, text) => setBridgePriority(s, 'all', numberCell(text) as number | null),
  },
  {
    id: 'priorities',
    title: 'By VLAN',
    width: 180,
    mono: true,
    text: (_, s) =>
      Object.entries(s.vlanPriority ?? {})
        .map(([vlan, value]) => `${vlan}: ${value}`)
        .join(', '),
  },
  {
    id: 'tier',
    title: 'Tier',
    width: 104,
    choices: ['', ...TIERS],
    text: (_, s) => s.tier ?? '',
    sort: (_, s) => (s.tier ? TIERS.indexOf(s.tier) : TIERS.length),
    set: (_, s, text) => chosen(s, 'tier', choiceCell('Tier', text, TIERS)),
  },
  {
    id: 'protocol',
    title: 'Protocol',
    width: 112,
    choices: ['', ...MODES],
    text: (design, s) => s.protocol ?? design.mode,
    set: ({ design }, s, text) => {
      const mode = choiceCell('Protocol', text, MODES);
      return chosen(s, 'protocol', mode === design.mode ? null : mode);
    },
  },
  {
    id: 'scale',
    title: 'Costs',
    also: ['cost_scale'],
    width: 72,
    choices: ['', 'long', 'short'],
    text: (design, s) => s.costScale ?? design.costScale,
    set: ({ design }, s, text) => {
      const scale = choiceCell('Cost scale', text, ['long', 'short'] as const);
      return chosen(s, 'costScale', scale === design.costScale ? null : scale);
    },
  },
  {
    id: 'ports',
    title: 'Ports',
    width: 60,
    numeric: true,
    mono: true,
    text: (design, s) => String(portsOf(design, s.id).length),
  },
  {
    id: 'off',
    title: 'Off',
    width: 52,
    choices: ['', 'yes'],
    text: (_, s) => (s.off ? 'yes' : ''),
    set: (_, s, text) => chosen(s, 'off', yesCell(text)),
  },
];

/** Where the next switch goes when nobody says: right of the others, in the row of its tier. */
function nextPlace(wiring: Wiring, tier: Switch['tier']): { x: number; y: number } {
  const planned = wiring.edits.flatMap((e) => (e.type === 'add' && e.kind === 'switch' ? [e.value as Switch] : []));
  const all = [...wiring.design.switches, ...planned];
  const peers = all.filter((s) => s.tier === tier && s.x !== undefined);
  const last = peers.at(-1);
  if (last) return { x: Math.max(...peers.map((s) => s.x!)) + 190, y: last.y ?? 0 };
  const row = { core: 60, distribution: 220, access: 420 }[tier ?? 'access'];
  return { x: 100, y: all.some((s) => s.y === row) ? Math.max(...all.map((s) => s.y ?? 0)) + 160 : row };
}

export const SWITCHES: Table<Switch> = {
  id: 'switches',
  title: 'Switches',
  one: 'switch',
  kind: 'switch',
  columns,
  fields: { vlanPriority: 'priorities', costScale: 'scale' },
  rows: (design) => design.switches,
  find: switchById,
  match: (design, cells) => design.switches.find((s) => s.name === cells.get('name')),
  create(wiring, cells) {
    const { design } = wiring;
    const planned = wiring.edits.flatMap((e) => (e.type === 'add' && e.kind === 'switch' ? [e.value as Switch] : []));
    const wish = cells.get('name')?.trim();
    const tier = choiceCell('Tier', cells.get('tier') ?? '', TIERS);
    if (tier !== null && typeof tier === 'object') return { column: 'tier', fault: tier.fault };
    const name = wish || new Names([...design.switches, ...planned].map((s) => s.name)).claim('switch-1');
    const given = cells.get('mac')?.trim();
    const mac = given ? Macs.read(given) : new Macs({ switches: [...design.switches, ...planned] }).next();
    const element: Switch = {
      id: wiring.newId('s'),
      name,
      mac,
      ...(tier ? { tier } : {}),
      ...nextPlace(wiring, tier ?? undefined),
    };
    const edits = [addElement('switch', element)];
    wiring.edits.push(...edits);
    for (const column of columns) {
      const text = cells.get(column.id);
      if (!text?.trim() || !column.set || ['name', 'mac', 'tier'].includes(column.id)) continue;
      const result = column.set(wiring, element, text);
      if (isFault(result)) return { column: column.id, fault: result.fault };
      edits.push(...result);
    }
    return { edits, id: element.id };
  },
};
