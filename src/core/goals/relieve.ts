/** Goals about load: trees are led away from links that carry too much, one setting after the other. */
import { applyEdits } from '../design';
import type { Edit } from '../design';
import { loadsOf } from '../analysis';
import { solveDesign } from '../trees';
import type { SolvedDesign, SolvedTree } from '../trees';
import { checkGoals, overloads } from './check';
import { farPort } from './evaluation';
import { Lab } from './trial';
import { optionsFor } from './moves';

const MOST_STEPS = 10;
const MOST_TREES = 4;
const MOST_OPTIONS = 6;

/** By how much links are over the limit, in percent points, added up; and how many other goals are broken. */
function strain(solved: SolvedDesign, percent: number): { over: number; broken: number } {
  const over = overloads(solved, loadsOf(solved), percent).reduce((sum, o) => sum + o.percent - percent, 0);
  const broken = checkGoals(solved).filter((c) => c.state === 'broken' && c.goal.type !== 'load').length;
  return { over, broken };
}

/** Settings that lead one tree away from a port, likely ones first. */
export function costOptions(solved: SolvedDesign, of: SolvedTree, port: number): Edit[][] {
  const lab = new Lab(solved, of);
  const want = { kind: 'carry', port, yes: false } as const;
  if (farPort(lab.base, port) < 0) return [];
  return optionsFor(lab, lab.base, want, [want]).map((option) => option.flatMap((move) => lab.edits(move)));
}

/** The edits, with further ones that bring loads under the limits of the goals where possible. */
export function relieve(solved: SolvedDesign, edits: readonly Edit[]): Edit[] {
  const { design } = solved.topology;
  const percent = Math.min(...design.goals.flatMap((g) => (g.type === 'load' ? [g.percent] : [])), Infinity);
  const all = [...edits];
  if (percent === Infinity || design.demands.length === 0) return all;
  const first = applyEdits(design, all);
  if (!first.ok) return all;
  let now = solveDesign(first.design, solved);
  let state = strain(now, percent);
  for (let step = 0; step < MOST_STEPS && state.over > 0; step++) {
    const loads = loadsOf(now);
    const [worst] = overloads(now, loads, percent);
    if (!worst) break;
    const trees = [...loads.byTree]
      .filter(([, out]) => out[worst.port]! > 0)
      .sort((a, b) => b[1][worst.port]! - a[1][worst.port]!)
      .slice(0, MOST_TREES);
    let best: { edits: Edit[]; solved: SolvedDesign; state: typeof state } | null = null;
    for (const [id] of trees) {
      for (const more of costOptions(now, now.byId.get(id)!, worst.port).slice(0, MOST_OPTIONS)) {
        const applied = applyEdits(now.topology.design, more);
        if (!applied.ok) continue;
        const next = solveDesign(applied.design, now);
        const after = strain(next, percent);
        if (after.broken > state.broken || after.over >= (best?.state ?? state).over) continue;
        best = { edits: more, solved: next, state: after };
      }
    }
    if (!best) break;
    all.push(...best.edits);
    now = best.solved;
    state = best.state;
  }
  return all;
}
