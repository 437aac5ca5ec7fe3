/** The table of switches. */
import { addElement, AGE_STEPS, MODES, portsOf, setBridgePriority, setField, switchById, TIERS } from '../../design';
import type { Switch } from '../../design';
import { BRIDGE_PRIORITY, TIMERS, macToNumber } from '../../standard';
import { Macs, Names } from '..';
import type { Wiring } from '..';
import { choiceCell, isFault, numberCell, unlessFault, yesCell } from './column';
import { settingColumns } from './settings';
import type { CellEdits, Column, Table } from './column';

const set = (s: Switch, field: keyof Switch & string, value: unknown) => [setField('switch', s.id, field, value)];
const chosen = (s: Switch, field: keyof Switch & string, value: unknown): CellEdits =>
  unlessFault(value, (v) => set(s, field, v));

const { yes, number, choice } = settingColumns<Switch>('switch');
/** Timers, what edge ports are given, and when ports that were shut come back. */
const settings: Column<Switch>[] = [
  number({ id: 'helloTime', title: 'Hello, s', also: ['hello time'] }, TIMERS.helloTime.default),
  number({ id: 'maxAge', title: 'Max age, s', also: ['max age'], width: 84 }, TIMERS.maxAge.default),
  number({ id: 'forwardDelay', title: 'Delay, s', also: ['forward delay'] }, TIMERS.forwardDelay.default),
  number({ id: 'holdCount', title: 'Hold count', also: ['hold_count'], width: 84 }, TIMERS.holdCount.default),
  number({ id: 'ageingTime', title: 'Ageing, s', also: ['ageing time'] }, TIMERS.ageingTime.default),
  choice({ id: 'ageStep', title: 'Age step', also: ['age_step'] }, 'Age step', AGE_STEPS),
  number({ id: 'maxTrees', title: 'Trees at most', also: ['max trees', 'tree limit'], width: 104 }),
  yes({ id: 'edgeGuard', title: 'Edge guard', also: ['bpdu guard at edge ports'] }),
  yes({ id: 'edgeFilter', title: 'Edge filter', also: ['bpdu filter at edge ports'] }),
  number({ id: 'guardRecovery', title: 'Guard recovery, s', also: ['guard recovery'], width: 128 }),
  number({ id: 'oneWayRecovery', title: 'One-way recovery, s', also: ['one-way recovery'], width: 140 }),
  number({ id: 'stormRecovery', title: 'Storm recovery, s', also: ['storm recovery'], width: 128 }),
];

const columns: Column<Switch>[] = [
  {
    id: 'name',
    title: 'Switch',
    also: ['name', 'hostname'],
    stays: true,
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
    id: 'group',
    title: 'Group',
    also: ['building', 'site'],
    width: 104,
    text: (_, s) => s.group ?? '',
    set: (_, s, text) => set(s, 'group', text.trim() || null),
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
  ...settings,
  {
    id: 'off',
    title: 'Off',
    width: 52,
    choices: ['', 'yes'],
    text: (_, s) => (s.off ? 'yes' : ''),
    set: (_, s, text) => chosen(s, 'off', yesCell(text)),
  },
];

/** What the switches of a design and those planned so far have taken: names, addresses, places. Kept up as edits come. */
class TakenBySwitches {
  readonly names: Names;
  readonly macs: Macs;
  private seen = 0;
  private readonly rows = new Map<Switch['tier'], { right: number; y: number }>();
  private readonly levels = new Set<number>();
  private bottom = 0;

  constructor(private readonly wiring: Wiring) {
    const { switches } = wiring.design;
    this.names = new Names(switches.map((s) => s.name));
    this.macs = new Macs({ switches });
    switches.forEach((s) => this.place(s));
  }

  private place({ tier, x, y = 0 }: Switch): void {
    this.levels.add(y);
    this.bottom = Math.max(this.bottom, y);
    if (x === undefined) return;
    const row = this.rows.get(tier);
    this.rows.set(tier, { right: Math.max(row?.right ?? -Infinity, x), y });
  }

  /** Takes note of the switches that were planned since it was last asked. */
  catchUp(): void {
    const { edits } = this.wiring;
    for (; this.seen < edits.length; this.seen++) {
      const edit = edits[this.seen]!;
      if (edit.type !== 'add' || edit.kind !== 'switch') continue;
      const planned = edit.value as Switch;
      this.names.take(planned.name);
      this.macs.take(planned.mac);
      this.place(planned);
    }
  }

  /** Where the next switch goes without a place of its own: right of the others, in the row of its tier. */
  nextPlace(tier: Switch['tier']): { x: number; y: number } {
    const row = this.rows.get(tier);
    if (row) return { x: row.right + 190, y: row.y };
    const usual = { core: 60, distribution: 220, access: 420 }[tier ?? 'access'];
    return { x: 100, y: this.levels.has(usual) ? this.bottom + 160 : usual };
  }
}

const takenBy = new WeakMap<Wiring, TakenBySwitches>();

function takenIn(wiring: Wiring): TakenBySwitches {
  let taken = takenBy.get(wiring);
  if (!taken) takenBy.set(wiring, (taken = new TakenBySwitches(wiring)));
  taken.catchUp();
  return taken;
}

export const SWITCHES: Table<Switch> = {
  id: 'switches',
  title: 'Switches',
  one: 'switch',
  kind: 'switch',
  columns,
  naming: ['name'],
  fields: { vlanPriority: 'priorities', costScale: 'scale' },
  rows: (design) => design.switches,
  find: switchById,
  match: (design, cells) => design.switches.find((s) => s.name === cells.get('name')?.trim()),
  create(wiring, cells) {
    const taken = takenIn(wiring);
    const wish = cells.get('name')?.trim();
    const tier = choiceCell('Tier', cells.get('tier') ?? '', TIERS);
    if (tier !== null && typeof tier === 'object') return { column: 'tier', fault: tier.fault };
    const name = wish || taken.names.claim('switch-1');
    const given = cells.get('mac')?.trim();
    const mac = given ? Macs.read(given) : taken.macs.next();
    const element: Switch = {
      id: wiring.newId('s'),
      name,
      mac,
      ...(tier ? { tier } : {}),
      ...taken.nextPlace(tier ?? undefined),
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
