/** Every tree against every link: where each tree runs, where it is cut, and which links idle. */
import { groupBy } from '../design';
import { ROLE, forwardsRole } from '../trees';
import type { SolvedDesign, SolvedTree, Topology } from '../trees';
import type { Loads } from './load';
import { portsOnLan } from '../network';

export const CELL = { out: 0, carries: 1, blockedA: 2, blockedB: 3, half: 4, down: 5 } as const;
export const CELL_WORDS = [
  'not in the tree',
  'forwards',
  'blocked',
  'blocked',
  'forwards at one end only',
  'down',
] as const;

export interface WeaveColumn {
  /** Logical ports at the two ends; a shared LAN has a column for each port but the first, towards the first. */
  readonly a: number;
  readonly b: number;
  readonly rate: number;
  /** Trees that it carries, that take part in it. */
  readonly carried: number;
  readonly taking: number;
  readonly vlans: number;
  /** Mb/s the busier way, and its share of the rate in percent. */
  readonly load: number;
  readonly percent: number;
}

export interface LinkUseRow {
  readonly trees: readonly SolvedTree[];
  /** Index into CELL by column. */
  readonly cells: Uint8Array;
}

export interface LinkUse {
  readonly columns: readonly WeaveColumn[];
  readonly rows: readonly LinkUseRow[];
  /** Columns that are cut in every tree that could use them, and those that carry every tree there is. */
  readonly idle: readonly number[];
  readonly everything: readonly number[];
}

/** Pairs of ports that a link, a bundle or a shared LAN joins, in the order of the design. */
function joints(topology: Topology): { a: number; b: number }[] {
  const { lanCount, portBridge } = topology;
  const pairs: { a: number; b: number }[] = [];
  for (let lan = 0; lan < lanCount; lan++) {
    const [first, ...others] = portsOnLan(topology, lan);
    for (const b of others) pairs.push({ a: first!, b });
  }
  return pairs.sort((x, y) => portBridge[x.a]! - portBridge[y.a]! || x.a - y.a || x.b - y.b);
}

function cellOf({ outcome: { role } }: SolvedTree, a: number, b: number): number {
  const [x, y] = [role[a]!, role[b]!];
  if (x === ROLE.disabled || y === ROLE.disabled) return CELL.down;
  if (x === ROLE.none && y === ROLE.none) return CELL.out;
  if (x === ROLE.none || y === ROLE.none) return CELL.half;
  if (!forwardsRole(x)) return CELL.blockedA;
  return forwardsRole(y) ? CELL.carries : CELL.blockedB;
}

/** The linkUse of a design. Trees alike in every cell are one row. */
export function linkUseOf(solved: SolvedDesign, loads?: Loads): LinkUse {
  const pairs = joints(solved.topology);
  const cellsByOutcome = new Map<object, Uint8Array>();
  const cellsFor = (of: SolvedTree) => {
    let cells = cellsByOutcome.get(of.outcome);
    if (!cells) {
      cells = Uint8Array.from(pairs, ({ a, b }) => cellOf(of, a, b));
      cellsByOutcome.set(of.outcome, cells);
    }
    return cells;
  };
  const rows = [...groupBy(solved.trees, (of) => cellsFor(of).join('')).values()].map((trees) => ({
    trees,
    cells: cellsFor(trees[0]!),
  }));
  const columns = pairs.map(({ a, b }, c): WeaveColumn => {
    let [carried, taking, vlans] = [0, 0, 0];
    for (const { trees, cells } of rows) {
      const cell = cells[c]!;
      if (cell === CELL.out || cell === CELL.half) continue;
      taking += trees.length;
      if (cell !== CELL.carries) continue;
      carried += trees.length;
      for (const of of trees) vlans += of.tree.vlans.length;
    }
    const { rate } = solved.topology.ports[a]!;
    const load = loads ? Math.max(loads.out[a]!, loads.out[b]!) : 0;
    return { a, b, rate, carried, taking, vlans, load, percent: (load / rate) * 100 };
  });
  const indices = [...columns.keys()];
  return {
    columns,
    rows,
    idle: indices.filter((c) => columns[c]!.taking > 0 && columns[c]!.carried === 0),
    everything: indices.filter((c) => solved.trees.length > 1 && columns[c]!.carried === solved.trees.length),
  };
}
