'use client';
import { useMemo, useRef, useState } from 'react';
import type { DragEvent, KeyboardEvent } from 'react';
import { groupBy } from '../../../core/design';
import type { Switch } from '../../../core/design';
import { count, more } from '../../../core/standard';
import { balanceEdits, loadsOf, rankEdits, ranking, tierLastEdits } from '../../../core/analysis';
import type { RankResult, Ranked } from '../../../core/analysis';
import type { SolvedDesign, SolvedTree } from '../../../core/trees';
import { useBench, useSession, useShown } from '../../session/context';
import { hueOf } from '../../chart/hue';
import { BoardCommands } from './BoardCommands';
import { treesTitle, treeTitle } from '../../controls/tree-names';
import styles from './RootBoard.module.css';

const RANKS = 3;
const MOST_COLUMNS = 14;

interface Row {
  readonly trees: readonly SolvedTree[];
  /** All switches of the tree, best first, with their priorities. */
  readonly order: readonly Ranked[];
}

/** Trees with the same order of the same priorities are one row. */
function rowsOf(solved: SolvedDesign): Row[] {
  const withOrder = solved.trees.map((of) => ({ of, order: ranking(solved, of) }));
  const key = (order: readonly Ranked[]) => order.map((r) => `${r.switch} ${r.priority}`).join();
  return [...groupBy(withOrder, (w) => key(w.order)).values()].map((same) => ({
    trees: same.map((w) => w.of),
    order: same[0]!.order,
  }));
}

const TIER_ORDER = { core: 0, distribution: 1, access: 2 } as const;

/** Switches by tier; of many, those that have a rank somewhere or are no access switches first. */
function columnsOf(solved: SolvedDesign, rows: readonly Row[], all: boolean): Switch[] {
  const { switches } = solved.topology.design;
  const sorted = [...switches].sort((a, b) => (a.tier ? TIER_ORDER[a.tier] : 3) - (b.tier ? TIER_ORDER[b.tier] : 3));
  if (all || sorted.length <= MOST_COLUMNS) return sorted;
  const ranked = new Set(rows.flatMap((r) => r.order.slice(0, RANKS).map((o) => o.switch)));
  return sorted
    .filter((s, i) => ranked.has(s.id) || (s.tier !== 'access' && s.tier !== undefined && i < 40))
    .slice(0, 60);
}

/** Trees that are picked, and what to do with a rank on one of their rows. */
function useRanks(rows: readonly Row[]) {
  const { tryOut, say, view, setView } = useBench();
  const solved = useSession((s) => s.solved);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const show = (label: string, result: RankResult) => {
    if (!result.ok) say({ text: result.sentence, alarm: true });
    else tryOut(label, result.edits);
  };
  /** The trees that a gesture on a row is for: the picked rows when it is one of them, else itself. */
  const treesFor = (row: Row): SolvedTree[] => {
    const chosen = row.trees.some((t) => picked.has(t.tree.id))
      ? rows.flatMap((r) => r.trees).filter((t) => picked.has(t.tree.id))
      : row.trees;
    return chosen.flatMap((t) => solved.byId.get(t.tree.id) ?? []);
  };
  const place = (row: Row, s: Switch, rank: number) => {
    const trees = treesFor(row);
    const above = row.order.slice(0, rank - 1).map((r) => r.switch);
    if (!trees.some((t) => t.tree.id === view.tree)) setView({ tree: trees[0]!.tree.id });
    const words = trees.length === 1 ? treeTitle(trees[0]!.tree) : `${trees.length} trees`;
    show(`${s.name} on rank ${rank} of ${words}`, rankEdits(solved, trees, [...above, s.id]));
  };
  const pick = (row: Row) =>
    setPicked((was) => {
      const ids = row.trees.map((t) => t.tree.id);
      const next = new Set(was);
      const add = !ids.every((id) => was.has(id));
      for (const id of ids)
        if (add) next.add(id);
        else next.delete(id);
      return next;
    });
  return { picked, pick, place, show };
}

/** The cell that has the focus, and what keys do there. */
function useGrid(
  rows: readonly Row[],
  columns: readonly Switch[],
  { pick, place }: Pick<ReturnType<typeof useRanks>, 'pick' | 'place'>,
) {
  const [focus, setFocus] = useState({ row: 0, column: 0 });
  const table = useRef<HTMLTableElement>(null);
  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    const row = rows[focus.row];
    const s = columns[focus.column];
    if (step) {
      const next = {
        row: Math.min(rows.length - 1, Math.max(0, focus.row + step[0]!)),
        column: Math.min(columns.length - 1, Math.max(0, focus.column + step[1]!)),
      };
      setFocus(next);
      table.current?.querySelector<HTMLElement>(`[data-cell="${next.row} ${next.column}"]`)?.focus();
    } else if (['1', '2', '3'].includes(event.key) && row && s) place(row, s, Number(event.key));
    else if (event.key === ' ' && row) pick(row);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return { table, focus, setFocus, onKeyDown };
}

/** Trees against switches: ranks are placed by key or by dragging, priorities follow. */
export function RootBoard() {
  const shown = useShown();
  const [all, setAll] = useState(false);
  const rows = useMemo(() => rowsOf(shown), [shown]);
  const columns = useMemo(() => columnsOf(shown, rows, all), [shown, rows, all]);
  const { design } = shown.topology;
  const { picked, pick, place, show } = useRanks(rows);
  const { table, focus, setFocus, onKeyDown } = useGrid(rows, columns, { pick, place });
  const onDrop = (row: Row, s: Switch) => (event: DragEvent) => {
    event.preventDefault();
    const rank = Number(event.dataTransfer.getData('text/x-rank'));
    if (rank >= 1 && rank <= RANKS) place(row, s, rank);
  };
  return (
    <div className="board" aria-label="Root board">
      <p className="board-lead quiet">
        The root of each tree, and the next ones. Press <kbd className="key">1</kbd> <kbd className="key">2</kbd>{' '}
        <kbd className="key">3</kbd> on a cell or drag a rank; <kbd className="key">Space</kbd> picks several trees. A
        dashed ring: decided by MAC address only. A dot: default priority.
      </p>
      <div className="board-scroll">
        <table className="roots" role="grid" ref={table} onKeyDown={onKeyDown}>
          <thead>
            <tr>
              <th scope="col">tree</th>
              {columns.map((s) => (
                <th key={s.id} scope="col" className="turned">
                  <span>{s.name}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, r) => (
              <RootRow
                key={row.trees[0]!.tree.id}
                row={row}
                columns={columns}
                focused={focus.row === r ? focus.column : null}
                at={r}
                picked={row.trees.every((t) => picked.has(t.tree.id))}
                onPick={() => pick(row)}
                onFocus={(column) => setFocus({ row: r, column })}
                onDrop={(s) => onDrop(row, s)}
              />
            ))}
          </tbody>
        </table>
        {!all && columns.length < design.switches.length && (
          <button className="plain quiet more" onClick={() => setAll(true)}>
            {more(design.switches.length - columns.length, 'switch', 'switches')} without a rank
          </button>
        )}
      </div>
      <Placing picked={picked} show={show} />
    </div>
  );
}

/** What is done to all trees, or to those that are picked. */
function Placing({ picked, show }: { picked: ReadonlySet<string>; show: (label: string, result: RankResult) => void }) {
  const { say } = useBench();
  const solved = useSession((s) => s.solved);
  const { design } = solved.topology;
  const trees = picked.size > 0 ? [...picked].flatMap((id) => solved.byId.get(id) ?? []) : [...solved.trees];
  return (
    <BoardCommands
      design={design}
      onTier={(tier) => show(`Never root: the ${tier} tier`, tierLastEdits(solved, trees, tier))}
      onBalance={(pair, by) => {
        const loads = by === 'load' ? loadsOf(solved) : null;
        const weight = (of: SolvedTree) => loads?.offered.get(of.tree.id) ?? (loads ? 0 : 1);
        const names = pair.map((id) => design.switches.find((s) => s.id === id)?.name);
        const balanced = balanceEdits(solved, trees, pair, weight);
        const passed = balanced.ok ? balanced.passed : [];
        show(`Balance ${count(trees.length - passed.length, 'tree')} over ${names.join(' and ')}`, balanced);
        if (passed.length > 0)
          say({
            text: `Passed over, since one of the two has no part there: ${passed.map((t) => treeTitle(t.tree)).join(', ')}.`,
          });
      }}
      picked={picked.size}
    />
  );
}

interface RowProps {
  readonly row: Row;
  readonly columns: readonly Switch[];
  /** Column that has the focus, if it is in this row. */
  readonly focused: number | null;
  readonly at: number;
  readonly picked: boolean;
  readonly onPick: () => void;
  readonly onFocus: (column: number) => void;
  readonly onDrop: (s: Switch) => (event: DragEvent) => void;
}

function RootRow({ row, columns, focused, at, picked, onPick, onFocus, onDrop }: RowProps) {
  const { view, setView } = useBench();
  const design = useSession((s) => s.design);
  const first = row.trees[0]!;
  const byMac = row.order[1]?.byMac === true;
  return (
    <tr aria-selected={picked} className={row.trees.some((t) => t.tree.id === view.tree) ? 'in-view' : undefined}>
      <th scope="row" style={{ borderLeftColor: `var(--hue-${hueOf(design, first.tree)})` }}>
        <input
          type="checkbox"
          aria-label={`Pick ${treeTitle(first.tree)}${row.trees.length > 1 ? ' and the trees like it' : ''}`}
          checked={picked}
          onChange={onPick}
        />
        <button className="plain" onClick={() => setView({ tree: first.tree.id })}>
          {treesTitle(row.trees.map((t) => t.tree))}
        </button>
        {byMac && <small className="alarm"> by MAC address only</small>}
      </th>
      {columns.map((s, c) => (
        <RankCell
          key={s.id}
          row={row}
          of={s}
          at={`${at} ${c}`}
          focused={focused === c}
          onFocus={() => onFocus(c)}
          onDrop={onDrop(s)}
        />
      ))}
    </tr>
  );
}

interface CellProps {
  row: Row;
  of: Switch;
  at: string;
  focused: boolean;
  onFocus: () => void;
  onDrop: (event: DragEvent) => void;
}

/** A switch in a tree: its rank among the first three, its priority, and whether the address alone decided. */
function RankCell({ row, of, at, focused, onFocus, onDrop }: CellProps) {
  const place = row.order.findIndex((r) => r.switch === of.id);
  const ranked = row.order[place];
  const rank = place >= 0 && place < RANKS ? place + 1 : null;
  const tied = ranked !== undefined && (ranked.byMac || row.order[place + 1]?.byMac === true);
  const words = !ranked
    ? 'not in the tree'
    : `${rank ? `rank ${rank}, ` : ''}priority ${ranked.priority}${rank && tied ? ', placed by its MAC address only' : ''}`;
  return (
    <td
      role="gridcell"
      data-cell={at}
      tabIndex={focused ? 0 : -1}
      onFocus={onFocus}
      onClick={(e) => e.currentTarget.focus()}
      onDragOver={(e) => e.preventDefault()}
      onDrop={onDrop}
      title={`${of.name}: ${words}`}
      aria-label={`${of.name}: ${words}`}
      className={ranked ? undefined : styles.noPart}
    >
      {rank && (
        <span
          className={`rank rank-${rank}${tied ? ` ${styles.byMac}` : ''}`}
          draggable
          onDragStart={(e) => e.dataTransfer.setData('text/x-rank', String(rank))}
        >
          {rank}
        </span>
      )}
      <small className="mono">{ranked ? (ranked.priority === 32768 ? '·' : ranked.priority) : ''}</small>
    </td>
  );
}
