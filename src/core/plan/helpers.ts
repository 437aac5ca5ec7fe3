/** Steps that are not in the difference and help on the way: a member is shut before it is moved, a way is drained before it goes. */
import { bundleAt, farEnd, groupBy, linkAt, linkById, portById, portsOf, setField, switchById } from '../design';
import type { Bundle, Design, Edit, Link } from '../design';
import { isPeerPort } from '../network';
import { portsOfLink } from '../review';
import { BRIDGE_PRIORITY, COST_RANGE } from '../standard';
import { bundlesOfWork, cablesOf } from './constraints';
import type { Work } from './gather';

/** Work that is done before others, and taken back after them. */
export interface Helper {
  readonly before: readonly Work[];
  readonly after: readonly Work[];
  /** Places of the work in between. */
  readonly around: readonly number[];
}

const temporary = (id: string, device: string, edits: readonly Edit[]): Work => ({
  id: `temporary ${id}`,
  kind: 'temporary',
  device,
  other: null,
  edits,
});

/** Switch by switch, one piece of work that sets, and one that takes back. */
function aroundWork(key: string, ports: readonly { at: string; set: Edit; back: Edit }[], around: number[]): Helper {
  const devices = [...new Set(ports.map((p) => p.at))];
  const of = (device: string, which: 'set' | 'back') => ports.filter((p) => p.at === device).map((p) => p[which]);
  return {
    before: devices.map((d) => temporary(`${key} before ${d}`, d, of(d, 'set'))),
    after: devices.map((d) => temporary(`${key} after ${d}`, d, of(d, 'back'))),
    around,
  };
}

/** The bundle that the cables of one lead to. */
function farBundle(design: Design, bundle: Bundle): Bundle | undefined {
  for (const m of bundle.members) {
    const link = linkAt(design, m);
    const end = link && farEnd(link, m);
    if (end && 'port' in end) return bundleAt(design, end.port);
  }
  return undefined;
}

/** Places of the work at both ends of a bundle, in either design. */
function worksAtEnds(works: readonly Work[], start: Design, goal: Design, ends: ReadonlySet<string>): number[] {
  const touches = (w: Work) => [start, goal].some((d) => bundlesOfWork(w, d).some((b) => ends.has(b.id)));
  return works.flatMap((w, i) => (touches(w) ? [i] : []));
}

/** All members but one are shut at one end until both ends of the bundle, and its cables, are there. */
function shutMembers(works: readonly Work[], start: Design, goal: Design, bundle: Bundle): Helper | null {
  const ends = new Set([start, goal].flatMap((d) => [bundle.id, farBundle(d, bundle)?.id ?? bundle.id]));
  const around = [...new Set([...worksAtEnds(works, start, goal, ends), ...cablesOf(bundle, works)])];
  const live = bundle.members.filter((m) => linkAt(start, m) !== undefined);
  const [first = bundle.members[0]] = live;
  const open = (m: string) =>
    portById(start, m) !== undefined && !portById(start, m)!.down && portById(goal, m) !== undefined;
  const shut = bundle.members.filter((m) => m !== first && open(m));
  if (shut.length === 0) return null;
  const ports = shut.map((m) => ({
    at: bundle.switch,
    set: setField('port', m, 'down', true),
    back: setField('port', m, 'down', portById(goal, m)!.down ?? null),
  }));
  return aroundWork(`members ${bundle.id}`, ports, around);
}

/** Static bundles that are made or taken away with several cables in service: one end alone would loop, whichever is first. */
export function helpersForStatic(works: readonly Work[], start: Design, goal: Design): Helper[] {
  const done = new Set<string>();
  return works.flatMap((work) =>
    [start, goal].flatMap((design) =>
      bundlesOfWork(work, design).flatMap((bundle) => {
        const live = bundle.members.filter((m) => linkAt(start, m) && !linkAt(start, m)!.down);
        if (bundle.kind !== 'static' || live.length < 2 || done.has(bundle.id)) return [];
        done.add(bundle.id);
        const far = farBundle(design, bundle);
        if (far) done.add(far.id);
        return shutMembers(works, start, goal, bundle) ?? [];
      }),
    ),
  );
}

const COST_TABLES = ['vlanCost', 'instanceCost'] as const;

/** The port or bundle at an end as dear as can be in every tree, and back to what the target has. */
function dear(design: Design, goal: Design, port: string): { at: string; set: Edit; back: Edit }[] {
  const now = bundleAt(design, port) ?? portById(design, port);
  if (!now) return [];
  const kind = 'members' in now ? 'bundle' : 'port';
  const later = kind === 'bundle' ? goal.bundles.find((b) => b.id === now.id) : portById(goal, now.id);
  const scale = switchById(design, now.switch)?.costScale ?? design.costScale;
  const most = COST_RANGE[scale].max;
  const one = (field: string, back: number | undefined) => ({
    at: now.switch,
    set: setField(kind, now.id, field as never, most),
    back: setField(kind, now.id, field as never, back ?? null),
  });
  const tables = COST_TABLES.flatMap((table) =>
    Object.keys(now[table] ?? {}).map((key) => one(`${table}.${key}`, later?.[table]?.[key])),
  );
  const inner = now.internalCost === undefined ? [] : [one('internalCost', later?.internalCost)];
  return later ? [one('cost', later.cost), ...inner, ...tables] : [];
}

/** Links that a piece of work takes out of service. */
function linksTakenOut({ edits }: Work, start: Design): Link[] {
  return edits.flatMap((e): Link[] => {
    if (e.type === 'remove' && e.kind === 'link') return [linkById(start, e.id)].filter((l) => l !== undefined);
    if (e.type !== 'set' || e.value !== true) return [];
    if (e.kind === 'link' && e.field === 'down') return [linkById(start, e.id)].filter((l) => l !== undefined);
    if (e.kind === 'port' && e.field === 'down') return [linkAt(start, e.id)].filter((l) => l !== undefined);
    if (e.kind !== 'switch' || e.field !== 'off') return [];
    return start.links.filter((l) => portsOfLink(l).some((p) => portById(start, p)?.switch === e.id));
  });
}

/** Everything that goes is made dear at both its ends first, so that traffic leaves it before it goes. */
export function drain(works: readonly Work[], start: Design, goal: Design, at: number): Helper | null {
  const links = linksTakenOut(works[at]!, start).filter((l) => portsOfLink(l).length === 2);
  const ports = links.flatMap((l) => portsOfLink(l).flatMap((p) => dear(start, goal, p)));
  // Members of one bundle share its cost.
  const once = [...new Map(ports.map((p) => [JSON.stringify(p.set), p])).values()];
  return once.length === 0 ? null : aroundWork(`drain ${works[at]!.id}`, once, [at]);
}

const PRIORITY_TABLES = ['vlanPriority', 'instancePriority'] as const;

/** Whether a piece of work sets one of some fields of its switch. */
const setsAtSwitch = ({ edits }: Work, fields: readonly string[]): boolean =>
  edits.some((e) => e.type === 'set' && e.kind === 'switch' && fields.includes(e.field));

/**
 * A switch that is to run something else hangs on one uplink while it does, each of its uplinks in turn: what is blocked or
 * agreed at the others has no say then.
 */
function oneUplink(works: readonly Work[], start: Design, goal: Design, at: number): Helper[] {
  const work = works[at]!;
  if (work.device === null || !setsAtSwitch(work, ['protocol', 'region'])) return [];
  const uplinks = uplinksOf(start, work.device).filter((u) => u.every((p) => portById(goal, p)));
  if (uplinks.length < 2) return [];
  return uplinks.map((kept) => {
    const ports = uplinks.flatMap((u) => (u === kept ? [] : u));
    return aroundWork(
      `one uplink ${kept[0]} ${work.id}`,
      ports.map((p) => ({
        at: work.device!,
        set: setField('port', p, 'down', true),
        back: setField('port', p, 'down', portById(goal, p)!.down ?? null),
      })),
      [at],
    );
  });
}

/** Ports of a switch with working cables to other switches, those of one bundle together; peer links of a pair are none. */
function uplinksOf(design: Design, device: string): string[][] {
  const open = portsOf(design, device).filter((p) => {
    const link = linkAt(design, p.id);
    const end = link && farEnd(link, p.id);
    if (p.down || !link || link.down || isPeerPort(design, p.id)) return false;
    return end !== undefined && 'port' in end && portById(design, end.port)?.switch !== device;
  });
  return [...groupBy(open, (p) => bundleAt(design, p.id)?.id ?? p.id).values()].map((own) => own.map((p) => p.id));
}

/** A switch that is to run something else, or goes off, is the last that would be root of any tree while it does. */
export function stepDown(works: readonly Work[], start: Design, goal: Design, at: number): Helper | null {
  const { device, edits } = works[at]!;
  const goes = edits.some((e) => e.type === 'set' && e.kind === 'switch' && e.field === 'off' && e.value === true);
  const turns = goes || setsAtSwitch(works[at]!, ['protocol', 'region']);
  const now = turns && device !== null ? switchById(start, device) : undefined;
  const later = now && switchById(goal, now.id);
  if (!now || !later) return null;
  const one = (field: string, back: number | undefined) => ({
    at: now.id,
    set: setField('switch', now.id, field as never, BRIDGE_PRIORITY.max),
    back: setField('switch', now.id, field as never, back ?? null),
  });
  const tables = PRIORITY_TABLES.flatMap((table) =>
    Object.keys(now[table] ?? {}).map((key) => one(`${table}.${key}`, later[table]?.[key])),
  );
  return aroundWork(`step down ${works[at]!.id}`, [one('priority', later.priority), ...tables], [at]);
}

/** What could help at a piece of work that costs something. */
export function helpersFor(works: readonly Work[], start: Design, goal: Design, at: number): Helper[] {
  const work = works[at]!;
  const cables = goal.bundles.filter((b) => cablesOf(b, works).includes(at));
  const bundles = [...bundlesOfWork(work, goal), ...cables].flatMap((b) => {
    const far = farBundle(goal, b);
    return far ? [b, far] : [b];
  });
  const once = [...new Map(bundles.map((b) => [b.id, b])).values()];
  const members = once.map((b) => shutMembers(works, start, goal, b));
  const own = [drain(works, start, goal, at), stepDown(works, start, goal, at), ...oneUplink(works, start, goal, at)];
  return [...members, ...own].filter((h) => h !== null);
}

/** Without steps that are taken back, both ends of such a bundle are set at one moment, by two people: one piece of work. */
export function joinedEnds(works: readonly Work[], start: Design, goal: Design): Work[] {
  const gone = new Set<number>();
  const joined = helpersForStatic(works, start, goal).flatMap(({ around }): Work[] => {
    const own = around.filter((i) => works[i]!.kind === 'bundle' && !gone.has(i));
    const [first, ...rest] = own.map((i) => works[i]!);
    if (!first || rest.length === 0) return [];
    for (const i of own) gone.add(i);
    return [{ ...first, other: rest[0]!.device, edits: [first, ...rest].flatMap((w) => w.edits) }];
  });
  return [...works.filter((_, i) => !gone.has(i)), ...joined];
}
