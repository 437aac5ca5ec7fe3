/** Settings that several trees ask for alike, made once for all trees where nothing else minds. */
import { applyEdits, bundleById, groupBy, portById, setBridgePriority, setPortCost, setPortPriority } from '../design';
import type { Edit } from '../design';
import { solveDesign } from '../trees';
import type { SolvedDesign } from '../trees';
import { checkGoals } from './check';
import { moveKey } from './trial';
import type { Move } from './trial';
import type { TreeAnswer } from './search';

function generalEdits(solved: SolvedDesign, { field, index, value }: Move): Edit[] {
  const { design } = solved.topology;
  if (field === 'bridgePriority') return setBridgePriority(design.switches[index]!, 'all', value);
  const { id } = solved.topology.ports[index]!.element;
  const bundle = bundleById(design, id);
  const [kind, element] = bundle ? (['bundle', bundle] as const) : (['port', portById(design, id)!] as const);
  return field === 'portCost' ? setPortCost(kind, element, 'all', value) : setPortPriority(kind, element, 'all', value);
}

/** Whether all goals that single settings would meet are met by a list of edits as well. */
function brokenAfter(solved: SolvedDesign, edits: readonly Edit[]): number {
  const applied = applyEdits(solved.topology.design, edits);
  if (!applied.ok) return Infinity;
  return checkGoals(solveDesign(applied.design, solved)).filter((c) => c.state === 'broken').length;
}

/** The edits of the answers with every group of equal moves replaced by one for all trees, where that is as good. */
export function commonEdits(solved: SolvedDesign, answers: readonly TreeAnswer[]): Edit[] {
  const all = answers.flatMap(({ lab, moves }) => moves.map((move) => ({ lab, move })));
  const groups = [...groupBy(all, ({ move }) => `${moveKey(move)}=${move.value}`).values()];
  const single = groups.map((group) => group.flatMap(({ lab, move }) => lab.edits(move)));
  const chosen = [...single];
  const now = () => chosen.flat();
  let broken = brokenAfter(solved, now());
  groups.forEach((group, i) => {
    const general = generalEdits(solved, group[0]!.move);
    if (group.length < 2 || general.length >= chosen[i]!.length) return;
    chosen[i] = general;
    const after = brokenAfter(solved, now());
    if (after > broken) chosen[i] = single[i]!;
    else broken = after;
  });
  return now();
}
