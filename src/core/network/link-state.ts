/** Whether a cable works. */
import { farEnd, linkAt, linkSpeed, portById, switchById } from '../design';
import type { Design } from '../design';

/** Whether a port has a working cable: neither end down or off, the link not cut. */
export function portIsUp(design: Design, portId: string): boolean {
  const port = portById(design, portId);
  if (!port || port.down || switchById(design, port.switch)?.off) return false;
  const link = linkAt(design, portId);
  if (!link || link.down) return false;
  const far = farEnd(link, portId);
  if ('host' in far) return true;
  const farPort = portById(design, far.port);
  return farPort !== undefined && !farPort.down && !switchById(design, farPort.switch)?.off;
}

/** Whether either end of a port's cable runs in half duplex: such a link does not aggregate (802.1AX-2014 clause 6.1.3.2). */
export function isHalfDuplex(design: Design, portId: string): boolean {
  const link = linkAt(design, portId);
  const far = link && farEnd(link, portId);
  const half = (id: string) => portById(design, id)?.duplex === 'half';
  return half(portId) || (far !== undefined && 'port' in far && half(far.port));
}

/** Mb/s of a port's cable; of the port itself while nothing is plugged in. */
export function rateAt(design: Design, portId: string): number {
  const link = linkAt(design, portId);
  return link ? linkSpeed(design, link) : (portById(design, portId)?.speed ?? 0);
}
