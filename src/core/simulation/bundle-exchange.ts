/** Bundles over time: the ends exchange LACPDUs, and their members join, wait or go alone as the machines say. */
import { portById } from '../design';
import { isHalfDuplex, rateAt } from '../network';
import { lacpFrame } from '../protocols/frames';
import { goesAlone, hear, nextTimer, startEnd, tick } from '../protocols/lacp';
import type { EndSettings, LacpEnd, LacpPort, Sent } from '../protocols/lacp';
import { speedsByUse } from '../standard';
import { PlainFrame } from './frame';
import { deliver, transmit } from './transmit';
import type { Lag, World } from './network-state';

/** An end before any of its ports has light. */
export const darkEnd = (settings: EndSettings): EndSettings => ({
  ...settings,
  ports: settings.ports.map((p) => ({ ...p, up: false })),
});

const withLight = (end: LacpEnd, up: (number: number) => boolean): LacpEnd => ({
  settings: { ...end.settings, ports: end.settings.ports.map((p) => ({ ...p, up: up(p.number) })) },
  ports: end.ports.map((p) => (p.portEnabled === up(p.number) ? p : { ...p, portEnabled: up(p.number) })),
});

/** Switch port of the nth port of an end. */
export const portOf = (w: World, lag: Lag, number: number): string =>
  lag.bundle ? lag.members.find((id) => portById(w.plan.design, id)?.number === number)! : lag.members[number - 1]!;

function send(w: World, lag: Lag, sent: readonly Sent[], onHost: boolean): void {
  for (const { port, octets } of sent) {
    const id = portOf(w, lag, port);
    const frame = lacpFrame(lag.end!.settings.system, octets);
    const kind = lag.bundle?.kind === 'own' ? 'own' : 'lacp';
    const index = w.record.anotherFrame(w.now, id, frame, kind);
    if (onHost) deliver(w, 'host', id, frame, index);
    else transmit(w, id, new PlainFrame(frame), index);
  }
}

/** Goes on with an end as it stands now, and has it woken when its next timer runs out. */
export function goOn(w: World, lag: Lag, moved = tick(lag.end!, w.now)): void {
  lag.end = moved.end;
  send(w, lag, moved.sent, lag.bundle === null);
  const next = nextTimer(lag.end, w.now) ?? Infinity;
  if (next < lag.wakeAt || lag.wakeAt <= w.now) {
    lag.wakeAt = next;
    if (next < Infinity) w.queue.push(next, { kind: 'lacp', lag });
  }
}

/** Tells an end which of its ports have light. */
export function light(w: World, lag: Lag): void {
  if (!lag.end) return;
  const up = (number: number) => {
    const id = portOf(w, lag, number);
    return w.physical.get(id)?.carrier ?? false;
  };
  if (lag.end.ports.every((p) => p.portEnabled === up(p.number))) return;
  lag.end = withLight(lag.end, up);
  goOn(w, lag);
}

/** A LACPDU arrives at a switch port; from a host's own end when `toHost`. */
export function hearAt(w: World, lag: Lag, port: string, octets: Uint8Array): void {
  if (!lag.end) return;
  const number = lag.bundle ? portById(w.plan.design, port)!.number : lag.members.indexOf(port) + 1;
  goOn(w, lag, hear(lag.end, number, octets, w.now));
}

/** The machines of a member of an end that negotiates. */
export function memberOf(w: World, lag: Lag, port: string): LacpPort {
  const number = portById(w.plan.design, port)!.number;
  return lag.end!.ports.find((one) => one.number === number)!;
}

export type Standing = 'active' | 'alone' | 'held' | 'down';

/** What a member does now: carries, goes alone, or passes nothing. */
export function memberStanding(w: World, lag: Lag, port: string): Standing {
  const physical = w.physical.get(port);
  if (!physical?.carrier) return 'down';
  if (!lag.end) return staticMember(w, lag, port) ? 'active' : 'held';
  const p = memberOf(w, lag, port);
  if (goesAlone(p)) return 'alone';
  return p.mux === 'COLLECTING_DISTRIBUTING' ? 'active' : 'held';
}

/** Static members carry when they are up and of the speed that most have. */
function staticMember(w: World, lag: Lag, port: string): boolean {
  const { design } = w.plan;
  const lit = lag.members.filter((id) => w.physical.get(id)?.carrier && !isHalfDuplex(design, id));
  if (!lit.includes(port)) return false;
  return rateAt(design, port) === speedsByUse(lit, (id) => rateAt(design, id))[0];
}

export const startLag = (settings: EndSettings): LacpEnd => startEnd(settings);
