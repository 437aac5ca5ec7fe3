/** What becomes of a bundle and of its members, by code. */
import { count } from '../standard';

interface Far {
  /** Name of the far end. */
  readonly far: string;
}
interface Unanswered extends Far {
  /** Whether members without a partner run as individual ports. */
  readonly individual: boolean;
}

const silent = ({ individual }: Pick<Unanswered, 'individual'>): string =>
  individual ? 'its members run as individual ports' : 'its members stay down';

const UNSEEN = 'Frames loop or are lost, and spanning tree does not detect it.';

export const bundleMessages = {
  'both-static': () =>
    'Both ends are static: every member that is up carries frames. No protocol checks the other end.',
  'static-alone': ({ far, bundled }: Far & { bundled: boolean }) =>
    `This end is static and forwards on every member; ${far} ${bundled ? 'waits for a negotiation that never starts' : 'has no bundle there'}. ${UNSEEN}`,
  'far-static': (v: Unanswered) =>
    `${v.far} is static and forwards on every member; this end has no partner: ${silent(v)}. ${UNSEEN}`,
  'no-bundle-there': (v: Unanswered) => `No partner: ${v.far} has no bundle there, so ${silent(v)}.`,
  'other-protocol': (v: Unanswered) =>
    `${v.far} runs another negotiation protocol: neither end has a partner, so ${silent(v)}.`,
  'both-passive': (v: Pick<Unanswered, 'individual'> & { lacp: boolean }) =>
    `Both ends are passive, so ${v.lacp ? 'LACP' : 'the negotiation'} never starts: ${silent(v)}. Make one end active.`,
  agree: () => 'The ends agree.',
  'agree-standby': ({ decides }: { decides: string }) =>
    `The ends agree. ${decides} decides which members are standby.`,
  active: ({ active, total }: { active: number; total: number }) =>
    `${active} of ${count(total, 'member')} ${active === 1 ? 'is' : 'are'} active${active === 1 && total > 1 ? ': a single cable, without redundancy' : ''}.`,
  'none-ready': () => 'No member is active: none is up and able to join.',
  'too-few': ({ active, total, needed }: { active: number; total: number; needed: number }) =>
    `${active} of ${count(total, 'member')} ${active === 1 ? 'is' : 'are'} ready, and the minimum is ${needed}: the bundle is down.`,
} as const;
