/** Bundles over time: the ends exchange LACPDUs, and their members join, wait or go alone as the machines say. */
import { portById } from '../design';
import { isHalfDuplex, rateAt } from '../network';
import { slowFrame } from '../protocols/frames';
import { goesAlone, hear, lightEnd, nextTimer, tick } from '../protocols/lacp';
import type { EndSettings, LacpPort, Sent } from '../protocols/lacp';
import { speedsByUse } from '../standard';
import { PlainFrame } from './frame';
import { deliver, transmit } from './transmit';
import type { BundleEnd, World } from './network-state';

/** An end before any of its ports has light. */
export const endWithoutCarrier = (settings: EndSettings): EndSettings => ({
  ...settings,
  ports: settings.ports.map((p) => ({ ...p, up: false })),
});

/** Switch port of the nth port of an end. */
export const portOf = (w: World, bundleEnd: BundleEnd, number: number): string =>
  bundleEnd.bundle
    ? bundleEnd.members.find((id) => portById(w.plan.design, id)?.number === number)!
    : bundleEnd.members[number - 1]!;

function send(w: World, bundleEnd: BundleEnd, sent: readonly Sent[], onHost: boolean): void {
  for (const { port, octets } of sent) {
    const id = portOf(w, bundleEnd, port);
    const frame = slowFrame(bundleEnd.end!.settings.system, octets);
    const kind = bundleEnd.bundle?.kind === 'own' ? 'own' : 'lacp';
    const index = w.record.anotherFrame(w.now, id, frame, kind);
    if (onHost) deliver(w, 'host', id, frame, index);
    else transmit(w, id, new PlainFrame(frame), index);
  }
}

/** Goes on with an end as it stands now, and has it woken when its next timer runs out. */
export function goOn(w: World, bundleEnd: BundleEnd, moved = tick(bundleEnd.end!, w.now)): void {
  bundleEnd.end = moved.end;
  send(w, bundleEnd, moved.sent, bundleEnd.bundle === null);
  const next = nextTimer(bundleEnd.end, w.now) ?? Infinity;
  if (next < bundleEnd.wakeAt || bundleEnd.wakeAt <= w.now) {
    bundleEnd.wakeAt = next;
    if (next < Infinity) w.queue.push(next, { kind: 'lacp', bundleEnd });
  }
}

/** Tells an end which of its ports have light. */
export function light(w: World, bundleEnd: BundleEnd): void {
  if (!bundleEnd.end) return;
  const up = (number: number) => {
    const id = portOf(w, bundleEnd, number);
    return w.physical.get(id)?.carrier ?? false;
  };
  if (bundleEnd.end.ports.every((p) => p.portEnabled === up(p.number))) return;
  bundleEnd.end = lightEnd(bundleEnd.end, up, w.now);
  goOn(w, bundleEnd);
}

/** A LACPDU arrives at a switch port; from a host's own end when `toHost`. */
export function receiveAt(w: World, bundleEnd: BundleEnd, port: string, octets: Uint8Array): void {
  if (!bundleEnd.end) return;
  goOn(w, bundleEnd, hear(bundleEnd.end, numberOf(w, bundleEnd, port), octets, w.now));
}

/** Number of a member at its end: a switch has its own, a host counts its cards. */
const numberOf = (w: World, bundleEnd: BundleEnd, port: string): number =>
  bundleEnd.bundle ? portById(w.plan.design, port)!.number : bundleEnd.members.indexOf(port) + 1;

/** The machines of a member of an end that negotiates. */
export function memberOf(w: World, bundleEnd: BundleEnd, port: string): LacpPort {
  const number = numberOf(w, bundleEnd, port);
  return bundleEnd.end!.ports.find((one) => one.number === number)!;
}

export type Standing = 'active' | 'alone' | 'held' | 'down';

/** What a member does now: carries, goes alone, or passes nothing. */
export function memberStanding(w: World, bundleEnd: BundleEnd, port: string): Standing {
  const physical = w.physical.get(port);
  if (!physical?.carrier) return 'down';
  if (!bundleEnd.end) return staticMember(w, bundleEnd, port) ? 'active' : 'held';
  const p = memberOf(w, bundleEnd, port);
  if (goesAlone(p)) return 'alone';
  return p.mux === 'COLLECTING_DISTRIBUTING' ? 'active' : 'held';
}

/** Static members carry when they are up and of the speed that most have. */
function staticMember(w: World, bundleEnd: BundleEnd, port: string): boolean {
  const { design } = w.plan;
  const lit = bundleEnd.members.filter((id) => w.physical.get(id)?.carrier && !isHalfDuplex(design, id));
  if (!lit.includes(port)) return false;
  return rateAt(design, port) === speedsByUse(lit, (id) => rateAt(design, id))[0];
}
