/** Receive machine (802.1AX-2014 clause 6.4.12, figure 6-18). */
import type { Lacpdu } from '../frames';
import { LACP_TIMES, has, sameParty, withBit } from './port';
import type { LacpPort, ReceiveState } from './port';

/** The partner is taken as set by management, and as in step with us. */
const recordDefault = (p: LacpPort): LacpPort => ({
  ...p,
  partner: withBit(p.partnerAdmin, 'synchronization', true),
  actor: withBit(p.actor, 'defaulted', true),
});

/** The partner as it reports itself; in sync when its information on this port is right, or it is individual, and one side is active. */
function recordPdu(p: LacpPort, pdu: Lacpdu): LacpPort {
  const kept = has(pdu.actor, 'activity') || (has(p.actor, 'activity') && has(pdu.partner, 'activity'));
  const knowsUs = sameParty(pdu.partner, p.actor) || !has(pdu.actor, 'aggregation');
  const inStep = knowsUs && has(pdu.actor, 'synchronization') && kept;
  return {
    ...p,
    partner: withBit(pdu.actor, 'synchronization', inStep),
    actor: withBit(p.actor, 'defaulted', false),
  };
}

const updateSelected = (p: LacpPort, pdu: Lacpdu): LacpPort =>
  sameParty(pdu.actor, p.partner) ? p : { ...p, selected: 'UNSELECTED' };

const updateDefaultSelected = (p: LacpPort): LacpPort =>
  sameParty(p.partnerAdmin, p.partner) ? p : { ...p, selected: 'UNSELECTED' };

/** The partner has an outdated view of us. */
function updateNtt(p: LacpPort, pdu: Lacpdu): LacpPort {
  const bits = ['activity', 'timeout', 'synchronization', 'aggregation'] as const;
  const right = sameParty(pdu.partner, p.actor) && bits.every((b) => has(pdu.partner, b) === has(p.actor, b));
  return right ? p : { ...p, ntt: true };
}

const startCurrentWhile = (p: LacpPort, now: number, short: boolean): LacpPort => ({
  ...p,
  timers: { ...p.timers, currentWhile: now + (short ? LACP_TIMES.shortTimeout : LACP_TIMES.longTimeout) },
});

const expired = (p: LacpPort, on: boolean): LacpPort => ({ ...p, actor: withBit(p.actor, 'expired', on) });

/** What is done on entry of each state. */
const ENTRY: Record<ReceiveState, (p: LacpPort, now: number, pdu: Lacpdu | null) => LacpPort> = {
  INITIALIZE: (p) => expired(recordDefault({ ...p, selected: 'UNSELECTED' }), false),
  PORT_DISABLED: (p) => ({ ...p, partner: withBit(p.partner, 'synchronization', false) }),
  EXPIRED: (p, now) =>
    expired(
      startCurrentWhile(
        { ...p, partner: withBit(withBit(p.partner, 'synchronization', false), 'timeout', true) },
        now,
        true,
      ),
      true,
    ),
  LACP_DISABLED: (p) => {
    const next = expired(recordDefault({ ...p, selected: 'UNSELECTED' }), false);
    return { ...next, partner: withBit(next.partner, 'aggregation', false) };
  },
  DEFAULTED: (p) => expired(recordDefault(updateDefaultSelected(p)), false),
  CURRENT: (p, now, pdu) => {
    const heard = recordPdu(updateNtt(updateSelected(p, pdu!), pdu!), pdu!);
    return expired(startCurrentWhile(heard, now, has(heard.actor, 'timeout')), false);
  },
};

const timedOut = (p: LacpPort, now: number): boolean => p.timers.currentWhile !== null && p.timers.currentWhile <= now;

/** From, when, to; the first row that holds is taken. */
const ROWS: readonly {
  readonly from: readonly ReceiveState[] | null;
  readonly when: (p: LacpPort, now: number, pdu: Lacpdu | null) => boolean;
  readonly to: ReceiveState;
}[] = [
  { from: ['INITIALIZE'], when: () => true, to: 'PORT_DISABLED' },
  { from: ['EXPIRED', 'LACP_DISABLED', 'DEFAULTED', 'CURRENT'], when: (p) => !p.portEnabled, to: 'PORT_DISABLED' },
  { from: ['PORT_DISABLED'], when: (p) => p.portEnabled && p.lacpEnabled, to: 'EXPIRED' },
  { from: ['PORT_DISABLED'], when: (p) => p.portEnabled && !p.lacpEnabled, to: 'LACP_DISABLED' },
  { from: ['EXPIRED', 'DEFAULTED', 'CURRENT'], when: (_, __, pdu) => pdu !== null, to: 'CURRENT' },
  { from: ['EXPIRED'], when: timedOut, to: 'DEFAULTED' },
  { from: ['CURRENT'], when: timedOut, to: 'EXPIRED' },
];

/** One step of the machine: null when nothing moves it. */
export function receiveStep(p: LacpPort, now: number, pdu: Lacpdu | null): LacpPort | null {
  const row = ROWS.find((r) => r.from?.includes(p.receive) && r.when(p, now, pdu));
  if (!row) return null;
  const timers = row.to === 'EXPIRED' || row.to === 'CURRENT' ? p.timers : { ...p.timers, currentWhile: null };
  return ENTRY[row.to]({ ...p, receive: row.to, timers }, now, pdu);
}
