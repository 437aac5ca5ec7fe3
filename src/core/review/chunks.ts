/** All failures of a sweep by number, so that it can be spread over threads and machines: singles first, then pairs. */
import type { SweepBase } from './after';
import type { Element } from './elements';
import { failureOf, toldFailure } from './sweep';
import type { Failure } from './sweep';

/** Failures from one number up to another, that one left out. */
export interface Chunk {
  readonly from: number;
  readonly to: number;
}

/** Pairs that there are, at most: those of which one fails with the other anyway are among them. */
export const pairCount = ({ elements }: SweepBase): number => (elements.length * (elements.length - 1)) / 2;

/** Failures that there are to look at, singles and, where asked, pairs. */
export const failureCount = (base: SweepBase, pairs: boolean): number =>
  base.elements.length + (pairs ? pairCount(base) : 0);

/** Whether one of two elements fails with the other anyway. */
function within(a: Element, b: Element): boolean {
  const all = (part: Element, whole: Element) =>
    part.links.every((l) => whole.links.includes(l)) &&
    part.switches.every((s) => whole.switches.includes(s)) &&
    part.segments.every((s) => whole.segments.includes(s));
  return all(a, b) || all(b, a);
}

/** What fails in a chunk, in turn; a part of a whole that fails with it makes no pair. */
function* elementsIn({ elements }: SweepBase, { from, to }: Chunk): Generator<readonly Element[]> {
  const count = elements.length;
  for (let n = from; n < Math.min(to, count); n++) yield [elements[n]!];
  let left = to - Math.max(from, count);
  if (left <= 0) return;
  // Pairs stand row by row: the first with all that follow it, then the second, and so on.
  let i = 0;
  let skip = Math.max(0, from - count);
  while (i < count - 1 && skip >= count - 1 - i) skip -= count - 1 - i++;
  let j = i + 1 + skip;
  for (; left > 0 && i < count - 1; left--) {
    if (!within(elements[i]!, elements[j]!)) yield [elements[i]!, elements[j]!];
    if (++j === count) j = ++i + 1;
  }
}

/** The failures of a chunk, as they are found. */
export function* failuresIn(base: SweepBase, chunk: Chunk): Generator<Failure> {
  for (const elements of elementsIn(base, chunk)) yield failureOf(base, elements);
}

/** The same with null for each pair that does no harm. */
export function* toldIn(base: SweepBase, chunk: Chunk): Generator<Failure | null> {
  for (const elements of elementsIn(base, chunk)) yield toldFailure(base, elements);
}

/** Every single failure, as it is found. */
export const singleFailures = (base: SweepBase): Generator<Failure> =>
  failuresIn(base, { from: 0, to: base.elements.length });

/** Every pair of failures, as it is found. */
export const pairFailures = (base: SweepBase): Generator<Failure> =>
  failuresIn(base, { from: base.elements.length, to: failureCount(base, true) });

/** Failures of a chunk: few enough that a sweep can be stopped, and is seen to go on. */
const CHUNK = 250;

/** A sweep cut up. */
export function* chunksOf(count: number, size = CHUNK): Generator<Chunk> {
  for (let from = 0; from < count; from += size) yield { from, to: Math.min(count, from + size) };
}
