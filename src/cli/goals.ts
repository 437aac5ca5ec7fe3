import { nanoid } from 'nanoid';
import { checkGoals, goalSentence, proposalWords } from '../core/goals';
import type { Proposal } from '../core/goals';
import { editListWords, isAvailability } from '../core/design';
import type { Design } from '../core/design';
import { byWorst, checkAvailability, propose as proposals, singleFailures, sweepBase } from '../core/review';
import { solveDesign } from '../core/trees';
import { readDesignFile } from './files';

/** All goals in the order of the design; those of availability by all single failures. */
function allGoals(design: Design) {
  const solved = solveDesign(design);
  const checked = checkGoals(solved);
  if (!design.goals.some(isAvailability)) return checked;
  const base = sweepBase(solved);
  const all = [...checked, ...checkAvailability(base, [...singleFailures(base)].sort(byWorst))];
  return design.goals.map(({ id }) => all.find((c) => c.goal.id === id)!);
}

/** Each goal met, broken or void; status 1 when one is broken. */
export async function goals(file: string, options: { json?: boolean }): Promise<number> {
  const design = await readDesignFile(file);
  if (!design) return 1;
  const checked = allGoals(design);
  const rows = checked.map(({ goal, state, reason, trees }) => ({
    id: goal.id,
    goal: goalSentence(design, goal),
    state,
    reason,
    trees,
  }));
  if (options.json) process.stdout.write(`${JSON.stringify({ goals: rows })}\n`);
  else if (rows.length === 0) process.stdout.write('The design has no goals.\n');
  else for (const r of rows) process.stdout.write(`${r.state.padEnd(6)}  ${r.goal}${r.reason ? ` ${r.reason}` : ''}\n`);
  return rows.some((r) => r.state === 'broken') ? 1 : 0;
}

const plain = (design: Design, p: Proposal) => ({
  cables: p.cables,
  settings: p.settings,
  devices: p.devices,
  edits: p.edits,
  words: editListWords(design, p.edits),
  moved: p.moved,
  movedBesides: p.movedBesides,
  meets: p.meets.map((g) => g.id),
  breaks: p.breaks.map((c) => c.goal.id),
  leaves: p.leaves.map((c) => c.goal.id),
});

/** Proposals that meet the broken goals; status 1 when goals are broken and no proposal meets them all. */
export async function propose(file: string, options: { json?: boolean }): Promise<number> {
  const design = await readDesignFile(file);
  if (!design) return 1;
  const broken = allGoals(design).filter((c) => c.state === 'broken').length;
  const found = proposals(solveDesign(design), (prefix) => `${prefix}-${nanoid(8)}`);
  const whole = found.proposals.some((p) => p.breaks.length + p.leaves.length === 0);
  if (options.json)
    process.stdout.write(
      `${JSON.stringify({
        broken,
        proposals: found.proposals.map((p) => plain(design, p)),
        contradictions: found.contradictions.map((c) => ({ goals: c.goals.map((g) => g.id), sentence: c.sentence })),
      })}\n`,
    );
  else {
    if (broken === 0) process.stdout.write('No goal is broken: nothing has to change.\n');
    for (const c of found.contradictions) process.stdout.write(`${c.sentence}\n`);
    found.proposals.forEach((p, i) => {
      process.stdout.write(`Proposal ${i + 1}: ${proposalWords(p)}\n`);
      for (const words of editListWords(design, p.edits)) process.stdout.write(`  ${words}\n`);
      for (const b of p.breaks) process.stdout.write(`  breaks: ${goalSentence(design, b.goal)}\n`);
      for (const b of p.leaves) process.stdout.write(`  leaves broken: ${goalSentence(design, b.goal)}\n`);
    });
  }
  return broken > 0 && !whole ? 1 : 0;
}
