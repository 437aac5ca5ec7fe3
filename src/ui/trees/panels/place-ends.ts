/** The two ends of a path that is asked for. */
import type { PlaceRef } from '../usePath';

export interface PlaceEnds {
  readonly from?: PlaceRef | null;
  readonly to?: PlaceRef | null;
}

export interface FieldsProps extends PlaceEnds {
  /** How many times a path was asked for: each time the first field is gone to. */
  readonly asked: number;
}

export const PLACE_WORDS = [
  { hint: 'path from…', label: 'Path from' },
  { hint: 'to…', label: 'Path to' },
] as const;
