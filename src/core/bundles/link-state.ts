/** Whether a cable works. */
import { farEnd, linkAt, portById, switchById } from '../design';
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
