import { LACP_STATE, decodeLacpdu, encodeLacpdu } from '../frames';
import type { LacpInfo } from '../frames';
import { churnStep } from './churn';
import { hasWaited, muxStep } from './mux';
import { periodicStep } from './periodic';
import { LACP_TIMES, NO_PARTNER, has, withBit } from './port';
import type { LacpPort } from './port';
import { receiveStep } from './receive';
import { actorDecides, goesAlone, selection } from './selection';
import { changeEnd, hear, nextTimer, startEnd, tick } from './system';
import type { EndSettings, LacpEnd } from './system';
import { endSettings } from '../../../../tests/support/lacp-ends';
import { SECOND } from '../../standard';

const START = startEnd(endSettings(1)).ports[0]!;
const JOINS = LACP_STATE.activity | LACP_STATE.aggregation;
const other: LacpInfo = { systemPriority: 32768, system: 2, key: 9, portPriority: 32768, port: 3, state: JOINS };
/** What the other says of this port when it knows it rightly, and of itself. */
const pdu = (actor: Partial<LacpInfo> = {}, partner: Partial<LacpInfo> = {}) => ({
  actor: { ...other, ...actor },
  partner: { ...START.actor, ...partner },
  collectorMaxDelay: 0,
});
/** Runs one machine until it stands. */
function run(step: (p: LacpPort) => LacpPort | null, p: LacpPort): LacpPort {
  for (let next = step(p); next; next = step(p)) p = next;
  return p;
}
const upAt = (now: number) => run((p) => receiveStep(p, now, null), START);

describe('receive machine', () => {
  test('a port that comes up waits three seconds for a partner, and then takes it that there is none', () => {
    const waiting = upAt(0);
    expect([waiting.receive, has(waiting.actor, 'expired')]).toEqual(['EXPIRED', true]);
    expect(receiveStep(waiting, LACP_TIMES.shortTimeout - 1, null)).toBeNull();
    const given = run((p) => receiveStep(p, LACP_TIMES.shortTimeout, null), waiting);
    expect([given.receive, has(given.actor, 'defaulted'), has(given.actor, 'expired')]).toEqual([
      'DEFAULTED',
      true,
      false,
    ]);
  });
  test('a partner that knows the port rightly and is in step is recorded as in step', () => {
    const heard = receiveStep(upAt(0), 1, pdu({ state: JOINS | LACP_STATE.synchronization }))!;
    expect([heard.receive, has(heard.partner, 'synchronization'), heard.partner.key]).toEqual(['CURRENT', true, 9]);
  });
  test('one with information on another port is out of sync, and an LACPDU is sent', () => {
    const heard = receiveStep(upAt(0), 1, pdu({ state: JOINS | LACP_STATE.synchronization }, { port: 8 }))!;
    expect([has(heard.partner, 'synchronization'), heard.ntt]).toEqual([false, true]);
  });
  test('one that would not aggregate need not know the port', () => {
    const alone = LACP_STATE.activity | LACP_STATE.synchronization;
    const heard = receiveStep(upAt(0), 1, pdu({ state: alone }, { system: 99 }))!;
    expect(has(heard.partner, 'synchronization')).toBe(true);
  });
  test('where both sides are passive neither is in sync', () => {
    const passive = { ...upAt(0), actor: withBit(START.actor, 'activity', false) };
    const heard = receiveStep(
      passive,
      1,
      pdu({ state: LACP_STATE.aggregation | LACP_STATE.synchronization }, { state: LACP_STATE.aggregation }),
    )!;
    expect(has(heard.partner, 'synchronization')).toBe(false);
  });
  test('another partner than before unselects the port', () => {
    const heard = receiveStep(upAt(0), 1, pdu())!;
    const chosen: LacpPort = { ...heard, selected: 'SELECTED' };
    expect(receiveStep(chosen, 2, pdu())!.selected).toBe('SELECTED');
    expect(receiveStep(chosen, 2, pdu({ key: 10 }))!.selected).toBe('UNSELECTED');
  });
  test('a silent partner is out of step after the timeout that was asked of it, and gone three seconds later', () => {
    const long = receiveStep(upAt(0), 0, pdu({ state: JOINS | LACP_STATE.synchronization }))!;
    expect(receiveStep(long, LACP_TIMES.longTimeout - 1, null)).toBeNull();
    const late = receiveStep(long, LACP_TIMES.longTimeout, null)!;
    expect([late.receive, has(late.partner, 'synchronization')]).toEqual(['EXPIRED', false]);
    expect(receiveStep(late, LACP_TIMES.longTimeout + LACP_TIMES.shortTimeout, null)!.receive).toBe('DEFAULTED');
    const short = { ...upAt(0), actor: withBit(START.actor, 'timeout', true) };
    const heard = receiveStep(short, 0, pdu())!;
    expect(heard.timers.currentWhile).toBe(LACP_TIMES.shortTimeout);
  });
  test('without light it is out of step at once', () => {
    const heard = receiveStep(upAt(0), 1, pdu({ state: JOINS | LACP_STATE.synchronization }))!;
    const dark = receiveStep({ ...heard, portEnabled: false }, 2, null)!;
    expect([dark.receive, has(dark.partner, 'synchronization')]).toEqual(['PORT_DISABLED', false]);
  });
});

describe('mux machine, coupled', () => {
  const selected = (more: Partial<LacpPort> = {}): LacpPort => ({ ...START, selected: 'SELECTED', ...more });
  test('waits two seconds for others, is attached, and passes frames once the partner is in step', () => {
    const waiting = muxStep(selected(), 0)!;
    expect([waiting.mux, waiting.timers.waitWhile]).toEqual(['WAITING', LACP_TIMES.aggregateWait]);
    expect([hasWaited(waiting, LACP_TIMES.aggregateWait - 1), hasWaited(waiting, LACP_TIMES.aggregateWait)]).toEqual([
      false,
      true,
    ]);
    expect(muxStep(waiting, LACP_TIMES.aggregateWait)).toBeNull();
    const attached = muxStep({ ...waiting, ready: true }, 3)!;
    expect([attached.mux, has(attached.actor, 'synchronization'), has(attached.actor, 'collecting')]).toEqual([
      'ATTACHED',
      true,
      false,
    ]);
    const carries = muxStep({ ...attached, partner: withBit(other, 'synchronization', true) }, 4)!;
    expect([carries.mux, has(carries.actor, 'collecting'), has(carries.actor, 'distributing'), carries.ntt]).toEqual([
      'COLLECTING_DISTRIBUTING',
      true,
      true,
      true,
    ]);
  });
  test('stops passing frames when the partner falls out of step, and leaves when it is not selected', () => {
    const carries = selected({ mux: 'COLLECTING_DISTRIBUTING', partner: withBit(other, 'synchronization', false) });
    const stopped = muxStep(carries, 0)!;
    expect([stopped.mux, has(stopped.actor, 'collecting'), has(stopped.actor, 'synchronization')]).toEqual([
      'ATTACHED',
      false,
      true,
    ]);
    const gone = run((p) => muxStep(p, 0), { ...carries, selected: 'UNSELECTED' });
    expect([gone.mux, has(gone.actor, 'synchronization')]).toEqual(['DETACHED', false]);
  });
});

describe('periodic machine', () => {
  test('is silent where both are passive, and speaks as soon as one is active', () => {
    const passive = { ...START, actor: withBit(START.actor, 'activity', false) };
    expect(periodicStep(passive, 0)).toBeNull();
    expect(periodicStep({ ...passive, partner: other }, 0)!.periodic).toBe('FAST_PERIODIC');
  });
  test('every second to a partner with a short timeout, every thirty to others', () => {
    const spoken = (partner: LacpInfo) => {
      let p = { ...START, partner };
      const times: number[] = [];
      for (let now = 0; now <= 90 * SECOND; now += SECOND / 2) {
        p = run((q) => periodicStep(q, now), p);
        if (p.ntt) times.push(now / SECOND);
        p = { ...p, ntt: false };
      }
      return times;
    };
    expect(spoken(other)).toEqual([30, 60, 90]);
    expect(spoken(withBit(other, 'timeout', true)).slice(0, 4)).toEqual([1, 2, 3, 4]);
  });
});

describe('churn machine', () => {
  test('tells of a side that is not in step for a minute, and no more once it is', () => {
    const started = run((p) => churnStep(p, 0), START);
    expect([started.actorChurn, started.timers.actorChurn]).toEqual(['CHURN_MONITOR', LACP_TIMES.churnDetection]);
    const churns = run((p) => churnStep(p, LACP_TIMES.churnDetection), started);
    expect([churns.actorChurn, churns.partnerChurn]).toEqual(['CHURN', 'CHURN']);
    const back = run((p) => churnStep(p, 70 * SECOND), {
      ...churns,
      actor: withBit(churns.actor, 'synchronization', true),
    });
    expect([back.actorChurn, back.partnerChurn]).toEqual(['NO_CHURN', 'CHURN']);
  });
});

describe('selection', () => {
  const heard = (number: number, more: Partial<LacpPort> = {}): LacpPort => ({
    ...START,
    number,
    receive: 'CURRENT',
    actor: { ...START.actor, port: number },
    partner: { ...other, port: number },
    ...more,
  });
  const chosen = (ports: LacpPort[], more = {}) =>
    Object.fromEntries(selection(ports, endSettings(1, { ports: [], ...more }), null, 0).wanted);
  test('takes the lower system first, by its port priorities and then its port numbers', () => {
    expect(actorDecides(heard(1))).toBe(true);
    expect(actorDecides(heard(1, { partner: { ...other, systemPriority: 1 } }))).toBe(false);
    const ports = [1, 2, 3].map((n) => heard(n));
    expect(chosen(ports, { maxActive: 2 })).toEqual({ 1: 'SELECTED', 2: 'SELECTED', 3: 'STANDBY' });
    // The partner decides, and numbers its ports the other way round.
    const theirs = [1, 2, 3].map((n) => heard(n, { partner: { ...other, systemPriority: 1, port: 10 - n } }));
    expect(chosen(theirs, { maxActive: 2 })).toEqual({ 1: 'STANDBY', 2: 'SELECTED', 3: 'SELECTED' });
  });
  test('keeps the largest group that leads to one system, and lets a port that leads elsewhere out', () => {
    const ports = [heard(1), heard(2), heard(3, { partner: { ...other, system: 77, port: 3 } })];
    expect(chosen(ports)).toEqual({ 1: 'SELECTED', 2: 'SELECTED', 3: 'UNSELECTED' });
  });
  test('takes none below the minimum', () => {
    expect(chosen([heard(1)], { minActive: 2 })).toEqual({ 1: 'STANDBY' });
  });
  test('a port without a partner runs as individual where it may', () => {
    const silent = heard(1, { receive: 'DEFAULTED', partner: NO_PARTNER });
    expect([chosen([silent]), chosen([silent], { individual: false })]).toEqual([
      { 1: 'SELECTED' },
      { 1: 'UNSELECTED' },
    ]);
    expect(goesAlone({ ...silent, mux: 'COLLECTING_DISTRIBUTING' })).toBe(true);
    expect(goesAlone(heard(1, { mux: 'COLLECTING_DISTRIBUTING' }))).toBe(false);
  });
});

/** Two ends on two cables, brought along second by second. */
function pair(near: EndSettings, far: EndSettings, seconds: number): [LacpEnd, LacpEnd] {
  const ends: [LacpEnd, LacpEnd] = [startEnd(near), startEnd(far)];
  for (let now = 0; now <= seconds * SECOND; now += SECOND / 2) exchange(ends, now);
  return ends;
}
function exchange(ends: [LacpEnd, LacpEnd], now: number): void {
  const queue: { to: 0 | 1; port: number; octets: Uint8Array }[] = [];
  const take = (i: 0 | 1, moved: ReturnType<typeof tick>) => {
    ends[i] = moved.end;
    for (const { port, octets } of moved.sent) queue.push({ to: i === 0 ? 1 : 0, port, octets });
  };
  take(0, tick(ends[0], now));
  take(1, tick(ends[1], now));
  for (let frame = queue.shift(); frame; frame = queue.shift())
    take(frame.to, hear(ends[frame.to], frame.port, frame.octets, now));
}
const muxes = (end: LacpEnd) => end.ports.map((p) => p.mux);

describe('an end', () => {
  test('of two that start within seconds all members carry, and each knows the other', () => {
    const [near, far] = pair(endSettings(1), endSettings(2), 5);
    expect([muxes(near), muxes(far)]).toEqual([
      ['COLLECTING_DISTRIBUTING', 'COLLECTING_DISTRIBUTING'],
      ['COLLECTING_DISTRIBUTING', 'COLLECTING_DISTRIBUTING'],
    ]);
    expect([near.ports[0]!.partner.system, far.ports[0]!.partner.system]).toEqual([2, 1]);
  });
  test('two that both wait to be asked never come together', () => {
    const passive = { activity: 'passive' as const, individual: false };
    const [near] = pair(endSettings(1, passive), endSettings(2, passive), 20);
    expect(muxes(near)).toEqual(['DETACHED', 'DETACHED']);
  });
  test('says when its next timer runs out, and octets that are no LACPDU move nothing', () => {
    const [near] = pair(endSettings(1), endSettings(2), 5);
    expect(nextTimer(near, 5 * SECOND)).toBeGreaterThan(5 * SECOND);
    expect(hear(near, 1, new Uint8Array(20), 6 * SECOND)).toEqual({ end: near, sent: [] });
  });
});

describe('an end that is set otherwise while it runs', () => {
  test('goes on at the members that say of themselves what they said, and starts at new ones', () => {
    const [near] = pair(endSettings(1), endSettings(2), 5);
    const [port] = near.settings.ports;
    const more = changeEnd(near, { ...near.settings, ports: [...near.settings.ports, { ...port!, number: 3 }] });
    expect(muxes(more)).toEqual(['COLLECTING_DISTRIBUTING', 'COLLECTING_DISTRIBUTING', 'DETACHED']);
    const less = changeEnd(near, { ...near.settings, ports: [port!] });
    expect(muxes(less)).toEqual(['COLLECTING_DISTRIBUTING']);
  });
  test.each([
    ['another key', { key: 8 }],
    ['another system priority', { systemPriority: 1 }],
    ['waiting to be asked', { activity: 'passive' as const }],
    ['another timeout', { timeout: 'short' as const }],
  ])('%s starts them again: the partner has to learn it', (_, change) => {
    const [near] = pair(endSettings(1), endSettings(2), 5);
    expect(muxes(changeEnd(near, { ...near.settings, ...change }))).toEqual(['DETACHED', 'DETACHED']);
  });
  test('a lower maximum lets one wait, and the partner hears of it', () => {
    const ends = pair(endSettings(1), endSettings(2), 5);
    ends[0] = changeEnd(ends[0], { ...ends[0].settings, maxActive: 1 });
    for (let now = 5.5 * SECOND; now <= 9 * SECOND; now += SECOND / 2) exchange(ends, now);
    expect([ends[0].ports.map((p) => p.selected), muxes(ends[0])[0]]).toEqual([
      ['SELECTED', 'STANDBY'],
      'COLLECTING_DISTRIBUTING',
    ]);
    expect(muxes(ends[1])).toEqual(['COLLECTING_DISTRIBUTING', 'ATTACHED']);
  });
});

test('what an end sends is read as it was meant', () => {
  const { sent } = tick(startEnd(endSettings(1)), 2 * SECOND);
  for (const { octets } of sent) expect(encodeLacpdu(decodeLacpdu(octets)!)).toEqual(octets);
});
