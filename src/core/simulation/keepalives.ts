/**
 * Detection of links that carry frames one way only: both ends send keepalives (Information OAMPDUs, 802.3-2018 clause 57), and
 * a port that has heard the other end and misses five of them, or receives one that says the same of the other end, detects it.
 */
import { portById } from '../design';
import type { Port } from '../design';
import { decodeOampdu, encodeOampdu, slowFrame } from '../protocols/frames';
import { SECOND } from '../standard';
import { PlainFrame } from './frame';
import { transmit } from './transmit';
import type { Keepalives, PhysicalPort, World } from './network-state';

const MISSED = 5;

/** Starts and stops keepalives as ports are set and lit. */
export function watchLinks(w: World, ports: readonly Port[]): void {
  for (const port of ports) {
    const physical = w.physical.get(port.id)!;
    const wanted = port.oneWay !== undefined && physical.carrier;
    if (!wanted) physical.keepalives = null;
    else if (!physical.keepalives) {
      physical.keepalives = { heardAt: null, deaf: false, unheard: false };
      w.queue.push(w.now, { kind: 'keepalive', port: port.id, keepalives: physical.keepalives });
    }
  }
}

const intervalOf = ({ oneWayInterval }: Port): number => (oneWayInterval ?? 1) * SECOND;

function say(w: World, physical: PhysicalPort, { deaf, heardAt }: Keepalives): void {
  const frame = slowFrame(physical.node.plan.mac, encodeOampdu({ fault: deaf, hears: heardAt !== null && !deaf }));
  transmit(w, physical.id, new PlainFrame(frame), w.record.anotherFrame(w.now, physical.id, frame, 'oam'));
}

/** A port says its keepalive, and looks whether it misses those of the other end. Gives whether the port has to be shut. */
export function keepAlive(w: World, id: string, keepalives: Keepalives): boolean {
  const physical = w.physical.get(id);
  const port = portById(w.plan.design, id);
  if (!physical || !port || physical.keepalives !== keepalives) return false;
  const { heardAt } = keepalives;
  const missed = heardAt !== null && w.now - heardAt >= MISSED * intervalOf(port);
  const fresh = missed && !keepalives.deaf;
  keepalives.deaf = missed;
  say(w, physical, keepalives);
  w.queue.push(w.now + intervalOf(port), { kind: 'keepalive', port: id, keepalives });
  return fresh && detected(w, port, 'deaf');
}

/** A keepalive arrives. Gives whether the port has to be shut. */
export function hearKeepalive(w: World, id: string, payload: Uint8Array): boolean {
  const keepalives = w.physical.get(id)?.keepalives;
  const port = portById(w.plan.design, id);
  const told = decodeOampdu(payload);
  if (!keepalives || !port || !told) return false;
  keepalives.heardAt = w.now;
  keepalives.deaf = false;
  const fresh = told.fault && !keepalives.unheard;
  keepalives.unheard = told.fault;
  return fresh && detected(w, port, 'unheard');
}

function detected(w: World, port: Port, how: 'deaf' | 'unheard'): boolean {
  if (port.oneWay === 'shut') return true;
  w.record.happened({ kind: 'one-way', at: w.now, port: port.id, how });
  return false;
}
