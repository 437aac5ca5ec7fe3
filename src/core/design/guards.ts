/** Guards in force at a port or bundle: its own, else what its switch sets for edge ports. */
import { linkTypeOf, switchById } from './look-ups';
import { isClassicMode, modeOf } from './schema';
import type { Design, Port } from './schema';
import type { Bundle } from './bundle-schema';

/** Whether a filter stops BPDUs always, or until the first one is heard. */
export type FilterInForce = 'none' | 'always' | 'until-heard';

/** Whether a port is shut by the first BPDU that it hears. */
export const hasBpduGuard = (design: Design, element: Port | Bundle): boolean =>
  element.bpduGuard ?? (element.edge === true && switchById(design, element.switch)?.edgeGuard === true);

/** How a port filters BPDUs; the filter that a switch gives its edge ports yields. */
export function filterOf(design: Design, element: Port | Bundle): FilterInForce {
  if (element.bpduFilter !== undefined)
    return element.bpduFilter ? (element.filterYields ? 'until-heard' : 'always') : 'none';
  return element.edge && switchById(design, element.switch)?.edgeFilter ? 'until-heard' : 'none';
}

/** Whether a port never passes a BPDU on to spanning tree. */
export const isFiltered = (design: Design, element: Port | Bundle): boolean => filterOf(design, element) === 'always';

/**
 * Whether a port has a silence guard that acts: its switch is not classic, where ports that are not designated have nothing
 * to say, and its link is point-to-point.
 */
export function hasSilenceGuard(design: Design, element: Port | Bundle): boolean {
  const s = element.silenceGuard ? switchById(design, element.switch) : undefined;
  if (!s || isClassicMode(modeOf(design, s))) return false;
  return 'members' in element || linkTypeOf(design, element) === 'point-to-point';
}
