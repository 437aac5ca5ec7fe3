/**
 * Which bundles act as one port. In this version a bundle forms where both ends are configured as one, in kinds that
 * agree, with at least one side starting the negotiation (802.1AX-2014 clause 6.4: two passive ends never come up).
 */
import { farEnd, linkAt, bundleAt, portById, switchById } from '../design';
import type { Bundle, Design } from '../design';

export interface FormedBundle {
  readonly bundle: Bundle;
  /** The bundle at the other end. */
  readonly partner: Bundle;
  /** Member ports that carry traffic: link up, far end a member of the partner. */
  readonly active: readonly string[];
}

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

const kindsAgree = (a: Bundle, b: Bundle): boolean =>
  a.kind === b.kind && (a.kind === 'static' || a.activity !== 'passive' || b.activity !== 'passive');

/** The far bundle that most working members lead to, with those members. */
function choosePartner(design: Design, bundle: Bundle): FormedBundle | null {
  const reached = new Map<Bundle, string[]>();
  for (const member of bundle.members) {
    if (!portIsUp(design, member)) continue;
    const far = farEnd(linkAt(design, member)!, member);
    const partner = 'port' in far ? bundleAt(design, far.port) : undefined;
    if (partner && partner !== bundle && kindsAgree(bundle, partner))
      reached.set(partner, [...(reached.get(partner) ?? []), member]);
  }
  let best: FormedBundle | null = null;
  for (const [partner, active] of reached)
    if (!best || active.length > best.active.length) best = { bundle, partner, active };
  return best;
}

/** The bundles that form, by id. Members of any other bundle stand as single ports. */
export function formedBundles(design: Design): ReadonlyMap<string, FormedBundle> {
  const chosen = new Map(design.bundles.map((b) => [b.id, choosePartner(design, b)]));
  const formed = new Map<string, FormedBundle>();
  for (const [id, choice] of chosen)
    if (choice && chosen.get(choice.partner.id)?.partner === choice.bundle) formed.set(id, choice);
  return formed;
}

/** Mb/s that a formed bundle's cost is computed from. */
export function bundleRate(design: Design, formed: FormedBundle): number {
  const counted = design.bundleCost === 'active' ? formed.active : formed.bundle.members;
  return counted.reduce((sum, id) => sum + (portById(design, id)?.speed ?? 0), 0);
}
