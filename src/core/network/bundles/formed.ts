/** Which bundles act as one port, and which members pass nothing at all. */
import { bundleById } from '../../design';
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

/**
 * Static bundles whose far end has none: they act as one port all the same, which sends BPDUs by its first active member and
 * receives by all. By id, with the members that carry.
 */
export function lonelyBundles(design: Design): ReadonlyMap<string, Pick<FormedBundle, 'bundle' | 'active'>> {
  const lonely = new Map<string, Pick<FormedBundle, 'bundle' | 'active'>>();
  for (const { bundle: id, partner, outcome, members } of bundleVerdicts(design)) {
    const bundle = bundleById(design, id)!;
    if (outcome !== 'one-sided' || bundle.kind !== 'static') continue;
    const far = partner?.kind === 'bundle' ? bundleById(design, partner.id)!.kind : null;
    const active = members.filter((m) => m.state === 'active').map((m) => m.port);
    if (far !== 'static' && partner?.kind !== 'host' && active.length > 0) lonely.set(id, { bundle, active });
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
