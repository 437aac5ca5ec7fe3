/** What happens in a run, and what stands at one of its moments, by code. Times are in microseconds. */
import { count, grouped, lasting, seconds } from '../standard';

interface Pair {
  /** `ticket-desk to ferry-server in VLAN 110` */
  readonly pair: string;
}

interface Effect {
  readonly limited: number | null;
  /** Microseconds that one loop takes. */
  readonly around: number;
  /** Copies of one broadcast that each host receives in a second, and frames a second that fill the slowest link. */
  readonly copies: number;
  readonly full: number;
  /** Mb/s of the slowest link. */
  readonly rate: number;
  readonly broadcasts: number;
  /** Microseconds until one broadcast fills it, where copies multiply by themselves. */
  readonly fullAfter: number | null;
}

function effectWords({ around, copies, full, rate, limited, broadcasts, fullAfter }: Effect): string {
  const most = limited === null ? `${rate} Mb/s` : `the ${grouped(limited)} Mb/s that storm limits leave`;
  const filled =
    fullAfter === null
      ? `${grouped(broadcasts)} of them fill ${most}`
      : `copies double in every loop: one broadcast fills ${most} after ${lasting(fullAfter)}`;
  return `One loop takes ${lasting(around)}: every host receives each broadcast ${grouped(copies)} times a second, and MAC table entries flap as often; ${filled} (${grouped(full)} frames a second).`;
}

/** What became of a port, for one port and for several. */
export type PortChange =
  | { readonly code: 'forwards'; readonly role: string }
  | { readonly code: 'guarded' | 'inconsistent' | 'consistent' | 'blocked' | 'listening' };

const CHANGES: Record<PortChange['code'], (change: PortChange, many: boolean) => string> = {
  forwards: (change, many) => {
    const role = 'role' in change ? change.role : 'disabled';
    const verb = many ? 'forward' : 'forwards';
    return role === 'disabled' ? `${verb} without a role` : `${verb} as ${role} ${many ? 'ports' : 'port'}`;
  },
  guarded: (_, many) => (many ? 'are blocked by their guards' : 'is blocked by its guard'),
  inconsistent: (_, many) => `${many ? 'are' : 'is'} inconsistent`,
  consistent: (_, many) => `${many ? 'are' : 'is'} no longer inconsistent`,
  blocked: (_, many) => `${many ? 'are' : 'is'} blocked`,
  listening: (_, many) => `${many ? 'are' : 'is'} listening`,
};

/** `forwards as root port`; what is alike in these words is one line of a story. */
export const portChangeWords = (change: PortChange, many: boolean): string => CHANGES[change.code](change, many);

/** Why, where it does not show from the change itself. */
const reason = ({ code }: PortChange): string =>
  code === 'inconsistent' ? ': the ends of its cable differ in their untagged VLAN' : '';

/** Switches of parts of a VLAN that the rest does not reach. */
interface Apart {
  /** `VLAN 110` or `VLANs 110, 120`, and whether it is one. */
  readonly vlans: string;
  readonly one: boolean;
  readonly parts: string;
}
const are = (one: boolean) => (one ? 'is' : 'are');

type ShutBy = 'bpdu' | 'one-way' | 'storm';
const SHUT_BY: Record<ShutBy, string> = {
  bpdu: 'received a BPDU and was shut down by BPDU guard',
  'one-way': 'was shut down by one-way detection, since its link carries frames one way only',
  storm: 'was shut down by its storm limit, since more broadcast arrived than it allows',
};
const NOW_SHUT: Record<ShutBy, string> = {
  bpdu: 'is shut down by BPDU guard: it received a BPDU',
  'one-way': 'is shut down by one-way detection: its link carries frames one way only',
  storm: 'is shut down by its storm limit: more broadcast arrived than it allows',
};

const SIGN_SHUT: Record<ShutBy, string> = {
  bpdu: 'shut by BPDU guard',
  'one-way': 'shut by one-way detection',
  storm: 'shut by its storm limit',
};

/** What stands at a port in a drawing: its name, and what is there. */
export const signMessages = {
  stranger: ({ port, priority }: { port: string; priority: number }) =>
    `${port}: rogue switch, priority ${grouped(priority)}`,
  hub: ({ port }: { port: string }) => `${port}: hub with a loop`,
  shut: ({ port, guard, left }: { port: string; guard: ShutBy; left: number | null }) =>
    `${port}: ${SIGN_SHUT[guard]}, ${left === null ? 'until enabled' : `${lasting(left)} left`}`,
  held: ({ port }: { port: string }) => `${port}: held by a guard`,
} as const;

export const storyMessages = {
  'unreachable-from-start': ({ pair }: Pair) => `Unreachable from the start: ${pair}.`,
  unreachable: ({ pair }: Pair) => `Unreachable: ${pair}.`,
  'unreachable-to-end': ({ pair }: Pair) => `Unreachable for the rest of the run: ${pair}.`,
  reachable: ({ pair, after }: Pair & { after: number }) => `Reachable again after ${lasting(after)}: ${pair}.`,
  'other-path': ({ pair }: Pair) => `Still reachable, over another path: ${pair}.`,
  copies: ({ pair, copies }: Pair & { copies: number }) => `Frames arrive in ${copies} or more copies: ${pair}.`,

  flooded: ({ pair, switches, ports }: Pair & { switches: string; ports: number }) =>
    `Frames are flooded where the address is not known (${switches}), in vain by ${count(ports, 'port')}: ${pair}.`,
  'flooding-ends': ({ pair, after }: Pair & { after: number }) =>
    `Frames are no longer flooded, after ${lasting(after)}: ${pair}.`,

  shut: ({ port, until, guard }: { port: string; until: number | null; guard: ShutBy }) =>
    `${port} ${SHUT_BY[guard]}${until === null ? ', until it is enabled by hand' : ` until ${seconds(until)}`}.`,
  'one-way': ({ port, how }: { port: string; how: 'deaf' | 'unheard' }) =>
    how === 'deaf'
      ? `${port} receives no more keepalives: its link carries frames one way only, or the other end sends none.`
      : `${port}: nothing arrives at the other end, which says so in its keepalives: the link carries frames one way only.`,
  recovered: ({ port }: { port: string }) => `${port} recovered.`,
  bundle: ({ bundle, active, of }: { bundle: string; active: number; of: number }) =>
    `Bundle ${bundle}: ${active} of ${of} members active.`,
  restart: ({ name }: { name: string }) => `${name} restarts.`,
  root: ({ name, trees, after }: { name: string; trees: string; after: number | null }) =>
    `${name} is root in ${trees}${after === null ? '' : `, ${lasting(after)} after the previous root`}.`,
  'loop-ends': ({ vlans, ports, after }: { vlans: string; ports: string; after: number }) =>
    `The loop in ${vlans} over ${ports} ends after ${lasting(after)}.`,
  loop: ({ vlans, ports, effect }: { vlans: string; ports: string; effect: Effect }) =>
    `Frames loop in ${vlans} over ${ports}. ${effectWords(effect)}`,
  flushed: ({ entries, switches }: { entries: number; switches: number }) =>
    `${count(entries, 'MAC table entry', 'MAC table entries')} of the probed hosts flushed on ${count(switches, 'switch', 'switches')}.`,

  port: ({ port, place, change }: { port: string; place: string; change: PortChange }) =>
    `${port} ${portChangeWords(change, false)}${place}${reason(change)}.`,
  ports: ({ number, ports, place, change }: { number: number; ports: string; place: string; change: PortChange }) =>
    `${number} ports ${portChangeWords(change, true)}${place}: ${ports}.`,
  flap: ({ ports, one, until, times }: { ports: string; one: boolean; until: number; times: number }) =>
    `${ports} ${one ? 'flaps' : 'flap'} between forwarding and blocked until ${seconds(until)}, up to ${times} times.`,
  'many-flap': ({ number, ports, until, times }: { number: number; ports: string; until: number; times: number }) =>
    `${number} ports flap between forwarding and blocked until ${seconds(until)}, up to ${times} times: ${ports}.`,

  connected: ({ vlans, one, after }: Omit<Apart, 'parts'> & { after: number }) =>
    `${vlans} ${are(one)} connected again, after ${lasting(after)}.`,
  partitioned: ({ vlans, one, parts, when }: Apart & { when: 'start' | 'now' | 'still' }) =>
    `${vlans} ${are(one)} ${when === 'still' ? 'still partitioned' : `partitioned${when === 'start' ? ' from the start' : ''}`}: the rest does not reach ${parts}.`,
  'partitioned-often': ({
    vlans,
    one,
    parts,
    when,
    times,
    until,
  }: Apart & { when: 'start' | 'now' | 'still'; times: number; until: number }) =>
    `${vlans} ${are(one)} ${when === 'still' ? 'still partitioned' : `partitioned${when === 'start' ? ' from the start' : ''}`} and ${one ? 'changes' : 'change'} ${count(times, 'time')} until ${seconds(until)}; at worst the rest does not reach ${parts}.`,

  'now-looping': ({ vlans, ports, since, effect }: { vlans: string; ports: string; since: number; effect: Effect }) =>
    `Frames ${since === 0 ? `start to loop in ${vlans}` : `have looped in ${vlans} for ${lasting(since)}`}, over ${ports}. ${effectWords(effect)}`,
  'now-shut': ({ port, until, at, guard }: { port: string; until: number | null; at: number; guard: ShutBy }) =>
    `${port} ${NOW_SHUT[guard]}; ${until === null ? 'it stays shut down until it is enabled by hand' : `it recovers in ${lasting(until - at)}, at ${seconds(until)}`}.`,
  'now-root-guard': ({ port }: { port: string }) =>
    `${port} is blocked by root guard while it receives superior BPDUs.`,
  'now-loop-guard': ({ port }: { port: string }) =>
    `${port} is blocked by loop guard: it receives no more BPDUs, and stays blocked until it does.`,
  'now-silence-guard': ({ port }: { port: string }) =>
    `${port} is blocked by silence guard: it receives no BPDUs, and stays blocked until it does.`,
  'now-inconsistent': ({ port, trees, difference }: { port: string; trees: string; difference: string }) =>
    `${port} is inconsistent in ${trees}: ${difference}.`,
} as const;
