/** A thread of a sweep: looks at the failures of one chunk after another, mostly of one design. */
import { failuresIn, sweepBase, toldIn } from '../../core/review';
import type { Chunk, Failure, SweepBase } from '../../core/review';
import type { Design } from '../../core/design';
import { solveDesign } from '../../core/trees';

export interface Task {
  /** What the text of the design is known by. */
  readonly key: string;
  readonly text: string;
  readonly chunk: Chunk;
  /** Pairs without any consequence as well. */
  readonly all: boolean;
}

let known: { readonly key: string; readonly base: SweepBase } | null = null;

export default function look({ key, text, chunk, all }: Task): Failure[] {
  if (known?.key !== key) known = { key, base: sweepBase(solveDesign(JSON.parse(text) as Design)) };
  return all ? [...failuresIn(known.base, chunk)] : [...toldIn(known.base, chunk)].filter((f) => f !== null);
}
