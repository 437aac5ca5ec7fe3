import { differenceBetween, editWords } from '../core/design';
import type { Design, Edit } from '../core/design';
import { movedBetween, solveDesign } from '../core/trees';
import { readDesignFile } from './files';
import { count } from '../core/standard';

/** In which of the two designs an edit's subject has a name: what goes is named by the first. */
const words = (from: Design, to: Design, edit: Edit) => editWords(edit.type === 'remove' ? from : to, edit);

/** What leads from one design to another, and what it moves; status 0 when they are alike, 1 when they differ, 2 when one cannot be read. */
export async function diff(a: string, b: string, options: { json?: boolean }): Promise<number> {
  const [from, to] = [await readDesignFile(a), await readDesignFile(b)];
  if (!from || !to) return 2;
  const edits = differenceBetween(from, to);
  const [before, after] = [solveDesign(from), solveDesign(to)];
  const moved = movedBetween(before, after);
  const trees = {
    gone: before.trees.flatMap(({ tree }) => (after.byId.has(tree.id) ? [] : [tree.id])),
    come: after.trees.flatMap(({ tree }) => (before.byId.has(tree.id) ? [] : [tree.id])),
  };
  if (options.json) {
    process.stdout.write(
      `${JSON.stringify({ edits, words: edits.map((e) => words(from, to, e)), moved, ...trees })}\n`,
    );
    return edits.length > 0 ? 1 : 0;
  }
  if (edits.length === 0) process.stdout.write('The designs are the same.\n');
  for (const edit of edits) process.stdout.write(`${words(from, to, edit)}\n`);
  const name = (id: string | null) => to.switches.find((s) => s.id === id)?.name ?? id ?? 'none';
  for (const m of moved) {
    const root = m.rootBefore === m.rootAfter ? '' : ` root ${name(m.rootBefore)} → ${name(m.rootAfter)},`;
    process.stdout.write(
      `tree ${m.tree}:${root} ${count(m.ports.length, 'port')} ${m.ports.length === 1 ? 'changes its' : 'change their'} role\n`,
    );
    if (m.cutOff.length > 0) process.stdout.write(`  cut off: ${m.cutOff.map(name).join(', ')}\n`);
  }
  if (trees.gone.length > 0) process.stdout.write(`trees only in ${a}: ${trees.gone.join(', ')}\n`);
  if (trees.come.length > 0) process.stdout.write(`trees only in ${b}: ${trees.come.join(', ')}\n`);
  return edits.length > 0 ? 1 : 0;
}
