/** How far the word of a root goes, by the timers and hops that are set. */
import { modeOf, timersOf } from '../design';
import type { Design } from '../design';
import { regionOf } from '../network';
import { MAX_HOPS } from '../standard';

export const isClassic = (design: Design, s: Design['switches'][number]): boolean =>
  ['stp', 'per-vlan-stp'].includes(modeOf(design, s));

const ages = new WeakMap<Design, Int32Array>();

/**
 * Most bridges that may lie between a root and another, itself counted, by root. Where classic bridges take part a message
 * has to last until the next hello: one that is older is given up and accepted again without end.
 */
export function reachByAge(design: Design): Int32Array {
  let found = ages.get(design);
  if (!found) {
    const classic = design.switches.some((s) => isClassic(design, s));
    found = Int32Array.from(design.switches, (s) => {
      const { maxAge, helloTime } = timersOf(s);
      return classic ? Math.floor(maxAge - helloTime) : maxAge;
    });
    ages.set(design, found);
  }
  return found;
}

/** The same inside a region, by its hops. */
export const reachByHops = (design: Design): Int32Array =>
  Int32Array.from(design.switches, (s) => (regionOf(design, s)?.maxHops ?? MAX_HOPS.default) - 1);
