/** Selection logic (802.1AX-2014 clause 6.4.14): which ports of a bundle join, which become standby. */
import { fewestMembers } from '../../standard';
import { has } from './port';
import type { LacpPort, Selected } from './port';

export interface BundleSettings {
  readonly minActive: number;
  /** Mb/s that members have to carry together. */
  readonly minRate: number;
  readonly maxActive: number;
  /** Whether a port whose partner is silent, or goes alone, passes frames by itself. */
  readonly individual: boolean;
  /** Microseconds that a member which came up waits while others carry. */
  readonly returnDelay: number;
  /** Whether members that carry go on, though better ones are there. */
  readonly keepsWorking: boolean;
  /** Mb/s of each port. */
  readonly ports: readonly { readonly number: number; readonly speed: number }[];
}

/** Fewest members of a port's speed that are enough. */
const minimumOf = ({ minActive, minRate, ports }: BundleSettings, port: number | undefined): number =>
  fewestMembers(minActive, minRate, ports.find((p) => p.number === port)?.speed ?? 0);

/** The better of two systems decides which ports wait: lower priority, then lower address (clause 6.7.1). */
export const actorDecides = (p: Pick<LacpPort, 'actor' | 'partner'>): boolean =>
  p.actor.systemPriority - p.partner.systemPriority || p.actor.system - p.partner.system
    ? p.actor.systemPriority < p.partner.systemPriority ||
      (p.actor.systemPriority === p.partner.systemPriority && p.actor.system < p.partner.system)
    : true;

/** Ports in the order of the deciding system: its port priority, then its port number. */
function byDecider(a: LacpPort, b: LacpPort): number {
  const side = actorDecides(a) ? 'actor' : 'partner';
  return a[side].portPriority - b[side].portPriority || a[side].port - b[side].port;
}

const isHeard = (p: LacpPort): boolean => p.receive === 'CURRENT' || p.receive === 'EXPIRED';
const aggregates = (p: LacpPort): boolean =>
  isHeard(p) && has(p.actor, 'aggregation') && has(p.partner, 'aggregation') && p.partner.key !== 0;

/** Ports of one aggregation group: the same key here, the same system and key there. */
const groupKey = ({ actor, partner }: LacpPort): string =>
  [actor.key, partner.systemPriority, partner.system, partner.key].join(' ');

/** The group that a bundle takes: the most ports, then the lower key here, then the lower system and key there. */
function chosenGroup(ports: readonly LacpPort[]): LacpPort[] {
  const groups = new Map<string, LacpPort[]>();
  for (const p of ports.filter((one) => one.portEnabled && aggregates(one))) {
    const group = groups.get(groupKey(p));
    if (group) group.push(p);
    else groups.set(groupKey(p), [p]);
  }
  const order = (a: LacpPort[], b: LacpPort[]) =>
    b.length - a.length ||
    a[0]!.actor.key - b[0]!.actor.key ||
    a[0]!.partner.systemPriority - b[0]!.partner.systemPriority ||
    a[0]!.partner.system - b[0]!.partner.system ||
    a[0]!.partner.key - b[0]!.partner.key;
  return [...groups.values()].sort(order)[0] ?? [];
}

export interface Choice {
  /** What each port of a bundle should be, by port number. */
  readonly wanted: ReadonlyMap<number, Selected>;
  /** Fewest that are enough. */
  readonly minimum: number;
  /** Ports that should become active, and the same in a word together with their partner. */
  readonly candidates: ReadonlySet<number>;
  readonly who: string;
  /** How many of them the partner has in sync. */
  readonly given: number;
}

const carries = (p: LacpPort): boolean => p.mux === 'COLLECTING_DISTRIBUTING';

/** The ports of a group that may become active, the first first. */
function inOrder(group: LacpPort[], { keepsWorking }: BundleSettings, minimum: number, now: number): LacpPort[] {
  const back = group.filter(({ timers: { returnWhile } }) => returnWhile === null || returnWhile <= now);
  const usable = back.length >= minimum ? back : group;
  return usable.sort((a, b) => (keepsWorking ? Number(carries(b)) - Number(carries(a)) : 0) || byDecider(a, b));
}

/** What should become of the ports of a bundle; `withdrawn`: candidates that are held back. */
export function selection(
  ports: readonly LacpPort[],
  settings: BundleSettings,
  withdrawn: string | null,
  now: number,
): Choice {
  const group = chosenGroup(ports).sort(byDecider);
  const minimum = minimumOf(settings, group[0]?.number);
  const candidates = group.length < minimum ? [] : inOrder(group, settings, minimum, now).slice(0, settings.maxActive);
  const who = candidates.length === 0 ? '' : [groupKey(candidates[0]!), ...candidates.map((p) => p.number)].join(' ');
  const active = who === withdrawn ? [] : candidates;
  const wanted = new Map(
    ports.map((p): [number, Selected] => {
      if (active.includes(p)) return [p.number, 'SELECTED'];
      if (group.includes(p)) return [p.number, 'STANDBY'];
      // Individual: no LACPDU arrived in time, or the partner does not aggregate.
      const alone = p.portEnabled && (p.receive === 'DEFAULTED' || (p.receive === 'CURRENT' && !aggregates(p)));
      return [p.number, alone && settings.individual ? 'SELECTED' : 'UNSELECTED'];
    }),
  );
  return {
    wanted,
    minimum,
    candidates: new Set(candidates.map((p) => p.number)),
    who,
    given: candidates.filter((p) => has(p.partner, 'synchronization')).length,
  };
}

/** Whether a port passes frames by itself, outside its bundle. */
export const goesAlone = (p: LacpPort): boolean => p.mux === 'COLLECTING_DISTRIBUTING' && !aggregates(p);
