/**
 * Proposals for all goals: settings for those about the network as it is, and on top of them cables and settings for those about
 * what is left after any single failure. Each is proved by solving and sweeping the design that it leads to.
 */
import { applyEdits, isAvailability } from '../../design';
import type { Edit } from '../../design';
import { MOST_PROPOSALS, goalSentence, proposeSettings, prove, rank, withoutTwins } from '../../goals';
import type { CheckedGoal, Contradiction, Progress, Proposal, Proposals } from '../../goals';
import { goalMessages as say } from '../../messages';
import { solveDesign } from '../../trees';
import type { SolvedDesign } from '../../trees';
import { waysFrom } from './search';
import type { NewId } from './step';
import { editsOf, trialOf } from './trial';
import type { Trial } from './trial';

/** Proposals for the network as it is that are gone on from. */
const MOST_STARTS = 2;

/** Of edits that set the same field the last one. */
function lastOnes(edits: readonly Edit[]): Edit[] {
  const last = new Map<string, Edit>();
  for (const edit of edits) if (edit.type === 'set') last.set(`${edit.kind} ${edit.id} ${edit.field}`, edit);
  return edits.filter((e) => e.type !== 'set' || last.get(`${e.kind} ${e.id} ${e.field}`) === e);
}

const states = (list: readonly CheckedGoal[]) => new Map(list.map((c) => [c.goal.id, c.state]));

/** Edits as a proposal, with what they mean for goals of availability. */
function proveAll(before: Trial, edits: readonly Edit[], known?: Trial): Proposal | null {
  const proved = prove(before.solved, edits, before.present);
  if (!proved || before.availability.length === 0) return proved;
  const applied = applyEdits(before.solved.topology.design, edits);
  if (!applied.ok) return null;
  const { availability } = known ?? trialOf(solveDesign(applied.design, before.solved), [], before);
  const was = states(before.availability);
  const of = (now: CheckedGoal['state'], then: CheckedGoal['state']) =>
    availability.filter((c) => c.state === now && was.get(c.goal.id) === then);
  return {
    ...proved,
    meets: [...proved.meets, ...of('met', 'broken').map((c) => c.goal)],
    breaks: [...proved.breaks, ...of('broken', 'met')],
    leaves: [...proved.leaves, ...of('broken', 'broken')],
  };
}

const isWhole = (p: Proposal): boolean => p.breaks.length + p.leaves.length === 0;

/** Goals of availability that no proposal meets. */
function unmet(solved: SolvedDesign, proposals: readonly Proposal[], open: readonly CheckedGoal[]): Contradiction[] {
  const met = new Set(proposals.flatMap((p) => p.meets.map((g) => g.id)));
  return open
    .filter((c) => !met.has(c.goal.id))
    .map(({ goal, reason }) => {
      const goals = `“${goalSentence(solved.topology.design, goal).replace(/\.$/, '')}”`;
      return { goals: [goal], tree: '', certain: false, sentence: say['no-way-to-stay']({ goals, reason }) };
    });
}

/** What is known of the present goals is kept, and proposals for them are looked at with every failure as well. */
function settingsAlone(before: Trial, found: Proposals): Proposals {
  const proposals = found.proposals.flatMap((p) => proveAll(before, p.edits) ?? []).sort(rank);
  return { ...found, proposals };
}

/** Proposals that meet the broken goals of a solved design, best first; `onProgress` may throw to give up. */
export function propose(
  solved: SolvedDesign,
  newId: NewId,
  onProgress: (progress: Progress) => void = () => {},
): Proposals {
  const found = proposeSettings(solved, onProgress);
  if (!solved.topology.design.goals.some(isAvailability)) return found;
  const before = trialOf(solved, []);
  const open = before.availability.filter((c) => c.state === 'broken');
  if (open.length === 0) return settingsAlone(before, found);
  let [tried, done] = [found.tried, 0];
  const settings = found.proposals.slice(0, MOST_STARTS).map((p) => p.edits);
  const starts = settings.length > 0 ? settings : [[]];
  const tell = () => onProgress({ phase: 'availability', done, total: starts.length, tried });
  const counted = () => {
    tried++;
    tell();
  };
  tell();
  const proposals = starts.flatMap((edits): Proposal[] => {
    const applied = applyEdits(solved.topology.design, edits);
    if (!applied.ok) return [];
    const from = edits.length > 0 ? trialOf(solveDesign(applied.design, solved), [], before) : before;
    const ways = waysFrom(from, { tried: counted, newId });
    done++;
    tell();
    const plain = edits.length > 0 ? [from] : [];
    return [...ways, ...plain].flatMap(
      (way) => proveAll(before, lastOnes([...edits, ...editsOf(way.steps)]), way) ?? [],
    );
  });
  const ranked = withoutTwins(proposals.filter((p) => p.meets.length > 0).sort(rank));
  const whole = ranked.filter(isWhole);
  return {
    proposals: (whole.length > 0 ? whole : ranked).slice(0, MOST_PROPOSALS),
    contradictions: whole.length > 0 ? [] : [...found.contradictions, ...unmet(solved, ranked, open)],
    tried,
  };
}
