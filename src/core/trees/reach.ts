/** How far the word of a root goes, by the timers and hops that are set. */
import { isClassicMode, modeOf, timersOf } from '../design';
import type { Design } from '../design';
import { regionOf } from '../network';
import { MAX_HOPS, OCTET_SECONDS } from '../standard';

export const isClassic = (design: Design, s: Design['switches'][number]): boolean => isClassicMode(modeOf(design, s));

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

/** 1 for every bridge that adds 1/256 s to the age of a message; null where none does. */
export const finelyAged = (design: Design): Uint8Array | null =>
  design.switches.some((s) => s.ageStep === 'fraction')
    ? Uint8Array.from(design.switches, (s) => (s.ageStep === 'fraction' ? 1 : 0))
    : null;

/** Age of a message behind one more bridge, in seconds (802.1D-2004 clause 17.21.23: to the nearest whole second). */
export const ageBehind = (fine: Uint8Array | undefined, bridge: number, age: number): number =>
  fine?.[bridge] ? age + 1 / OCTET_SECONDS : Math.round(age + 1);

/** The same inside a region, by its hops. */
export const reachByHops = (design: Design): Int32Array =>
  Int32Array.from(design.switches, (s) => (regionOf(design, s)?.maxHops ?? MAX_HOPS.default) - 1);
