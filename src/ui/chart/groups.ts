/** Which switches belong together: those that were put into a group, else what their names or their cabling tell. */
import type { Design } from '../../core/design';
import { groupBy, portById } from '../../core/design';

/** A group is more than a pair. */
const LEAST_OF_GROUP = 3;
/** Groups that are found are used when they hold this share of the switches. */
const ENOUGH = 0.6;
/** Without tiers, the switches with the most neighbours are taken for the middle of the network. */
const MIDDLE = 2;

/** Neighbouring switches by index; cabling only, whatever is down. */
export function neighboursOf(design: Design): readonly (readonly number[])[] {
  let next = neighbours.get(design);
  if (!next) neighbours.set(design, (next = findNeighbours(design)));
  return next;
}

const neighbours = new WeakMap<Design, readonly (readonly number[])[]>();

function findNeighbours(design: Design): readonly (readonly number[])[] {
  const index = new Map(design.switches.map((s, i) => [s.id, i]));
  const found = design.switches.map(() => new Set<number>());
  const join = (a: string, b: string) => {
    const [i, j] = [index.get(portById(design, a)?.switch ?? ''), index.get(portById(design, b)?.switch ?? '')];
    if (i === undefined || j === undefined || i === j) return;
    found[i]!.add(j);
    found[j]!.add(i);
  };
  for (const link of design.links) if ('port' in link.a && 'port' in link.b) join(link.a.port, link.b.port);
  for (const segment of design.segments) for (const port of segment.ports) join(segment.ports[0]!, port);
  return found.map((set) => [...set]);
}

/** The parts that cables join, of those that are in. */
function partsOf(next: readonly (readonly number[])[], isIn: (i: number) => boolean): number[][] {
  const seen = new Set<number>();
  return next.flatMap((_, start) => {
    if (seen.has(start) || !isIn(start)) return [];
    seen.add(start);
    const part = [start];
    for (const here of part)
      for (const there of next[here]!)
        if (isIn(there) && !seen.has(there)) {
          seen.add(there);
          part.push(there);
        }
    return [part];
  });
}

/** First word of a name: what stands before the first mark between words. */
const firstWord = (name: string): string => /^[\p{L}\p{N}]+(?=[-_. /:])/u.exec(name)?.[0] ?? '';

/** Groups by the first word of the names, where each is one piece of the network. */
function byName(design: Design, next: readonly (readonly number[])[]): number[][] {
  const words = groupBy(design.switches.keys(), (i) => firstWord(design.switches[i]!.name));
  return [...words].flatMap(([word, members]) => {
    if (word === '' || members.length < LEAST_OF_GROUP || members.length * 2 > design.switches.length) return [];
    const own = new Set(members);
    return partsOf(next, (i) => own.has(i)).length === 1 ? [members] : [];
  });
}

/** Groups by cabling: what hangs together once the middle of the network is taken out. */
function byCabling(design: Design, next: readonly (readonly number[])[]): number[][] {
  const cores = [...design.switches.keys()].filter((i) => design.switches[i]!.tier === 'core');
  const most = [...design.switches.keys()].sort((a, b) => next[b]!.length - next[a]!.length).slice(0, MIDDLE);
  const middle = new Set(cores.length > 0 ? cores : most);
  const parts = partsOf(next, (i) => !middle.has(i)).filter((p) => p.length >= LEAST_OF_GROUP);
  return parts.length > 1 ? parts : [];
}

/**
 * The group of every switch, by index; null for those in none. A group that was set counts; where none was, names are looked at,
 * then the cabling.
 */
export function groupsOf(design: Design): readonly (string | null)[] {
  let groups = known.get(design);
  if (!groups) known.set(design, (groups = findGroups(design)));
  return groups;
}

const known = new WeakMap<Design, readonly (string | null)[]>();

function findGroups(design: Design): readonly (string | null)[] {
  const set = design.switches.map((s) => s.group ?? null);
  if (set.some((g) => g !== null)) return set;
  const next = neighboursOf(design);
  const named = byName(design, next);
  const taken = (groups: number[][]) => groups.reduce((sum, g) => sum + g.length, 0);
  const isEnough = named.length > 1 && taken(named) >= ENOUGH * design.switches.length;
  const found = isEnough ? named : byCabling(design, next);
  const groups: (string | null)[] = design.switches.map(() => null);
  for (const members of found) {
    const best = members.reduce((a, b) => (next[b]!.length > next[a]!.length ? b : a));
    const { name } = design.switches[best]!;
    for (const i of members) groups[i] = isEnough ? firstWord(name) : `around ${name}`;
  }
  return groups;
}
