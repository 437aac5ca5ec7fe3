/** The sentence that says why a receiver did with a frame what it did. */
import { stateWords } from '../protocols/frames';
import type { FlagRole, LacpInfo, Lacpdu } from '../protocols/frames';
import type { Vector } from '../standard';
import type { Held } from './frame-log';
import type { Part } from './vector-part';

export interface MessageCase {
  /** The receiver's word for it. */
  readonly info: string;
  /** The part in which the message differs from what was held. */
  readonly part?: Part | null;
  readonly message?: Vector;
  readonly held?: Held | null;
  readonly better?: boolean;
  readonly learns?: boolean;
  readonly agrees?: boolean;
  readonly role?: FlagRole;
}

const WHOSE = {
  Mine: 'what it sends on this LAN',
  Received: 'what it received before',
  Aged: 'what it held, which has aged out',
} as const;

/** `its root path cost 0 is lower than 4, which it heard before` */
function comparison({ part, message, held, better }: MessageCase): string {
  if (!part || !message || !held) return '';
  const order = better ? 'lower' : 'higher';
  return `its ${part.words} ${part.write(message).full} is ${order} than ${part.write(held.vector).full}, ${WHOSE[held.whose]}`;
}

function superior(c: MessageCase): string {
  if (!c.part) return 'Superior: the same vector from the same port, with other timers or fewer hops left. Accepted.';
  if (c.better) return `Superior: ${comparison(c)}. Accepted; port roles are selected again.`;
  return `Superior, although ${comparison(c)}: it comes from the port that sent the held vector, so it replaces that vector.`;
}

function inferior(c: MessageCase): string {
  const stop = c.learns
    ? ' Its sender learns or forwards, so it does not receive the BPDUs of this port: dispute, and this port goes to discarding.'
    : ' Not accepted.';
  return c.part ? `Inferior: ${comparison(c)}.${stop}` : `Inferior: not better than the held vector.${stop}`;
}

const RULES: Readonly<Record<string, (c: MessageCase) => string>> = {
  SuperiorDesignated: superior,
  RepeatedDesignated: () => 'Repeated: the held vector is confirmed for three more hello times.',
  InferiorDesignated: inferior,
  InferiorRootAlternate: ({ agrees, role }) =>
    `From ${role === 'root' ? 'a root' : 'an alternate or backup'} port: ${agrees ? 'it agrees to the proposal of this port' : 'no agreement yet'}.`,
  Other: ({ role, better }) =>
    role === 'designated'
      ? 'Ignored: the port received its own BPDU.'
      : better
        ? 'Ignored: it comes from a root or alternate port, which is not designated on the LAN.'
        : 'Nothing in it applies here.',
  better: (c) =>
    c.better || !c.part
      ? `Better: ${c.part ? `${comparison(c)}. Accepted` : 'accepted'}; the root port is selected again.`
      : `From the designated bridge: accepted, although ${comparison(c)}.`,
  repeated: () => 'Repeated: the message age timer restarts.',
  answered: (c) => `Worse: ${comparison(c) || 'not better than its own'}. The port is designated and replies at once.`,
  ignored: (c) =>
    c.better
      ? `Ignored, although ${comparison(c)}: the root guard blocks the port while superior BPDUs arrive.`
      : `Ignored: ${comparison(c) || 'not better than the held vector'}, and the port is not designated on the LAN.`,
  notification: () => 'Topology change: it is sent on towards the root, and acknowledged.',
  again: () => 'Ignored: the same BPDU of VLAN 1 arrives untagged in the standard form, and that one counts.',
  stray: () =>
    'It belongs to another VLAN than the one it arrived in: the ends of the cable differ in their untagged VLAN. The port blocks both VLANs while such BPDUs arrive.',
  inconsistent: () => 'Ignored: the port blocks this VLAN, since the ends of the cable differ in their untagged VLAN.',
  guarded: () => 'A BPDU arrived on a guarded port: the BPDU guard shut it down.',
};

export const messageSentence = (c: MessageCase): string => RULES[c.info]?.(c) ?? '';

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

/** `info`: receive state, selection, mux before and after, as the receiver wrote them down; or that it ignored the frame. */
export function lacpSentence(info: string, pdu: Lacpdu | null, own: LacpInfo | null): string {
  const [receive, selected, before, after] = info.split(' ') as [
    string,
    keyof typeof SELECTED,
    keyof typeof MUX,
    keyof typeof MUX,
  ];
  if (!pdu || !(selected in SELECTED)) return 'Ignored: the port negotiates no bundle, or by another protocol.';
  const knows =
    own !== null &&
    pdu.partner.system === own.system &&
    pdu.partner.systemPriority === own.systemPriority &&
    pdu.partner.key === own.key &&
    pdu.partner.port === own.port &&
    pdu.partner.portPriority === own.portPriority;
  const says = stateWords(pdu.actor.state);
  const step = !knows
    ? 'The partner has outdated information on this port: it counts as out of sync, and an LACPDU is sent'
    : says.includes('synchronization')
      ? 'The partner has the right information on this port and is in sync'
      : 'The partner has the right information on this port, but is not in sync yet';
  const moved = before === after ? `stays ${MUX[after]}` : `goes from ${MUX[before]} to ${MUX[after]}`;
  return `${step} (receive machine ${receive}); ${SELECTED[selected]}, and ${moved}.`;
}
