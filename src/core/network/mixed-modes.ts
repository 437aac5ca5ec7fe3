/** Which kinds of spanning tree meet in a design. */
import { isPerVlan, modeOf } from '../design';
import type { Design, Mode } from '../design';

/** What kinds of protocol meet in a design. */
export interface Mixture {
  readonly perVlan: boolean;
  readonly mst: boolean;
  /** One tree of all VLANs by STP or RSTP. */
  readonly single: boolean;
}

export function mixtureOf(design: Design): Mixture {
  const modes = new Set<Mode>(design.switches.map((s) => modeOf(design, s)));
  if (modes.size === 0) modes.add(design.mode);
  return {
    perVlan: [...modes].some(isPerVlan),
    mst: modes.has('mstp'),
    single: modes.has('rstp') || modes.has('stp'),
  };
}

/** Whether switches with a tree per VLAN and switches without meet. */
export const isMixed = ({ perVlan, mst, single }: Mixture): boolean => perVlan && (mst || single);
