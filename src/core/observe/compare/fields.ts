/** Fields of one thing, as designed and as observed. */
import type { Difference } from './difference';

export type Pair = readonly [field: string, designed: unknown, observed: unknown];

const words = (value: unknown): string | null => (value === null || value === undefined ? null : String(value));

/** Differences of fields; what was not observed is no difference, and told in `not-observed` once a device. */
export function differing(
  device: string,
  pairs: readonly Pair[],
  of: { switch: string; element: string | null; kind: Difference['kind'] },
): Difference[] {
  return pairs.flatMap(([field, designed, observed]): Difference[] => {
    if (observed === undefined || observed === null || String(designed) === String(observed)) return [];
    return [{ device, field, designed: words(designed), observed: words(observed), verdict: 'differs', ...of }];
  });
}
