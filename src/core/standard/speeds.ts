/**
 * The speeds among some links, the one that most of them have first; of two that as many have, the faster one. Members
 * of a bundle that have another speed than the first do not aggregate (802.1AX-2014 clause 6.3.5). `counted` says which
 * links have a say; the others' speeds come last.
 */
export function speedsByUse<T>(links: readonly T[], speedOf: (link: T) => number, counted = (_: T) => true): number[] {
  const uses = new Map<number, number>();
  for (const link of links) uses.set(speedOf(link), (uses.get(speedOf(link)) ?? 0) + (counted(link) ? 1 : 0));
  return [...uses.keys()].sort((a, b) => uses.get(b)! - uses.get(a)! || b - a);
}

/**
 * Operational key of a member: those of unlike speed get keys of their own, so that they never join (802.1AX-2014 clause
 * 6.3.5). The speed that most members have, counted in full duplex, keeps the key of the bundle. 1 to 65535.
 */
export function operationalKey(
  key: number,
  members: readonly { readonly speed: number; readonly half: boolean }[],
  speed: number,
): number {
  const speeds = speedsByUse(
    members,
    (m) => m.speed,
    (m) => !m.half,
  );
  return ((key + speeds.indexOf(speed) * 4096 - 1) % 65535) + 1;
}

/** Fewest members of a bundle that are enough where each carries `speed` Mb/s: by number, and by the Mb/s that they have together. */
export const fewestMembers = (minActive: number, minRate: number, speed: number): number =>
  Math.max(minActive, speed > 0 ? Math.ceil(minRate / speed) : 1);
