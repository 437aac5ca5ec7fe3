'use client';
import MenuItem from '@mui/material/MenuItem';
import { useEffect, useMemo, useRef, useState } from 'react';
import { blockedPorts, loopingPorts, isMacOnlyRoot, regionCount, rootsOf } from '../../core/trees';
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import { groupBy } from '../../core/design';
import { formatVlanRanges } from '../../core/standard';
import { isPopulated, useBench, useSession, useTree } from '../session/context';
import { hueOf } from '../chart/hue';
import { treeMark, treeTitle } from './tree-names';
import { DropMenu } from './DropMenu';
import styles from './TreeStrip.module.css';

interface Fold {
  readonly trees: readonly SolvedTree[];
  /** Null when no switch has the tree. */
  readonly root: string | null;
  readonly byMac: boolean;
  readonly parts: number;
  /** Regions of an MST instance: each has a root of its own, so that many parts are as they should be. */
  readonly regions: number;
  readonly blocked: number;
  /** Frames of the trees loop where spanning tree does not see it. */
  readonly loops: boolean;
}

/** Trees with the same outcome, together, in the order of their first VLAN. */
function foldsOf(solved: SolvedDesign): Fold[] {
  const { design } = solved.topology;
  const groups = [...groupBy(solved.trees, (t) => t.fold).values()];
  // Trees of VLANs that nothing carries stand last.
  const ordered = [...groups.filter(([t]) => isPopulated(t!)), ...groups.filter(([t]) => !isPopulated(t!))];
  return ordered.map((trees) => {
    const first = trees[0]!;
    const roots = rootsOf(first);
    const root = roots[0];
    return {
      trees,
      root: root === undefined ? null : design.switches[root]!.name,
      byMac: root !== undefined && isMacOnlyRoot(solved, first, root),
      parts: roots.length,
      regions: regionCount(solved, first),
      blocked: blockedPorts(first).length,
      loops: loopingPorts(solved.topology, first).size > 0,
    };
  });
}

const MOST_NUMBERS = 3;

/** One entry for each outcome: its VLANs, its root, how many blocked. */
export function TreeStrip() {
  const { setView } = useBench();
  const solved = useSession((s) => s.solved);
  const inView = useTree();
  const folds = useMemo(() => foldsOf(solved), [solved]);
  const strip = useRef<HTMLElement>(null);
  useEffect(() => {
    strip.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [inView?.tree.id]);
  return (
    <nav className="strip" aria-label="Trees" ref={strip}>
      {folds.map((fold) => (
        <StripItem key={fold.trees[0]!.tree.id} fold={fold} inView={inView} onPick={(tree) => setView({ tree })} />
      ))}
    </nav>
  );
}

interface ItemProps {
  fold: Fold;
  inView: SolvedTree | null;
  onPick: (tree: string) => void;
}

function StripItem({ fold, inView, onPick }: ItemProps) {
  const hidden = useBench().view.board === 'predict';
  const { trees } = fold;
  const current = inView !== null && trees.includes(inView);
  const hue = useSession((s) => hueOf(s.design, (current ? inView : trees[0]!).tree));
  return (
    <div className="strip-item" aria-current={current || undefined} style={{ borderLeftColor: `var(--hue-${hue})` }}>
      <Numbers trees={trees} inView={inView} onPick={onPick} />
      {hidden ? (
        <span className={`quiet ${styles.stripRoot}`}>root and blocked ports hidden</span>
      ) : (
        <button
          className={`plain ${styles.stripRoot}`}
          tabIndex={-1}
          onClick={() => onPick((current ? inView : trees[0]!).tree.id)}
        >
          <Outcome fold={fold} />
        </button>
      )}
    </div>
  );
}

/** Root and blocked ports of the trees. */
function Outcome({ fold: { trees, root, byMac, parts, regions, blocked, loops } }: Pick<ItemProps, 'fold'>) {
  return (
    <>
      <span className={byMac ? 'alarm' : 'quiet'}>
        {root === null ? 'no switch has it' : `root ${root}`}
        {byMac && ', by MAC address only'}
      </span>
      <span className="quiet">
        {' '}
        · {blocked} blocked
        {loops && <b className="alarm"> · frames loop</b>}
        {parts > 1 && (parts > regions ? <b className="alarm"> · {parts} parts</b> : ` · ${parts} regions`)}
      </span>
      <span className="visually-hidden"> VLANs {formatVlanRanges(trees.flatMap((t) => t.tree.vlans))}</span>
    </>
  );
}

/** The first few of the trees, the one in view among them, and a menu of all. */
function Numbers({ trees, inView, onPick }: Omit<ItemProps, 'fold'> & Pick<Fold, 'trees'>) {
  const [more, setMore] = useState<HTMLElement | null>(null);
  const current = inView !== null && trees.includes(inView);
  const shown =
    current && !trees.slice(0, MOST_NUMBERS).includes(inView)
      ? [inView, ...trees].slice(0, MOST_NUMBERS)
      : trees.slice(0, MOST_NUMBERS);
  const named = trees.length <= 2;
  return (
    <div className={styles.stripNumbers}>
      {shown.map((t) => (
        <button
          key={t.tree.id}
          className="plain"
          aria-pressed={t === inView}
          onClick={() => onPick(t.tree.id)}
          title={t.tree.name}
          aria-label={`Tree ${t.tree.vlan ?? treeTitle(t.tree)} ${t.tree.vlan === null ? '' : t.tree.name}`}
        >
          {t.tree.vlan !== null && !t.tree.name && named ? 'VLAN ' : ''}
          {t.tree.vlan ?? (named ? t.tree.name : treeMark(t.tree))}
          {named && t.tree.vlan !== null && <span> {t.tree.name}</span>}
        </button>
      ))}
      {trees.length > MOST_NUMBERS && (
        <button className="plain quiet" aria-haspopup="menu" onClick={(e) => setMore(e.currentTarget)}>
          +{trees.length - MOST_NUMBERS} alike
        </button>
      )}
      <DropMenu at={more} onClose={() => setMore(null)}>
        {trees.map((t) => (
          <MenuItem
            key={t.tree.id}
            selected={t === inView}
            onClick={() => {
              setMore(null);
              onPick(t.tree.id);
            }}
          >
            {treeTitle(t.tree)}
          </MenuItem>
        ))}
      </DropMenu>
    </div>
  );
}
