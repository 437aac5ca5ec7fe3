import { vlanTreeId } from '../core/standard';
import { solutionOf } from '../core/formats';
import type { SolutionTree } from '../core/formats';
import { explainTree, solveDesign } from '../core/trees';
import { complain, readDesignFile } from './files';

/** Columns padded to their widest cell. */
function table(rows: readonly (readonly string[])[]): string {
  const widths = rows[0]!.map((_, c) => Math.max(...rows.map((r) => r[c]!.length)));
  return rows
    .map((row) =>
      row
        .map((cell, c) => cell.padEnd(widths[c]!))
        .join('  ')
        .trimEnd(),
    )
    .join('\n');
}

function printed(tree: SolutionTree, sentence: string): string {
  const switches = tree.switches.map((s) => [s.switch, s.bridgeId, `${s.rootPathCost}`, s.rootPort ?? 'root']);
  const ports = tree.ports.map((p) => [
    p.switch,
    p.port,
    p.role,
    p.state,
    `${p.cost}`,
    p.designatedSwitch === null ? '-' : `${p.designatedSwitch} ${p.designatedPort}`,
  ]);
  return [
    `Tree ${tree.id}: ${sentence}`,
    '',
    table([['switch', 'bridge identifier', 'root path cost', 'root port'], ...switches]),
    '',
    table([['switch', 'port', 'role', 'state', 'cost', 'designated'], ...ports]),
    '',
    '',
  ].join('\n');
}

/** Every tree, or one: as JSON for programs or as tables for people. Written tree by tree, however many there are. */
export async function solve(file: string, options: { tree?: string; json?: boolean }): Promise<number> {
  const design = await readDesignFile(file);
  if (!design) return 1;
  const solved = solveDesign(design);
  const wanted = options.tree === undefined ? null : [options.tree, vlanTreeId(Number(options.tree))];
  const trees = wanted ? solved.trees.filter(({ tree }) => wanted.includes(tree.id)) : solved.trees;
  if (trees.length === 0 && wanted) {
    complain(
      `${file}: there is no tree '${options.tree}': the design has ${solved.trees.map(({ tree }) => tree.id).join(', ')}.`,
    );
    return 1;
  }
  if (options.json) process.stdout.write('{"trees":[');
  for (const [i, of] of trees.entries()) {
    const tree = solutionOf(solved, of);
    const text = options.json
      ? `${i > 0 ? ',' : ''}${JSON.stringify(tree)}`
      : printed(tree, explainTree(solved, of).sentence);
    if (!process.stdout.write(text)) await new Promise((resolve) => process.stdout.once('drain', resolve));
  }
  if (options.json) process.stdout.write(']}\n');
  return 0;
}
