'use client';
import { Suspense, lazy, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { bundleById } from '../../../core/design';
import { endWords } from '../../../core/goals';
import { count } from '../../../core/standard';
import { CELL, CELL_WORDS, loadsOf, linkUseOf } from '../../../core/analysis';
import type { LinkUse, LinkUseRow } from '../../../core/analysis';
import type { SolvedDesign } from '../../../core/trees';
import { useBench, useShown } from '../../session/context';
import { hueOf } from '../../chart/hue';
import { treesTitle, treeTitle } from '../../controls/tree-names';
import { foldedLinkUse } from './folded-link-use';
import type { FoldedLinkUse } from './folded-link-use';
import { Traffic } from './Traffic';
import { cellAt, drawLinkUse, layOutLinkUse } from './link-use-drawing';
import { linkWords } from './link-words';
import { OneOf } from '../../controls/OneOf';
import styles from './LinkUseBoard.module.css';

// The charts are large, and most who look at trees never open them.
const LoadChart = lazy(() => import('./LoadChart').then((m) => ({ default: m.LoadChart })));

const LOWER = [
  { id: 'links', name: 'Share of each link' },
  { id: 'traffic', name: 'Traffic' },
] as const;

/** `VLANs 110, 120 +3` */
export function rowWords({ trees }: LinkUseRow): string {
  if (trees.length === 1) return treeTitle(trees[0]!.tree);
  const title = treesTitle(trees.map((t) => t.tree));
  const vlans = trees.flatMap((t) => t.tree.vlan ?? []);
  return title.length <= 24 || vlans.length < trees.length ? title : `${vlans.length} VLANs from ${vlans[0]}`;
}

/** Redraws when the theme changes. */
function useTheme(): number {
  const [n, setN] = useState(0);
  useEffect(() => {
    const observer = new MutationObserver(() => setN((v) => v + 1));
    observer.observe(document.documentElement, { attributes: true });
    return () => observer.disconnect();
  }, []);
  return n;
}

interface Place {
  readonly row: number;
  readonly column: number;
}

/** The drawing: as large as its room, with one cell under the pointer or the keys. */
function useDrawing(solved: SolvedDesign, linkUse: LinkUse, at: Place) {
  const { design } = solved.topology;
  const room = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 840, height: 420 });
  const theme = useTheme();
  useEffect(() => {
    const observer = new ResizeObserver(([e]) =>
      setSize({ width: e!.contentRect.width, height: e!.contentRect.height }),
    );
    if (room.current) observer.observe(room.current);
    return () => observer.disconnect();
  }, []);
  const layout = useMemo(() => layOutLinkUse(linkUse, size), [linkUse, size]);
  const idle = useMemo(() => new Set(linkUse.idle), [linkUse]);

  useLayoutEffect(() => {
    if (!canvas.current) return;
    const style = getComputedStyle(canvas.current);
    const token = (name: string) => style.getPropertyValue(name).trim();
    drawLinkUse(
      canvas.current,
      linkUse,
      layout,
      {
        hue: (r) => token(`--hue-${hueOf(design, linkUse.rows[r]!.trees[0]!.tree)}`),
        ink: token('--ink'),
        second: token('--ink-2'),
        rule: token('--rule'),
        alarm: token('--alarm'),
        wash: token('--accent-wash'),
        label: `11.5px ${token('--text')}`,
        heading: `600 12px ${token('--heading')}`,
      },
      {
        row: (r) => rowWords(linkUse.rows[r]!),
        column: (c) => linkWords(solved, linkUse.columns[c]!),
        group: (c) => design.switches[solved.topology.portBridge[linkUse.columns[c]!.a]!]!.name,
        faulty: (c) => idle.has(c),
      },
      at,
    );
  }, [linkUse, layout, at, theme, design, solved, idle]);
  return { room, canvas, layout };
}

/** The cell that a key leads to; null for other keys. */
function keyed(key: string, was: Place, { rows, columns }: LinkUse): Place | null {
  const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[key];
  if (!step) return null;
  return {
    row: Math.min(rows.length - 1, Math.max(0, was.row + step[0]!)),
    column: Math.min(columns.length - 1, Math.max(0, was.column + step[1]!)),
  };
}

/** Every tree against every link. */
export function LinkUseBoard() {
  const { select, setView, view } = useBench();
  const solved = useShown();
  const { design, ports } = solved.topology;
  const loads = useMemo(() => loadsOf(solved), [solved]);
  const every = useMemo(() => linkUseOf(solved, loads), [solved, loads]);
  const linkUse = useMemo(() => foldedLinkUse(solved, every, view.fold !== 'none'), [solved, every, view.fold]);
  const [at, setAt] = useState({ row: -1, column: -1 });
  const [lower, setLower] = useState<'links' | 'traffic'>('links');
  const { room, canvas, layout } = useDrawing(solved, linkUse, at);
  const go = ({ row, column }: Place) => {
    const tree = linkUse.rows[row]?.trees[0]?.tree.id;
    const port = linkUse.columns[column] && ports[linkUse.columns[column].a]!.element.id;
    if (tree) setView({ tree, panel: 'selection' });
    if (port) select(bundleById(design, port) ? { kind: 'bundle', id: port } : { kind: 'port', id: port });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const next = keyed(event.key, at, linkUse);
    if (next) setAt(next);
    else if (event.key === 'Enter' && at.row >= 0) go(at);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div className="board link-use">
      <Lead solved={solved} every={every} linkUse={linkUse} at={at} onShowAll={() => setView({ fold: 'none' })} />
      <div className={styles.linkUseRoom} ref={room}>
        <canvas
          ref={canvas}
          style={{ width: layout.width, height: layout.height }}
          tabIndex={0}
          role="application"
          aria-label={`Link use: ${count(linkUse.rows.length, 'row')} of trees and ${count(linkUse.columns.length, 'link')}. Arrow keys go from cell to cell, Enter opens the link.`}
          onKeyDown={onKeyDown}
          onPointerMove={(e) => setAt(cellAt(layout, linkUse, e.nativeEvent.offsetX, e.nativeEvent.offsetY))}
          onPointerLeave={() => setAt({ row: -1, column: -1 })}
          onClick={(e) => go(cellAt(layout, linkUse, e.nativeEvent.offsetX, e.nativeEvent.offsetY))}
        />
      </div>
      <div className={styles.linkUseLower}>
        <OneOf className="lower-tabs" label="Below the table" options={LOWER} value={lower} onPick={setLower}>
          <Idle solved={solved} linkUse={linkUse} onPick={(column) => go({ row: -1, column })} />
        </OneOf>
        {lower === 'links' ? (
          <Suspense>
            <LoadChart
              solved={solved}
              linkUse={linkUse}
              tree={view.tree}
              onPick={(column) => go({ row: -1, column })}
            />
          </Suspense>
        ) : (
          <Traffic lost={loads.lost} />
        )}
      </div>
    </div>
  );
}

interface LeadProps {
  solved: SolvedDesign;
  every: LinkUse;
  linkUse: FoldedLinkUse;
  at: Place;
  onShowAll: () => void;
}

/** What is pointed at, and how many links the columns stand for. */
function Lead({ solved, every, linkUse, at, onShowAll }: LeadProps) {
  const nothing = linkUse.columns.length === 0 || linkUse.rows.length === 0;
  return (
    <p className="board-lead">
      <span role="status" aria-label="Cell of link use">
        {nothing ? (
          'No links between switches yet, so there is no link use to show.'
        ) : (
          <Readout solved={solved} linkUse={linkUse} at={at} />
        )}
      </span>{' '}
      {linkUse.columns.length < every.columns.length && (
        <button className="plain quiet" onClick={onShowAll}>
          {count(every.columns.length, 'link')} in {linkUse.columns.length} columns: show every link
        </button>
      )}
    </p>
  );
}

/** The cell under the pointer or the keys, in words. */
function Readout({ solved, linkUse, at }: { solved: SolvedDesign; linkUse: FoldedLinkUse; at: Place }) {
  const row = linkUse.rows[at.row];
  const column = linkUse.columns[at.column];
  const alike = linkUse.counts[at.column] ?? 1;
  if (!row && !column)
    return (
      <span className="quiet">
        A row per tree, a column per link. Filled: forwards. Notched: blocked at that end. Dot: not in the tree.
      </span>
    );
  const cell = row && column ? row.cells[at.column]! : null;
  const blockedAt = cell === CELL.blockedA ? column!.a : cell === CELL.blockedB ? column!.b : null;
  return (
    <>
      {row && <b>{rowWords(row)}</b>} {column && linkWords(solved, column)}
      {alike > 1 && ` and ${alike - 1} alike`}
      {cell !== null && `: ${CELL_WORDS[cell]}${blockedAt === null ? '' : ` at ${endWords(solved, blockedAt)}`}`}
      {column && (
        <span className="quiet">
          {' '}
          · forwards in {column.carried} of {count(column.taking, 'tree')}
          {column.load > 0 && `, ${Math.round(column.load)} Mb/s, ${Math.round(column.percent)} %`}
        </span>
      )}
    </>
  );
}

const MOST_NAMED = 3;

/** Links that carry nothing, and those that carry everything. */
function Idle({
  solved,
  linkUse,
  onPick,
}: {
  solved: SolvedDesign;
  linkUse: FoldedLinkUse;
  onPick: (column: number) => void;
}) {
  const sum = (columns: readonly number[]) => columns.reduce((all, c) => all + linkUse.counts[c]!, 0);
  const list = (columns: readonly number[], words: string, alarm: boolean) =>
    columns.length > 0 && (
      <span>
        <span className={alarm ? 'alarm' : 'quiet'}>{words}</span>{' '}
        {columns.slice(0, MOST_NAMED).map((c) => (
          <button key={c} className="plain move" onClick={() => onPick(c)}>
            {linkWords(solved, linkUse.columns[c]!)}
            {linkUse.counts[c]! > 1 && ` and ${linkUse.counts[c]! - 1} alike`}
          </button>
        ))}
        {columns.length > MOST_NAMED && <span className="quiet">and {sum(columns.slice(MOST_NAMED))} more</span>}
      </span>
    );
  return (
    <>
      {list(linkUse.idle, 'idle in every tree:', true)}
      {list(linkUse.everything, 'carries every tree:', false)}
    </>
  );
}
