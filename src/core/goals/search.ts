/** The fewest settings of one tree that make all conditions on it hold: a best-first search over settings worth trying. */
import { COST_RANGE } from '../standard';
import type { SolvedDesign, SolvedTree } from '../trees';
import { breach } from './evaluation';
import type { Case } from './evaluation';
import { Lab, moveKey } from './trial';
import type { Move } from './trial';
import { optionsFor, stepsMissing } from './moves';
import type { Want } from './conditions';

/** Settings for one tree that meet its conditions, fewest first. */
export interface TreeAnswer {
  readonly of: SolvedTree;
  readonly lab: Lab;
  readonly moves: readonly Move[];
}

interface State {
  readonly moves: ReadonlyMap<string, Move>;
  readonly of: Case;
  readonly unmet: readonly Want[];
  readonly score: number;
}

export interface Effort {
  /** States kept of each round. */
  readonly width: number;
  /** Rounds at most. */
  readonly depth: number;
}

export const THOROUGH: Effort = { width: 28, depth: 9 };
export const QUICK: Effort = { width: 10, depth: 6 };
const MOST_ANSWERS = 4;
/** Conditions looked at in one state: the others get their turn later. */
const MOST_WANTS = 3;

/** How far a state is from meeting everything: conditions unmet, and for a path how many of its steps are missing. */
function distance(of: Case, unmet: readonly Want[]): number {
  return unmet.reduce((sum, want) => {
    if (want.kind !== 'path') return sum + 1;
    const missing = stepsMissing(of, want);
    return sum + 0.5 + Math.min(3, missing) * 0.5;
  }, 0);
}

function stateOf(lab: Lab, moves: ReadonlyMap<string, Move>, wants: readonly Want[]): State {
  const of = lab.try(moves.values());
  const unmet = wants.filter((want) => breach(of, want) !== null);
  return { moves, of, unmet, score: distance(of, unmet) * 2 + moves.size };
}

/** Drops every move that is not needed, the ones made first first. */
function trimmed(lab: Lab, state: State, wants: readonly Want[]): State {
  let best = state;
  for (const key of state.moves.keys()) {
    const fewer = new Map(best.moves);
    fewer.delete(key);
    const next = stateOf(lab, fewer, wants);
    if (next.unmet.length === 0) best = next;
  }
  return best;
}

/** The nearest 1, 2 or 5 with zeros, further on in the direction of the change: a cost that people would write. */
function roundCost(value: number, before: number): number {
  const steps = [1, 2, 5, 10].map((d) => d * 10 ** Math.floor(Math.log10(Math.max(1, value))));
  const fitting = value > before ? steps.filter((s) => s >= value) : steps.filter((s) => s <= value);
  return (value > before ? Math.min(...fitting) : Math.max(...fitting, 1)) || value;
}

/** The same answer with round costs where everything still holds. */
function rounded(lab: Lab, state: State, wants: readonly Want[]): State {
  let best = state;
  for (const [key, move] of state.moves) {
    if (move.field !== 'portCost') continue;
    const value = roundCost(move.value, lab.cost(lab.base, move.index));
    const { design, portBridge } = lab.of.topology;
    const scale = design.switches[portBridge[move.index]!]!.costScale ?? design.costScale;
    if (value === move.value || value > COST_RANGE[scale].max) continue;
    const next = stateOf(lab, new Map(best.moves).set(key, { ...move, value }), wants);
    if (next.unmet.length === 0) best = next;
  }
  return best;
}

const textOf = (moves: ReadonlyMap<string, Move>) =>
  [...moves.values()]
    .map((m) => `${moveKey(m)}=${m.value}`)
    .sort()
    .join(';');

/**
 * Answers for one tree, best first; none when nothing was found. `onState` is called for every state tried and may
 * throw to give up.
 */
export function searchTree(
  solved: SolvedDesign,
  tree: SolvedTree,
  wants: readonly Want[],
  effort: Effort = THOROUGH,
  onState: () => void = () => {},
): TreeAnswer[] {
  const lab = new Lab(solved, tree);
  const start = stateOf(lab, new Map(), wants);
  if (start.unmet.length === 0) return [{ of: tree, lab, moves: [] }];
  const seen = new Set<string>(['']);
  const answers = new Map<string, State>();
  let open: State[] = [start];
  let fewest = Infinity;
  for (let round = 0; round < effort.depth && open.length > 0; round++) {
    const next: State[] = [];
    for (const state of open)
      for (const want of state.unmet.slice(0, MOST_WANTS))
        for (const option of optionsFor(lab, state.of, want, wants)) {
          const moves = new Map(state.moves);
          for (const move of option) moves.set(moveKey(move), move);
          if (moves.size >= fewest + 2) continue;
          const key = textOf(moves);
          if (seen.has(key)) continue;
          seen.add(key);
          onState();
          const found = stateOf(lab, moves, wants);
          if (found.unmet.length > 0) {
            next.push(found);
            continue;
          }
          const answer = rounded(lab, trimmed(lab, found, wants), wants);
          fewest = Math.min(fewest, answer.moves.size);
          const same = [...answer.moves.keys()].sort().join(';');
          if (!answers.has(same)) answers.set(same, answer);
        }
    if (answers.size >= MOST_ANSWERS || (answers.size > 0 && round >= fewest)) break;
    next.sort((a, b) => a.score - b.score);
    open = next.slice(0, effort.width);
  }
  return [...answers.values()]
    .sort((a, b) => a.moves.size - b.moves.size)
    .slice(0, MOST_ANSWERS)
    .map(({ moves }) => ({ of: tree, lab, moves: [...moves.values()] }));
}
