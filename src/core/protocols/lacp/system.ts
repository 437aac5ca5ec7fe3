/** One end of a bundle as a whole: its ports, driven by frames and by time. Returns what to send and sends nothing. */
import { LACP_STATE, decodeLacpdu, encodeLacpdu } from '../frames';
import type { LacpInfo, Lacpdu } from '../frames';
import { operationalKey } from '../../standard';
import { churnStep } from './churn';
import { FREE, hasAttachedInVain, hasWaited, muxStep } from './mux';
import { periodicStep } from './periodic';
import { LACP_TIMES, MOST_FRAMES, NO_PARTNER, NO_TIMERS, sameParty } from './port';
import type { LacpPort } from './port';
import { receiveStep } from './receive';
import { selection } from './selection';
import type { BundleSettings, Choice } from './selection';

export interface EndPort {
  readonly number: number;
  /** LACP port priority. */
  readonly priority: number;
  /** Mb/s that the link runs at. */
  readonly speed: number;
  readonly half: boolean;
  readonly up: boolean;
}

export interface EndSettings extends BundleSettings {
  readonly system: number;
  readonly systemPriority: number;
  readonly key: number;
  readonly activity: 'active' | 'passive';
  readonly timeout: 'short' | 'long';
  readonly ports: readonly EndPort[];
}

export interface LacpEnd {
  readonly settings: EndSettings;
  readonly ports: readonly LacpPort[];
  /** Candidates of which the partner gave fewer than the minimum: they wait until it gives enough, or others are there. */
  readonly withdrawn: string | null;
}

function actorOf(settings: EndSettings, port: EndPort): LacpInfo {
  const { system, systemPriority, activity, timeout } = settings;
  return {
    systemPriority,
    system,
    key: operationalKey(settings.key, settings.ports, port.speed),
    portPriority: port.priority,
    port: port.number,
    state:
      (activity === 'active' ? LACP_STATE.activity : 0) |
      (timeout === 'short' ? LACP_STATE.timeout : 0) |
      // A link in half duplex goes alone (clause 6.1.3.2).
      (port.half ? 0 : LACP_STATE.aggregation),
  };
}

const newPort = (settings: EndSettings, port: EndPort): LacpPort => ({
  number: port.number,
  portEnabled: port.up,
  lacpEnabled: true,
  actor: actorOf(settings, port),
  partner: NO_PARTNER,
  partnerAdmin: NO_PARTNER,
  selected: 'UNSELECTED',
  ready: false,
  ntt: false,
  receive: 'INITIALIZE',
  periodic: 'NO_PERIODIC',
  mux: 'DETACHED',
  actorChurn: 'CHURN_MONITOR',
  partnerChurn: 'CHURN_MONITOR',
  timers: NO_TIMERS,
  sentAt: [],
});

/** An end as it starts: nothing heard, nothing sent. */
export const startEnd = (settings: EndSettings): LacpEnd => ({
  settings,
  ports: settings.ports.map((port) => newPort(settings, port)),
  withdrawn: null,
});

/** Tells an end which of its ports have light; one that comes up waits before it is used beside others. */
export function lightEnd(end: LacpEnd, up: (number: number) => boolean, now: number): LacpEnd {
  const { returnDelay, ports: set } = end.settings;
  const ports = end.ports.map((p): LacpPort => {
    const portEnabled = up(p.number);
    if (p.portEnabled === portEnabled) return p;
    const returnWhile = portEnabled && returnDelay > 0 ? now + returnDelay : null;
    return { ...p, portEnabled, timers: { ...p.timers, returnWhile } };
  });
  return { ...end, ports, settings: { ...end.settings, ports: set.map((p) => ({ ...p, up: up(p.number) })) } };
}

/** What a port says of itself whatever it has heard. */
const OWN_BITS = LACP_STATE.activity | LACP_STATE.timeout;

/** An end that is set otherwise, or has other members: ports that say of themselves what they said go on as they stand. */
export function changeEnd(end: LacpEnd, settings: EndSettings): LacpEnd {
  const known = new Map(end.ports.map((p) => [p.number, p]));
  const ports = settings.ports.map((port) => {
    const [was, is] = [known.get(port.number), newPort(settings, port)];
    const same = was && sameParty(was.actor, is.actor) && ((was.actor.state ^ is.actor.state) & OWN_BITS) === 0;
    return same ? was : is;
  });
  return { settings, ports, withdrawn: null };
}

const MOST_STEPS = 1000;
const TRANSMITS = (p: LacpPort): boolean => p.ntt && p.portEnabled && p.lacpEnabled && p.periodic !== 'NO_PERIODIC';

/** Which candidates an end holds back now: those that have waited for the partner in vain, until it gives enough. */
function withdrawnNow({ ports, withdrawn }: LacpEnd, { who, given, minimum, candidates }: Choice, now: number) {
  // Without a minimum there is nothing to wait for in vain.
  if (given >= minimum || minimum <= 1) return null;
  const inVain = ports.some((p) => candidates.has(p.number) && hasAttachedInVain(p, now));
  return withdrawn === who || inVain ? who : null;
}

/** Runs all machines of an end until nothing moves, in the order of the standard: receive, selection, mux, periodic, churn. */
function settle(start: LacpEnd, now: number): LacpEnd {
  let end = start;
  for (let step = 0; step < MOST_STEPS; step++) {
    const choice = selection(end.ports, end.settings, end.withdrawn, now);
    const { ports: before } = end;
    const ready = before
      .filter((p) => p.mux === 'WAITING' && p.selected === 'SELECTED')
      .every((p) => hasWaited(p, now));
    const held = { given: choice.given >= choice.minimum, waits: choice.minimum > 1 };
    const withdrawn = withdrawnNow(end, choice, now);
    let moved = withdrawn !== end.withdrawn;
    const ports = before.map((p) => {
      const received = receiveStep(p, now, null);
      if (received) {
        moved = true;
        return received;
      }
      const selected = choice.wanted.get(p.number)!;
      if (selected !== p.selected) {
        moved = true;
        return { ...p, selected };
      }
      const offered = p.mux === 'WAITING' && p.selected === 'SELECTED' && ready && !p.ready ? { ...p, ready: true } : p;
      const bound = choice.candidates.has(p.number) ? held : FREE;
      const next = muxStep(offered, now, bound) ?? periodicStep(offered, now) ?? churnStep(offered, now);
      if (next || offered !== p) moved = true;
      return next ?? offered;
    });
    if (!moved) return { ...end, ports };
    end = { ...end, ports, withdrawn };
  }
  throw new Error('settle: the machines of an end do not come to rest');
}

/** A LACPDU to send, as octets, by the number of the port it leaves. */
export interface Sent {
  readonly port: number;
  readonly octets: Uint8Array;
}

export interface Moved {
  readonly end: LacpEnd;
  readonly sent: readonly Sent[];
}

/** When a port may send again that has sent as much as it may; a time that has passed otherwise. */
const freeAt = ({ sentAt }: LacpPort): number =>
  sentAt.length < MOST_FRAMES ? -Infinity : sentAt[0]! + LACP_TIMES.fastPeriodic;

function transmit(end: LacpEnd, now: number): Moved {
  const sent: Sent[] = [];
  const ports = end.ports.map((p) => {
    if (!TRANSMITS(p)) return p.ntt && p.periodic === 'NO_PERIODIC' ? { ...p, ntt: false } : p;
    if (freeAt(p) > now) return p;
    sent.push({ port: p.number, octets: encodeLacpdu({ actor: p.actor, partner: p.partner, collectorMaxDelay: 0 }) });
    return { ...p, ntt: false, sentAt: [...p.sentAt, now].slice(-MOST_FRAMES) };
  });
  return { end: { ...end, ports }, sent };
}

/** Lets time pass up to `now`, in microseconds. */
export const tick = (end: LacpEnd, now: number): Moved => transmit(settle(end, now), now);

/** Takes a frame in at a port; octets that are no LACPDU are ignored. */
export function hear(end: LacpEnd, port: number, octets: Uint8Array, now: number): Moved {
  const pdu: Lacpdu | null = decodeLacpdu(octets);
  if (!pdu) return { end, sent: [] };
  const ports = end.ports.map((p) => (p.number === port && p.portEnabled ? (receiveStep(p, now, pdu) ?? p) : p));
  return transmit(settle({ ...end, ports }, now), now);
}

/** The moment after `now` at which the next timer of an end runs out; null when none runs. */
export function nextTimer({ ports }: LacpEnd, now: number): number | null {
  const all = ports
    .flatMap((p) => [...Object.values(p.timers), TRANSMITS(p) ? freeAt(p) : null])
    .filter((t): t is number => t !== null && t > now);
  return all.length === 0 ? null : Math.min(...all);
}
