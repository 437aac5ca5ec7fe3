/** Light on cables: what a port reaches, and whether it sees anybody. */
import { farEnd, linkAt, portById, segmentAt } from '../design';
import type { Link, Port } from '../design';
import type { PhysicalPort, World } from './network-state';

/** Physical ports that a frame from one reaches: the far end, all on the segment, or itself over a hub with a loop. */
export function reaches(w: World, from: string): string[] {
  if (w.loops.has(from)) return [from];
  const { design } = w.plan;
  const segment = segmentAt(design, from);
  if (segment) return segment.down ? [] : segment.ports.filter((p) => p !== from);
  const link = linkAt(design, from);
  if (!link || link.down || w.deaf.has(link.id)) return [];
  const far = farEnd(link, from);
  return 'port' in far ? [far.port] : [];
}

/** Whether a port has light: the cable is in and whole, and the far end is on. */
export function hasCarrier(w: World, port: Port): boolean {
  const { design } = w.plan;
  const physical = w.physical.get(port.id);
  if (port.down || !physical?.node.on) return false;
  if (w.loops.has(port.id) || w.intruders.has(port.id)) return true;
  const segment = segmentAt(design, port.id);
  if (segment) return !segment.down;
  const link = linkAt(design, port.id);
  if (!link || link.down) return false;
  const deaf = w.deaf.get(link.id);
  const side = 'port' in link.a && link.a.port === port.id ? 'a' : 'b';
  if (deaf === side) return false;
  const far = farEnd(link, port.id);
  if ('host' in far) return true;
  const farPort = portById(design, far.port);
  if (!farPort) return false;
  // An end that has lost its light alone still lights the other.
  if (deaf) return true;
  const other = w.physical.get(far.port);
  return !farPort.down && other !== undefined && other.node.on && !isShut(other);
}

const isShut = (p: PhysicalPort): boolean => p.own.shutUntil !== null;

/** Ports that share light with a port: itself, the far end of its cable, all of its segment. */
export function portsAround(w: World, id: string): readonly string[] {
  const { design } = w.plan;
  const segment = segmentAt(design, id);
  if (segment) return segment.ports;
  const link = linkAt(design, id);
  return link ? portsOfLink(link) : [id];
}

export const portsOfLink = ({ a, b }: Link): string[] => [a, b].flatMap((e) => ('port' in e ? [e.port] : []));
