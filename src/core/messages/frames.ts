/** What a receiver did with a frame, and why, by code. */

/** The part that decided, as it is written, and what it was held against. */
export interface Compared {
  /** `root path cost` */
  readonly part: string;
  readonly received: string;
  readonly held: string;
  readonly better: boolean;
  readonly against: 'Mine' | 'Received' | 'Aged';
}

const WHOSE = {
  Mine: 'what it sends on this LAN',
  Received: 'what it received before',
  Aged: 'what it held, which has aged out',
} as const;

/** `its root path cost 0 is lower than 4, which it received before` */
const comparison = ({ part, received, held, better, against }: Compared): string =>
  `its ${part} ${received} is ${better ? 'lower' : 'higher'} than ${held}, ${WHOSE[against]}`;
const orElse = (compared: Compared | null, otherwise: string): string => (compared ? comparison(compared) : otherwise);

interface Case {
  readonly compared: Compared | null;
}

export const frameMessages = {
  'superior-same': () =>
    'Superior: the same vector from the same port, with other timers or fewer hops left. Accepted.',
  superior: ({ compared }: { compared: Compared }) =>
    `Superior: ${comparison(compared)}. Accepted; port roles are selected again.`,
  'superior-by-sender': ({ compared }: { compared: Compared }) =>
    `Superior, although ${comparison(compared)}: it comes from the port that sent the held vector, so it replaces that vector.`,
  repeated: () => 'Repeated: the held vector is confirmed for three more hello times.',
  inferior: ({ compared }: Case) => `Inferior: ${orElse(compared, 'not better than the held vector')}. Not accepted.`,
  dispute: ({ compared }: Case) =>
    `Inferior: ${orElse(compared, 'not better than the held vector')}. Its sender learns or forwards, so it does not receive the BPDUs of this port: dispute, and this port goes to discarding.`,
  agreement: ({ role }: { role: 'root' | 'other' }) =>
    `From ${role === 'root' ? 'a root' : 'an alternate or backup'} port: it agrees to the proposal of this port.`,
  'no-agreement': ({ role }: { role: 'root' | 'other' }) =>
    `From ${role === 'root' ? 'a root' : 'an alternate or backup'} port: no agreement yet.`,
  'own-bpdu': () => 'Ignored: the port received its own BPDU.',
  'not-designated': () => 'Ignored: it comes from a root or alternate port, which is not designated on the LAN.',
  'nothing-applies': () => 'Nothing in it applies here.',

  'classic-better': ({ compared }: Case) =>
    `Better: ${compared ? `${comparison(compared)}. Accepted` : 'accepted'}; the root port is selected again.`,
  'classic-by-sender': ({ compared }: { compared: Compared }) =>
    `From the designated bridge: accepted, although ${comparison(compared)}.`,
  'classic-repeated': () => 'Repeated: the message age timer restarts.',
  'classic-answered': ({ compared }: Case) =>
    `Worse: ${orElse(compared, 'not better than its own')}. The port is designated and replies at once.`,
  'classic-ignored': ({ compared }: Case) =>
    `Ignored: ${orElse(compared, 'not better than the held vector')}, and the port is not designated on the LAN.`,
  'root-guard': ({ compared }: { compared: Compared }) =>
    `Ignored, although ${comparison(compared)}: the root guard blocks the port while superior BPDUs arrive.`,
  notification: () => 'Topology change: it is sent on towards the root, and acknowledged.',
  'vlan-one-again': () =>
    'Ignored: the same BPDU of VLAN 1 arrives untagged in the standard form, and that one counts.',
  'other-vlan': () =>
    'It belongs to another VLAN than the one it arrived in: the ends of the cable differ in their untagged VLAN. The port blocks both VLANs while such BPDUs arrive.',
  inconsistent: () => 'Ignored: the port blocks this VLAN, since the ends of the cable differ in their untagged VLAN.',
  'bpdu-guard': () => 'A BPDU arrived on a guarded port: the BPDU guard shut it down.',

  keepalive: ({ fault, hears }: { fault: boolean; hears: boolean }) =>
    fault
      ? 'A keepalive that tells of a fault: nothing arrives at the other end.'
      : hears
        ? 'A keepalive: the other end receives those of this port too.'
        : 'A keepalive: the other end has received none yet.',
  'no-lacp': () => 'Ignored: the port negotiates no bundle, or by another protocol.',
  lacp: ({ step, receive, selected, before, after }: LacpWords) =>
    `${STEP[step]} (receive machine ${receive}); ${SELECTED[selected]}, and ${before === after ? `stays ${MUX[after]}` : `goes from ${MUX[before]} to ${MUX[after]}`}.`,
} as const;

const STEP = {
  outdated: 'The partner has outdated information on this port: it counts as out of sync, and an LACPDU is sent',
  'in-sync': 'The partner has the right information on this port and is in sync',
  'not-in-sync': 'The partner has the right information on this port, but is not in sync yet',
} as const;
const SELECTED = {
  SELECTED: 'the port is selected for the bundle',
  STANDBY: 'the port is standby: the maximum of active links is reached',
  UNSELECTED: 'the port is not selected',
} as const;
const MUX = {
  DETACHED: 'detached',
  WAITING: 'waiting for the other members',
  ATTACHED: 'attached',
  COLLECTING_DISTRIBUTING: 'collecting and distributing',
} as const;

export interface LacpWords {
  readonly step: keyof typeof STEP;
  /** State of the receive machine (802.1AX clause 6.4.12). */
  readonly receive: string;
  readonly selected: keyof typeof SELECTED;
  readonly before: keyof typeof MUX;
  readonly after: keyof typeof MUX;
}
/** Whether a receiver's note is one of those that LACP makes. */
export const isSelection = (word: string | undefined): word is LacpWords['selected'] =>
  word !== undefined && word in SELECTED;
