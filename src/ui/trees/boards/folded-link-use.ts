/** Links that are alike in every tree as one column, where a network has too many to tell apart. */
import type { LinkUse } from '../../../core/analysis';
import { groupBy } from '../../../core/design';
import type { SolvedDesign } from '../../../core/trees';
import { groupsOf } from '../../chart/groups';

/** With fewer links each has a column. */
const FEW = 120;

export interface FoldedLinkUse extends LinkUse {
  /** Links of each column. */
  readonly counts: readonly number[];
}

/** Links of one switch to the same tier of a group that every tree uses alike are one column; the first stands for all. */
export function foldedLinkUse({ topology }: SolvedDesign, linkUse: LinkUse, isFolded: boolean): FoldedLinkUse {
  const { columns, rows } = linkUse;
  if (!isFolded || columns.length <= FEW) return { ...linkUse, counts: columns.map(() => 1) };
  const { design, portBridge } = topology;
  const groups = groupsOf(design);
  const key = (c: number) => {
    const { a, b } = columns[c]!;
    const far = portBridge[b]!;
    const where = design.switches[far]!.tier === undefined ? far : `${groups[far]} ${design.switches[far]!.tier}`;
    return [portBridge[a]!, where, ...rows.map((row) => row.cells[c])].join(' ');
  };
  const alike = [...groupBy(columns.keys(), key).values()];
  const first = alike.map((own) => own[0]!);
  const place = new Map(alike.flatMap((own, i) => own.map((c) => [c, i] as const)));
  const among = (list: readonly number[]) => [...new Set(list.map((c) => place.get(c)!))];
  return {
    columns: alike.map((own) => own.map((c) => columns[c]!).reduce((a, b) => (b.percent > a.percent ? b : a))),
    rows: rows.map((row) => ({ ...row, cells: Uint8Array.from(first, (c) => row.cells[c]!) })),
    idle: among(linkUse.idle),
    everything: among(linkUse.everything),
    counts: alike.map((own) => own.length),
  };
}
