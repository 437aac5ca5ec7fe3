/** Which sentence says why a receiver did with a frame what it did; the words are in messages. */
import { frameMessages as say, isSelection } from '../messages';
import type { Compared, LacpWords } from '../messages';
import { decodeOampdu, stateWords } from '../protocols/frames';
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

function comparedIn({ part, message, held, better }: MessageCase): Compared | null {
  if (!part || !message || !held) return null;
  return {
    part: part.words,
    received: part.write(message).full,
    held: part.write(held.vector).full,
    better: better === true,
    against: held.whose,
  };
}

function otherSentence({ role, better }: MessageCase): string {
  if (role === 'designated') return say['own-bpdu']();
  return better ? say['not-designated']() : say['nothing-applies']();
}

const RULES: Readonly<Record<string, (c: MessageCase, compared: Compared | null) => string>> = {
  SuperiorDesignated: (c, compared) =>
    !compared
      ? say['superior-same']()
      : c.better
        ? say.superior({ compared })
        : say['superior-by-sender']({ compared }),
  RepeatedDesignated: () => say.repeated(),
  InferiorDesignated: (c, compared) => (c.learns ? say.dispute({ compared }) : say.inferior({ compared })),
  InferiorRootAlternate: (c) => {
    const role = c.role === 'root' ? 'root' : 'other';
    return c.agrees ? say.agreement({ role }) : say['no-agreement']({ role });
  },
  Other: otherSentence,
  better: (c, compared) =>
    c.better || !compared ? say['classic-better']({ compared }) : say['classic-by-sender']({ compared }),
  repeated: () => say['classic-repeated'](),
  answered: (_, compared) => say['classic-answered']({ compared }),
  ignored: (c, compared) =>
    c.better && compared ? say['root-guard']({ compared }) : say['classic-ignored']({ compared }),
  notification: () => say.notification(),
  again: () => say['vlan-one-again'](),
  stray: () => say['other-vlan'](),
  inconsistent: () => say.inconsistent(),
  guarded: () => say['bpdu-guard'](),
};

export const messageSentence = (c: MessageCase): string => RULES[c.info]?.(c, comparedIn(c)) ?? '';

/** What a keepalive tells. */
export function keepaliveSentence(payload: Uint8Array): string {
  const told = decodeOampdu(payload);
  return told ? say.keepalive({ fault: told.fault, hears: told.hears }) : '';
}

/** What the partner knows of a port, from what it sent. */
function stepOf(pdu: Lacpdu, own: LacpInfo | null): LacpWords['step'] {
  const knows =
    own !== null &&
    pdu.partner.system === own.system &&
    pdu.partner.systemPriority === own.systemPriority &&
    pdu.partner.key === own.key &&
    pdu.partner.port === own.port &&
    pdu.partner.portPriority === own.portPriority;
  if (!knows) return 'outdated';
  return stateWords(pdu.actor.state).includes('synchronization') ? 'in-sync' : 'not-in-sync';
}

/** `info`: receive state, selection, mux before and after, as the receiver wrote them down; or that it ignored the frame. */
export function lacpSentence(info: string, pdu: Lacpdu | null, own: LacpInfo | null): string {
  const [receive, selected, before, after] = info.split(' ');
  if (!pdu || receive === undefined || !isSelection(selected)) return say['no-lacp']();
  const mux = { before, after } as Pick<LacpWords, 'before' | 'after'>;
  return say.lacp({ step: stepOf(pdu, own), receive, selected, ...mux });
}
