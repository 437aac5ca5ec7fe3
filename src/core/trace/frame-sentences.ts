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
  Mine: 'what it says itself on this LAN',
  Received: 'what it heard before',
  Aged: 'what it held, which is too old',
} as const;

/** `its root path cost 0 is lower than 4, which it heard before` */
function comparison({ part, message, held, better }: MessageCase): string {
  if (!part || !message || !held) return '';
  const order = better ? 'lower' : 'higher';
  return `its ${part.words} ${part.write(message).full} is ${order} than ${part.write(held.vector).full}, ${WHOSE[held.whose]}`;
}

function superior(c: MessageCase): string {
  if (!c.part) return 'Superior: the same vector from the same port, with other times or fewer hops left: taken over.';
  if (c.better) return `Superior: ${comparison(c)}. Taken over, and roles are selected anew.`;
  return `Superior, though ${comparison(c)}: it comes from the very port whose word was held, and that is always believed.`;
}

function inferior(c: MessageCase): string {
  const stop = c.learns
    ? ' Its sender learns or forwards all the same, so it does not hear this port: dispute, and this port stops.'
    : ' Not taken over.';
  return c.part ? `Inferior: ${comparison(c)}.${stop}` : `Inferior: not better than what is held.${stop}`;
}

const RULES: Readonly<Record<string, (c: MessageCase) => string>> = {
  SuperiorDesignated: superior,
  RepeatedDesignated: () => 'Repeated: what it holds is confirmed, for three hellos from now.',
  InferiorDesignated: inferior,
  InferiorRootAlternate: ({ agrees, role }) =>
    `From ${role === 'root' ? 'a root' : 'an alternate or backup'} port, which offers nothing better: ${agrees ? 'it agrees to what this port proposed' : 'it does not agree to anything yet'}.`,
  Other: ({ role, better }) =>
    role === 'designated'
      ? 'Nothing: it is its own message, come back.'
      : better
        ? 'Nothing: a root or alternate port that knows better does not speak for the LAN.'
        : 'Nothing in it that counts here.',
  better: (c) =>
    c.better || !c.part
      ? `Better: ${c.part ? `${comparison(c)}. T` : 't'}aken over, and the root port is selected anew.`
      : `From the designated bridge itself: taken over, though ${comparison(c)}.`,
  repeated: () => 'Repeated: the age of what it holds starts anew.',
  answered: (c) => `Worse: ${comparison(c) || 'not better than its own'}. The port is designated, and answers at once.`,
  ignored: (c) =>
    c.better
      ? `Ignored, though ${comparison(c)}: the root guard holds the port while such claims come.`
      : `Ignored: ${comparison(c) || 'not better than what is held'}, and the port does not speak for the LAN.`,
  notification: () => 'A change is told: it is told on towards the root, and acknowledged.',
  again: () => 'Nothing: it is VLAN 1’s BPDU once more, in the form of a tree per VLAN; the plain one counts.',
  stray: () =>
    'It is of another VLAN than the one it came in: the ends of the cable do not agree on what travels untagged. The port is held in both VLANs, for as long as such BPDUs come.',
  inconsistent: () =>
    'Not looked at: the port is held in this VLAN, since the ends of the cable do not agree on what travels untagged.',
  guarded: () => 'No BPDU should come here: the guard shut the port.',
};

export const messageSentence = (c: MessageCase): string => RULES[c.info]?.(c) ?? '';

const SELECTED = {
  SELECTED: 'the port is selected for the bundle',
  STANDBY: 'the port waits as standby: the bundle has as many as it may have',
  UNSELECTED: 'the port is not selected',
} as const;
const MUX = {
  DETACHED: 'detached',
  WAITING: 'waiting for the others',
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
  if (!pdu || !(selected in SELECTED))
    return 'Ignored: the port is in no bundle that negotiates, or negotiates in another way.';
  const knows =
    own !== null &&
    pdu.partner.system === own.system &&
    pdu.partner.systemPriority === own.systemPriority &&
    pdu.partner.key === own.key &&
    pdu.partner.port === own.port &&
    pdu.partner.portPriority === own.portPriority;
  const says = stateWords(pdu.actor.state);
  const step = !knows
    ? 'The partner does not know this port as it is now, so it counts as out of step, and is told'
    : says.includes('synchronization')
      ? 'The partner knows this port rightly and is in step'
      : 'The partner knows this port rightly, but is not in step itself yet';
  const moved = before === after ? `stays ${MUX[after]}` : `goes from ${MUX[before]} to ${MUX[after]}`;
  return `${step} (receive machine ${receive}); ${SELECTED[selected]}, and ${moved}.`;
}
