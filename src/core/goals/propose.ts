/**
 * The smallest change that meets every broken goal: settings of each tree are searched for by themselves, put
 * together, made common where one setting can stand for many, and proved by solving the changed design again.
 */
import { applyEdits, bundleById, groupBy, linkById, portById, workIn } from '../design';
import type { Design, Edit, Goal } from '../design';
import { movedBetween, solveDesign } from '../trees';
import type { MovedTree, SolvedDesign, SolvedTree } from '../trees';
import { checkGoals } from './check';
import type { CheckedGoal } from './check';
import { commonEdits } from './shared-settings';
import { contradictions } from './conflicts';
import type { Contradiction } from './conflicts';
import { relieve } from './relieve';
import { THOROUGH, searchTree } from './search';
import type { TreeAnswer } from './search';
import { wantsOf } from './conditions';
import type { Want } from './conditions';

export interface Proposal {
  readonly edits: readonly Edit[];
  /** New cables, settings touched, and switches that both are at. */
  readonly cables: number;
  readonly settings: number;
  readonly devices: number;
  /** Trees that the goals do not speak of and that move all the same. */
  readonly movedBesides: readonly string[];
  readonly moved: readonly MovedTree[];
  /** Goals that it meets, that were met before and are broken by it, and that stay broken. */
  readonly meets: readonly Goal[];
  readonly breaks: readonly CheckedGoal[];
  readonly leaves: readonly CheckedGoal[];
}

export interface Proposals {
  readonly proposals: readonly Proposal[];
  /** Goals that cannot be met together, or not at all, where no proposal meets everything. */
  readonly contradictions: readonly Contradiction[];
  readonly tried: number;
}

export interface Progress {
  /** Trees with their settings, or goals of availability with all single failures. */
  readonly phase: 'trees' | 'availability';
  readonly done: number;
  readonly total: number;
  readonly tried: number;
}

/** Conditions on each tree by all goals that are not void. */
export function wantsByTree(
  solved: SolvedDesign,
  goals: readonly Goal[],
): Map<SolvedTree, { want: Want; goal: Goal }[]> {
  const found = new Map<SolvedTree, { want: Want; goal: Goal }[]>();
  for (const goal of goals) {
    const wanted = wantsOf(solved, goal);
    if (wanted.void !== null) continue;
    for (const { tree, want } of wanted.wants) {
      const list = found.get(tree);
      if (list) list.push({ want, goal });
      else found.set(tree, [{ want, goal }]);
    }
  }
  return found;
}

/** Switches that a list of edits sets something at or plugs a cable into; `after`: the design with them. */
export function devicesOf(after: Design, edits: readonly Edit[]): Set<string> {
  const at = (id: string) => (portById(after, id) ?? bundleById(after, id))?.switch ?? [];
  return new Set(
    edits.flatMap((edit) => {
      if (edit.type === 'settings') return after.switches.flatMap((s) => (s.protocol ? [] : [s.id]));
      const id = edit.type === 'add' ? edit.value.id : edit.id;
      if (edit.kind === 'switch') return [id];
      if (edit.kind !== 'link') return at(id);
      const link = linkById(after, id);
      return link ? [link.a, link.b].flatMap((end) => ('port' in end ? at(end.port) : [])) : [];
    }),
  );
}

/** A list of edits as a proposal, proved by solving the design it leads to; null when it cannot be applied. */
export function prove(solved: SolvedDesign, edits: readonly Edit[], before: readonly CheckedGoal[]): Proposal | null {
  const applied = applyEdits(solved.topology.design, edits);
  if (!applied.ok) return null;
  const after = solveDesign(applied.design, solved);
  const now = checkGoals(after);
  const was = new Map(before.map((c) => [c.goal.id, c.state]));
  const moved = movedBetween(solved, after).filter((m) => m.ports.length > 0 || m.rootBefore !== m.rootAfter);
  const spoken = new Set(
    [
      ...wantsByTree(
        solved,
        before.map((c) => c.goal),
      ),
    ].flatMap(([of]) => of.tree.id),
  );
  return {
    edits,
    ...workIn(edits),
    devices: devicesOf(applied.design, edits).size,
    moved,
    movedBesides: moved.map((m) => m.tree).filter((tree) => !spoken.has(tree)),
    meets: now.filter((c) => c.state === 'met' && was.get(c.goal.id) === 'broken').map((c) => c.goal),
    breaks: now.filter((c) => c.state === 'broken' && was.get(c.goal.id) === 'met'),
    leaves: now.filter((c) => c.state === 'broken' && was.get(c.goal.id) === 'broken'),
  };
}

/** Fewest goals left or broken, then cables, settings, then devices, then other trees that move. */
export function rank(a: Proposal, b: Proposal): number {
  const open = (p: Proposal) => p.breaks.length * 2 + p.leaves.length;
  return (
    open(a) - open(b) ||
    a.cables - b.cables ||
    a.settings - b.settings ||
    a.devices - b.devices ||
    a.movedBesides.length - b.movedBesides.length ||
    a.moved.length - b.moved.length
  );
}

export const MOST_PROPOSALS = 4;

/** Answers put together: the best of each tree, and for each tree its other answers in turn. */
function combinations(answers: readonly (readonly TreeAnswer[])[]): TreeAnswer[][] {
  const best = answers.map((list) => list[0]!);
  const others = answers.flatMap((list, i) =>
    list.slice(1).map((other) => best.map((answer, j) => (i === j ? other : answer))),
  );
  return [best, ...others].slice(0, 12);
}

/** The answers found for each tree, and the trees for which there is none. */
interface Searched {
  readonly answers: readonly TreeAnswer[][];
  readonly stuck: readonly SolvedTree[];
  readonly tried: number;
}

/** Searches tree by tree. Trees alike in problem and conditions have alike answers: they are searched once. */
function searchTrees(
  solved: SolvedDesign,
  todo: readonly (readonly [SolvedTree, readonly { want: Want }[]])[],
  onProgress: (progress: Progress) => void,
): Searched {
  let tried = 0;
  let done = 0;
  const answers: TreeAnswer[][] = [];
  const stuck: SolvedTree[] = [];
  const classes = groupBy(todo, ([of, list]) => `${of.fold} ${JSON.stringify(list.map((l) => l.want))}`);
  const counted = () => {
    if (++tried % 64 === 0) onProgress({ phase: 'trees', done, total: classes.size, tried });
  };
  for (const group of classes.values()) {
    const [of, list] = group[0]!;
    const found = searchTree(
      solved,
      of,
      list.map((l) => l.want),
      THOROUGH,
      counted,
    );
    for (const [twin, theirs] of group) {
      const wants = theirs.map((l) => l.want);
      const own = twin === of ? found : found.length === 0 ? [] : searchTree(solved, twin, wants);
      if (own.length > 0) answers.push(own);
      else stuck.push(twin);
    }
    onProgress({ phase: 'trees', done: ++done, total: classes.size, tried });
  }
  return { answers, stuck, tried };
}

/** What edits amount to, whatever ids and ports new things have. */
function meaning(edits: readonly Edit[]): string {
  const made = new Map<string, string>();
  for (const e of edits)
    if (e.type === 'add' && e.kind === 'port') made.set(e.value.id, `new at ${String(e.value.switch)}`);
  const text = (edit: Edit): string =>
    JSON.stringify(edit, (key, value: unknown) =>
      key === 'id' && edit.type === 'add' ? undefined : typeof value === 'string' ? (made.get(value) ?? value) : value,
    );
  return edits
    .filter((e) => e.type !== 'add' || e.kind !== 'port')
    .map(text)
    .sort()
    .join();
}

/** Proposals that amount to the same are one. */
export function withoutTwins(proposals: readonly Proposal[]): Proposal[] {
  const seen = new Set<string>();
  return proposals.filter(({ edits }) => {
    const key = meaning(edits);
    return seen.has(key) ? false : seen.add(key);
  });
}

/**
 * Settings that meet the broken goals of a solved design about the network as it is, best first. Every one is proved; what it would break or
 * leave broken is said. `onProgress` is called as trees are done, and may throw to give up.
 */
export function proposeSettings(solved: SolvedDesign, onProgress: (progress: Progress) => void = () => {}): Proposals {
  const before = checkGoals(solved);
  const broken = before.filter((c) => c.state === 'broken');
  if (broken.length === 0) return { proposals: [], contradictions: [], tried: 0 };
  const asked = wantsByTree(
    solved,
    before.filter((c) => c.state !== 'void').map((c) => c.goal),
  );
  const spoilt = new Set(broken.flatMap((c) => c.trees));
  const todo = [...asked].filter(([of]) => spoilt.has(of.tree.id) && broken.some((c) => c.goal.type !== 'load'));
  const { answers, stuck, tried } = searchTrees(solved, todo, onProgress);
  const lists = answers.length > 0 ? combinations(answers) : [[]];
  const candidates = lists.flatMap((answer) => [
    answer.flatMap(({ lab, moves }) => moves.flatMap((move) => lab.edits(move))),
    commonEdits(solved, answer),
  ]);
  const proved = candidates.flatMap((edits) => {
    const relieved = relieve(solved, edits);
    return relieved.length === 0 ? [] : (prove(solved, relieved, before) ?? []);
  });
  const proposals = withoutTwins(proved.filter((p) => p.meets.length > 0).sort(rank));
  const whole = proposals.filter((p) => p.breaks.length + p.leaves.length === 0);
  return {
    proposals: (whole.length > 0 ? whole : proposals).slice(0, MOST_PROPOSALS),
    contradictions: whole.length > 0 ? [] : contradictions(solved, broken, stuck, asked),
    tried,
  };
}
