/** The two ends of a path that is asked for. */
import type { PlaceRef } from '../usePath';

export interface PlaceEnds {
  readonly from?: PlaceRef | null;
  readonly to?: PlaceRef | null;
}

export const PLACE_WORDS = [
  { hint: 'path from…', label: 'Path from' },
  { hint: 'to…', label: 'Path to' },
] as const;
