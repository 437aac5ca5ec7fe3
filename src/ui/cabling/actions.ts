/** What can be done to the cabling, as edits with the words that undo will show. */
import {
  addElement,
  hostById,
  linkById,
  portById,
  removeAll,
  segmentById,
  setField,
  switchById,
} from '../../core/design';
import type { Design, Edit, Host, Segment, Switch } from '../../core/design';
import {
  Macs,
  Names,
  Wiring,
  carries,
  moveThings,
  oneMore,
  paintVlan,
  partOf,
  pastePart,
  portsOnWires,
} from '../../core/editing';
import type { CableEnd, Chosen, NewId, Part } from '../../core/editing';
import type { Ref } from '../session/view';
import type { Point } from '../chart/geometry';
import type { Action } from '../session/actions';

export interface MakingAction extends Action {
  /** What came into being, to be selected. */
  readonly made: readonly Ref[];
}

export const isThing = (ref: Ref): ref is Ref & Chosen =>
  ref.kind === 'switch' || ref.kind === 'host' || ref.kind === 'segment';

export const thingName = (design: Design, { kind, id }: Chosen): string =>
  (kind === 'switch' ? switchById(design, id) : kind === 'host' ? hostById(design, id) : segmentById(design, id))
    ?.name ?? '';

const round = (p: Point) => ({ x: Math.round(p.x / 10) * 10, y: Math.round(p.y / 10) * 10 });

export function addSwitchAction(design: Design, at: Point, tier: Switch['tier'] | '', newId: NewId): MakingAction {
  const stem = tier === '' || tier === undefined ? 'switch' : tier === 'distribution' ? 'dist' : tier;
  const name = new Names(design.switches.map((s) => s.name)).claim(`${stem}-1`);
  const element: Switch = {
    id: newId('s'),
    name,
    mac: new Macs(design).next(),
    ...(tier ? { tier } : {}),
    ...round(at),
  };
  return {
    label: `Add switch ${name}`,
    edits: [addElement('switch', element)],
    made: [{ kind: 'switch', id: element.id }],
  };
}

export function addHostAction(design: Design, at: Point, vlan: number | null, newId: NewId): MakingAction {
  const name = new Names(design.hosts.map((h) => h.name)).claim('host-1');
  const element: Host = { id: newId('h'), name, ...(vlan === null ? {} : { vlan }), ...round(at) };
  return { label: `Add host ${name}`, edits: [addElement('host', element)], made: [{ kind: 'host', id: element.id }] };
}

export function addSegmentAction(design: Design, at: Point, newId: NewId): MakingAction {
  const name = new Names(design.segments.map((s) => s.name)).claim('segment-1');
  const element: Segment = { id: newId('g'), name, ports: [], ...round(at) };
  return {
    label: `Add segment ${name}`,
    edits: [addElement('segment', element)],
    made: [{ kind: 'segment', id: element.id }],
  };
}

/** Cables from the first thing to each of the others, `count` a pair. */
export function cableAction(
  design: Design,
  from: CableEnd,
  to: readonly CableEnd[],
  speed: number,
  newId: NewId,
  count = 1,
): MakingAction {
  const wiring = new Wiring(design, newId);
  const links = to.flatMap((end) => Array.from({ length: count }, () => wiring.cable(from, end, speed) ?? []).flat());
  const far = to.length === 1 ? thingName(design, to[0]!) : `${to.length} others`;
  return {
    label: `Cable ${thingName(design, from)} to ${far}`,
    edits: wiring.edits,
    made: links.map((id) => ({ kind: 'link', id })),
  };
}

/** A cable to a switch that comes into being where it ends. */
export function cableToNewAction(
  design: Design,
  from: CableEnd,
  at: Point,
  tier: Switch['tier'] | '',
  speed: number,
  newId: NewId,
): MakingAction {
  const added = addSwitchAction(design, at, tier, newId);
  const made = (added.edits[0] as Extract<Edit, { type: 'add' }>).value as Switch;
  const wiring = new Wiring({ ...design, switches: [...design.switches, made] }, newId);
  wiring.cable(from, { kind: 'switch', id: made.id }, speed);
  return {
    ...added,
    label: `${added.label}, cabled to ${thingName(design, from)}`,
    edits: [...added.edits, ...wiring.edits],
  };
}

/** Takes out what is selected, with what cannot stand without it. A bundle goes with its links left in place. */
export function removeAction(design: Design, refs: readonly Ref[]): Action {
  const edits = removeAll(design, refs);
  const [only] = refs;
  const name = refs.length > 1 || !only ? `${refs.length} things` : isThing(only) ? thingName(design, only) : only.kind;
  return { label: `Delete ${name}`, edits };
}

const TIER_ORDER = ['core', 'distribution', 'access'] as const;

/** Edits that put things where `places` says; every other switch that has no place yet keeps the one it is drawn at. */
export function moveAction(
  design: Design,
  moved: ReadonlyMap<string, Point>,
  drawn: (thing: Chosen) => Point | null,
  label: string,
): Action {
  const all: Chosen[] = [
    ...design.switches.map((s) => ({ kind: 'switch' as const, id: s.id })),
    ...design.hosts.map((h) => ({ kind: 'host' as const, id: h.id })),
    ...design.segments.map((s) => ({ kind: 'segment' as const, id: s.id })),
  ];
  const unplaced = design.switches.some((s) => s.x === undefined || s.y === undefined);
  const edits = moveThings(design, all, (thing) => {
    const to = moved.get(`${thing.kind} ${thing.id}`);
    if (to) return to;
    return unplaced && thing.kind === 'switch' ? drawn(thing) : null;
  });
  return { label, edits };
}

/** Rows by tier, each in the order in which its switches stand now, each row about the same middle. */
export function tierPlaces(design: Design, drawn: (thing: Chosen) => Point | null): Map<string, Point> {
  const rows = [...TIER_ORDER, undefined].map((tier) =>
    design.switches
      .filter((s) => s.tier === tier)
      .map((s) => ({ s, at: drawn({ kind: 'switch', id: s.id }) ?? { x: 0, y: 0 } }))
      .sort((a, b) => a.at.x - b.at.x || a.at.y - b.at.y),
  );
  const used = rows.filter((row) => row.length > 0);
  const pitch = 190;
  const widest = Math.max(...used.map((row) => row.length)) * pitch;
  return new Map(
    used.flatMap((row, r) =>
      row.map(
        ({ s }, i) =>
          [`switch ${s.id}`, { x: Math.round((widest * (i + 0.5)) / row.length), y: 60 + r * 190 }] as const,
      ),
    ),
  );
}

/** Brings the chosen things into one row or column, or spreads them evenly. */
export function alignedPlaces(
  things: readonly { key: string; at: Point }[],
  how: 'row' | 'column' | 'spread',
): Map<string, Point> {
  const mean = (axis: 'x' | 'y') =>
    Math.round(things.reduce((sum, t) => sum + t.at[axis], 0) / things.length / 10) * 10;
  if (how === 'row') return new Map(things.map((t) => [t.key, { x: t.at.x, y: mean('y') }]));
  if (how === 'column') return new Map(things.map((t) => [t.key, { x: mean('x'), y: t.at.y }]));
  const span = (axis: 'x' | 'y') =>
    Math.max(...things.map((t) => t.at[axis])) - Math.min(...things.map((t) => t.at[axis]));
  const axis = span('x') >= span('y') ? 'x' : 'y';
  const sorted = [...things].sort((a, b) => a.at[axis] - b.at[axis]);
  const start = sorted[0]!.at[axis];
  const step = span(axis) / Math.max(1, sorted.length - 1);
  return new Map(sorted.map((t, i) => [t.key, { ...t.at, [axis]: Math.round(start + i * step) }]));
}

export function pasteAction(design: Design, part: Part, newId: NewId, away = { dx: 40, dy: 40 }): MakingAction {
  const { edits, made } = pastePart(design, part, newId, away);
  const n = part.switches.length + part.hosts.length + part.segments.length;
  return {
    label: `Paste ${n === 1 ? (part.switches[0] ?? part.hosts[0] ?? part.segments[0])!.name : `${n} things`}`,
    edits,
    made,
  };
}

export const chosenPart = (design: Design, refs: readonly Ref[]): Part => partOf(design, refs.filter(isThing));

export function oneMoreAction(design: Design, refs: readonly Ref[], newId: NewId): MakingAction | null {
  const switches = refs.filter((r) => r.kind === 'switch').map((r) => r.id);
  if (switches.length === 0) return null;
  const { edits, made } = oneMore(design, switches, newId);
  return {
    label: `Copy of ${switches.length === 1 ? switchById(design, switches[0]!)?.name : `these ${switches.length}`}`,
    edits,
    made,
  };
}

/** Whether painting over these wires puts the VLAN on them or takes it off: off only when all ends carry it. */
export const paintsOn = (design: Design, wires: readonly string[], vlan: number): boolean =>
  portsOnWires(design, wires).some((p) => !carries(design, p, vlan));

export function paintAction(design: Design, wires: readonly string[], vlan: number, on: boolean): Action {
  const [only] = wires;
  const link = only === undefined ? undefined : linkById(design, only);
  const end = link && [link.a, link.b].flatMap((e) => ('port' in e ? [portById(design, e.port)!] : []))[0];
  const where =
    wires.length === 1 && end
      ? `the link at ${switchById(design, end.switch)?.name} ${end.name}`
      : `${wires.length} links`;
  return {
    label: `${on ? 'Put' : 'Take'} VLAN ${vlan} ${on ? 'on' : 'off'} ${where}`,
    edits: paintVlan(design, portsOnWires(design, wires), vlan, on),
  };
}

export const renameAction = (design: Design, thing: Chosen, name: string): Action => ({
  label: `Rename ${thingName(design, thing)} to ${name}`,
  edits: name === thingName(design, thing) ? [] : [setField(thing.kind, thing.id, 'name', name)],
});
