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

const UNSEEN = 'Frames arrive twice, come back or are lost, and spanning tree does not detect it.';

export const bundleMessages = {
  'both-static': () =>
    'Both ends are static: every member that is up carries frames. No protocol checks the other end.',
  'static-alone': ({ far, bundled }: Far & { bundled: boolean }) =>
    `This end is static and forwards on every member; ${far} ${bundled ? 'waits for a negotiation that never starts' : 'has no bundle there'}. ${UNSEEN}`,
  'static-far-minimum': ({ far, active, needed }: Far & { active: number; needed: number }) =>
    `${far} is down: ${count(active, 'member is', 'members are')} up, and its minimum is ${needed}. This end is static, does not detect it, and forwards: its frames are lost.`,
  'static-unlike': ({ far }: Far) =>
    `Both ends are static, and each forwards on the members of the speed that most of its own have: those are other members at ${far}, and frames on them are lost.`,
  'far-static': (v: Unanswered) =>
    `${v.far} is static and forwards on every member; this end has no partner: ${silent(v)}. ${UNSEEN}`,
  'no-bundle-there': (v: Unanswered) => `No partner: ${v.far} has no bundle there, so ${silent(v)}.`,
  'other-protocol': (v: Unanswered) =>
    `${v.far} runs another negotiation protocol: neither end has a partner, so ${silent(v)}.`,
  'both-passive': (v: Pick<Unanswered, 'individual'> & { lacp: boolean }) =>
    `Both ends are passive, so ${v.lacp ? 'LACP' : 'the negotiation'} never starts: ${silent(v)}. Make one end active.`,
  'partner-elsewhere': ({ far, other }: Far & { other: string }) =>
    `Most members lead to ${far}, which holds with ${other}, to which more of its own members lead: none is active.`,
  agree: () => 'The ends agree.',
  'agree-standby': ({ decides }: { decides: string }) =>
    `The ends agree. ${decides} decides which members are standby.`,
  active: ({ active, total }: { active: number; total: number }) =>
    `${active} of ${count(total, 'member')} ${active === 1 ? 'is' : 'are'} active${active === 1 && total > 1 ? ': a single cable, without redundancy' : ''}.`,
  'none-ready': () => 'No member is active: none is up and able to join.',
  'too-few': ({ active, total, needed }: { active: number; total: number; needed: number }) =>
    `${active} of ${count(total, 'member')} ${active === 1 ? 'is' : 'are'} ready, and the minimum is ${needed}: the bundle is down.`,
} as const;

/** What each member of a bundle does. */
export const memberMessages = {
  active: () => 'Active: it carries frames of the bundle.',
  standby: () =>
    'Standby: the maximum of active links is reached, or fewer than the minimum are ready. The deciding end sets the order.',
  individual: () => 'Individual: it runs as a single port, and spanning tree decides on it.',
  suspended: () => 'Suspended: it cannot join, and may not run as individual.',
  down: () => 'Down: its cable has no working far end.',
  unplugged: () => 'Down: nothing is plugged in.',
  miscabled: ({ where }: { where: string }) =>
    `Miscabled: it leads to ${where}, not to the far end of the other members.`,
} as const;

/** Why cables cannot become a bundle, or switches a pair. */
export const bundlingMessages = {
  'unlike-speed': ({ ports, speeds }: { ports: string; speeds: string }) =>
    `Ports ${ports} have different speeds, ${speeds} Mb/s: members of a bundle need one speed.`,
  'unlike-duplex': ({ ports }: { ports: string }) =>
    `Ports ${ports} have different duplex modes: members of a bundle run in full duplex.`,
  'unlike-vlans': ({ ports }: { ports: string }) =>
    `Ports ${ports} carry different VLANs: give them the same VLANs first, since a bundle has one list.`,
  'no-cables': () => 'Select the cables of the new bundle first.',
  'cable-to-host': () => 'The cables of a bundle lead to one host, or all to switches: those that are selected do not.',
  'several-ends': ({ names }: { names: string }) =>
    `The cables join ${names}: all members of a bundle join the same two switches, or one switch and a multi-chassis pair.`,
  'port-in-bundle': ({ port, bundle }: { port: string; bundle: string }) =>
    `Port ${port} is in bundle '${bundle}' already: a port is in one bundle.`,
  'pair-without-cable': () =>
    'No cable joins the two switches: a pair needs a peer link. Cable them first, with two cables if possible.',
  'nothing-faces': () =>
    'No free port of a switch faces this bundle: cable its members to another switch, or take those ports out of their bundle.',
  'port-not-free': ({ port }: { port: string }) =>
    `Port ${port} has a cable, or is in a bundle: a member is put to a free port of the same switch.`,
  'host-cannot-join': () => 'A cable to a host cannot join a bundle between two switches.',
} as const;
