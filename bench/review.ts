/** Figures of the review: failures taken on from the design as it is, side by side with the same ones solved from scratch. */
import { applyEdits, setField } from '../src/core/design';
import { failureOf, findingsOf, missingCables, sweepBase, toldFailure } from '../src/core/review';
import type { Element, SweepBase } from '../src/core/review';
import { solveDesign } from '../src/core/trees';
import { campus } from '../src/demo/campus';
import { sweep } from '../src/server/sweep/sweep';
import type { Row } from './core';

const timed = (run: () => unknown): number => {
  const began = performance.now();
  run();
  return performance.now() - began;
};

/** Failures in turn, one way and the other, so that both have the same machine. */
function both(base: SweepBase, failures: readonly (readonly Element[])[]): { taken: number[]; scratch: number[] } {
  const [taken, scratch]: [number[], number[]] = [[], []];
  for (const elements of failures) {
    taken.push(timed(() => failureOf(base, elements)));
    scratch.push(timed(() => failureOf(base, elements, true)));
  }
  return { taken, scratch };
}

function row(what: string, size: string, times: readonly number[], aim = ''): Row {
  const sorted = [...times].sort((a, b) => a - b);
  return { what, size, medianMs: sorted[sorted.length >> 1]!, worstMs: sorted.at(-1)!, runs: times.length, aim };
}
const sum = (times: readonly number[]) => times.reduce((a, b) => a + b, 0);

/** Pairs in the order of a sweep: one thing with others, then the next with them. */
function somePairs(elements: readonly Element[], rows: number, columns: number): Element[][] {
  const at = (i: number, of: number) => Math.floor((i * elements.length) / of);
  return Array.from({ length: rows }, (_, r) => elements[at(r, rows)]!).flatMap((a) =>
    Array.from({ length: columns }, (_, c) => elements[at(c, columns)]!).flatMap((b) => (a === b ? [] : [[a, b]])),
  );
}

/** All single failures after an edit of one tree: with what is known of the others, and without. */
function afterEdit(base: SweepBase, size: string): Row[] {
  const { design } = base.solved.topology;
  const [first] = design.vlans;
  const applied = applyEdits(design, [
    setField('switch', design.switches.at(-1)!.id, `vlanPriority.${first!.number}`, 4096),
  ]);
  if (!applied.ok) throw new Error('the edit did not fit');
  const solved = solveDesign(applied.design, base.solved);
  const all = (own: SweepBase) => timed(() => own.elements.forEach((e) => failureOf(own, [e])));
  return [
    row('all single failures after an edit of one tree', size, [all(sweepBase(solved, base))]),
    row('the same as if nothing were known of the others', size, [all(sweepBase(solved))]),
  ];
}

/** A whole sweep in threads, one a core, their start included. */
async function inThreads(base: SweepBase, pairs: boolean): Promise<number> {
  const began = performance.now();
  let found = 0;
  for await (const { failures } of sweep(base, { pairs, all: false })) found += failures.length;
  if (found === 0) throw new Error('no failure was found');
  return performance.now() - began;
}

async function rowsOf(
  switches: number,
  outcomes: number,
  [rows, columns]: readonly [number, number],
  aims: readonly [string, string],
): Promise<Row[]> {
  const design = campus({ switches, vlans: outcomes, outcomes });
  const solved = solveDesign(design);
  const base = sweepBase(solved);
  const all = (base.elements.length * (base.elements.length - 1)) / 2;
  for (const e of base.elements.slice(0, 20)) failureOf(base, [e]);
  const size = `${switches} switches, ${design.links.length} links, ${outcomes} trees`;
  const few = base.elements.length > 400 ? base.elements.filter((_, i) => i % 20 === 0) : base.elements;
  const singles = both(
    base,
    few.map((e) => [e]),
  );
  // A sweep has seen all single failures before it comes to pairs.
  for (const e of base.elements) failureOf(base, [e]);
  // As a sweep does, which tells those that do harm, one after another: solving from scratch in between would take the memory that a row leaves to the next pair.
  const pairs = somePairs(base.elements, rows, columns);
  const two = {
    taken: pairs.map((p) => timed(() => toldFailure(base, p))),
    scratch: pairs.filter((_, i) => i % 13 === 0).map((p) => timed(() => failureOf(base, p, true))),
  };
  const whole = row(
    `${switches > 100 ? 'all single failures' : 'all pairs'}, in threads`,
    size,
    [await inThreads(base, switches <= 100)],
    '5 s',
  );
  const per = (times: readonly number[], of: number) =>
    `${(((sum(times) / times.length) * of) / 1000).toFixed(1)} s in all`;
  return [
    row('findings', size, [timed(() => findingsOf(solved))]),
    row('missing cables', size, [timed(() => missingCables(solved))]),
    row(`single failures, ${per(singles.taken, base.elements.length)}`, size, singles.taken, aims[0]),
    row(`the same from scratch, ${per(singles.scratch, base.elements.length)}`, size, singles.scratch),
    row(`pairs of failures, ${per(two.taken, all)}`, size, two.taken, aims[1]),
    row(`the same from scratch, ${per(two.scratch, all)}`, size, two.scratch),
    ...afterEdit(base, size),
    whole,
  ];
}

export const reviewRows = async (): Promise<Row[]> => [
  ...(await rowsOf(60, 30, [25, 95], ['', '5 s in all'])),
  ...(await rowsOf(500, 40, [16, 202], ['5 s in all', '600 s in all'])),
];
