/** A part of a priority vector, as the explanation of a frame shows it. */
import type { Vector } from '../standard';

export interface WhyCell {
  readonly text: string;
  /** Where the text is cut short: the whole. */
  readonly full: string;
  /** As its octets are, where that differs. */
  readonly hex?: string;
}

/** A part of a vector as it is shown: its name, the fields that make it, and how they are written. */
export interface Part {
  readonly head: string;
  /** In a sentence: `its root path cost`. */
  readonly words: string;
  readonly of: (v: Vector) => readonly number[];
  readonly write: (v: Vector) => WhyCell;
}
