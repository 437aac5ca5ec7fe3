/** Rates of bundles. */
import { portById, switchById } from '../design';
import type { Bundle, Design } from '../design';

/** Mb/s behind a bundle's cost: of its active or of its configured members, as its switch is set; 0 without any. */
export function bundleCostRate(design: Design, bundle: Bundle, active: readonly string[]): number {
  const follows = switchById(design, bundle.switch)?.bundleCost ?? design.bundleCost;
  const counted = follows === 'active' ? active : bundle.members;
  return counted.reduce((sum, id) => sum + (portById(design, id)?.speed ?? 0), 0);
}
