/** Which bundles act as one port, and which members pass nothing at all. */
import { bundleById, farEnd, hasBpduGuard, isFiltered, linkAt, portById } from '../../design';
import type { Bundle, Design } from '../../design';
import { bundleCostRate } from '../bundle-rate';
import { bundleVerdicts } from './verdict';

export interface FormedBundle {
  readonly bundle: Bundle;
  /** The bundle at the other end; null where a host's cards are. */
  readonly partner: Bundle | null;
  /** Member ports that carry traffic. */
  readonly active: readonly string[];
}

/** The bundles that form, by id. Members of any other bundle stand as single ports. */
export function formedBundles(design: Design): ReadonlyMap<string, FormedBundle> {
  const formed = new Map<string, FormedBundle>();
  for (const { bundle: id, partner, outcome, members } of bundleVerdicts(design)) {
    if (outcome !== 'forms' || !partner) continue;
    const active = members.filter((m) => m.state === 'active' && !m.miscabled).map((m) => m.port);
    const far = partner.kind === 'bundle' ? bundleById(design, partner.id)! : null;
    formed.set(id, { bundle: bundleById(design, id)!, partner: far, active });
  }
  // A bundle whose partner holds with another one stands alone.
  for (const [id, { partner }] of formed) if (partner && formed.get(partner.id)?.partner?.id !== id) formed.delete(id);
  return formed;
}

/** What trees ask of the far end of a member; null where it is no port of a switch. */
function farSettings(design: Design, member: string): string | null {
  const link = linkAt(design, member);
  const end = link && farEnd(link, member);
  const port = end && 'port' in end ? portById(design, end.port) : undefined;
  if (!port || isFiltered(design, port) || hasBpduGuard(design, port)) return null;
  return [port.switch, port.vlans, port.native, port.rootGuard].join(' ');
}

/**
 * Static bundles whose far end has none: they act as one port all the same, which sends BPDUs by its first active member and
 * receives by all. Only where all members lead to ports of one switch that are alike to trees, so that it makes no difference by
 * which of them BPDUs come. By id, with the members that carry.
 */
export function lonelyBundles(design: Design): ReadonlyMap<string, Pick<FormedBundle, 'bundle' | 'active'>> {
  const lonely = new Map<string, Pick<FormedBundle, 'bundle' | 'active'>>();
  for (const { bundle: id, partner, outcome, members } of bundleVerdicts(design)) {
    const bundle = bundleById(design, id)!;
    if (outcome !== 'one-sided' || bundle.kind !== 'static') continue;
    if (partner?.kind === 'bundle' && bundleById(design, partner.id)!.kind === 'static') continue;
    const active = members.filter((m) => m.state === 'active').map((m) => m.port);
    const far = new Set(active.map((m) => farSettings(design, m)));
    if (far.size === 1 && !far.has(null)) lonely.set(id, { bundle, active });
  }
  return lonely;
}

/** Members that pass nothing although their cable is up: they wait, or cannot join and may not go alone. */
export function heldMembers(design: Design): ReadonlySet<string> {
  return new Set(
    bundleVerdicts(design).flatMap((v) =>
      v.members.flatMap((m) => (m.state === 'standby' || m.state === 'suspended' ? [m.port] : [])),
    ),
  );
}

/** Mb/s that a formed bundle's cost is computed from: of its active or of its configured members, as its switch is set. */
export function bundleRate(design: Design, formed: Pick<FormedBundle, 'bundle' | 'active'>): number {
  return bundleCostRate(design, formed.bundle, formed.active);
}
