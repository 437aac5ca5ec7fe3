'use client';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useMemo, useState } from 'react';
import { meetsOthers } from '../../../core/network';
import { blockedPorts, movedBetween, rootsOf } from '../../../core/trees';
import type { MovedPort, SolvedDesign, SolvedTree } from '../../../core/trees';
import { arrangeAsCabled } from '../../chart/arrange';
import { useChange } from '../../session/since';
import { treeInView, useBench, useSession, useTree } from '../../session/context';
import { hueOf } from '../../chart/hue';
import { OneOf } from '../../controls/OneOf';
import { treeTitle } from '../../controls/tree-names';
import { MiniTree } from './MiniTree';
import { count } from '../../../core/standard';
import styles from './CompareBoard.module.css';

const AREA = { width: 560, height: 420 };

/** Two stand beside each other and are high, three or four are wide. */
const HIGH = { width: 520, height: 640 };
const MOST = 4;

interface Side {
  readonly key: string;
  readonly title: string;
  readonly solved: SolvedDesign;
  readonly of: SolvedTree;
  /** Ports that differ from what it stands beside. */
  readonly marked: ReadonlySet<string>;
}

/** Ports whose role is not the same in two trees of one network. */
function differing(solved: SolvedDesign, a: SolvedTree, b: SolvedTree): string[] {
  const found: string[] = [];
  // A port that meets no other, a host's above all, tells nothing of the way.
  a.outcome.role.forEach((role, p) => {
    if (role !== b.outcome.role[p] && meetsOthers(solved.topology, p)) found.push(solved.topology.ports[p]!.element.id);
  });
  return found;
}

/** Two to four trees side by side, or one tree before and after a change, with what differs marked. */
export function CompareBoard() {
  const { draft } = useBench();
  const change = useChange();
  const [asked, setWhat] = useState<'trees' | 'change' | null>(null);
  const what = asked ?? (draft ? 'change' : 'trees');
  return (
    <div className="board compare-board">
      <OneOf
        label="What is compared"
        className="lower-tabs"
        options={[
          { id: 'trees', name: 'trees side by side' },
          {
            id: 'change',
            name: `before and after ${draft ? 'the previewed change' : change?.kind === 'since' ? `all since ${change.label}` : 'the last change'}`,
            disabled: !draft && !change,
          },
        ]}
        value={what}
        onPick={setWhat}
      />
      {what === 'change' && (draft || change) ? <BeforeAfter /> : <SideBySide />}
    </div>
  );
}

function BeforeAfter() {
  const { draft, view } = useBench();
  const change = useChange();
  const now = useSession((s) => s.solved);
  const [before, after] = draft ? [now, draft.solved] : [change!.before, now];
  const moved = useMemo(() => movedBetween(before, after), [before, after]);
  const of = treeInView({ solved: after }, view);
  const was = of && (before.byId.get(of.tree.id) ?? treeInView({ solved: before }, view));
  if (!of || !was) return <p className="board-lead quiet">There is no tree to compare.</p>;
  const mine = moved.find((m) => m.tree === of.tree.id);
  const ports: readonly MovedPort[] = mine?.ports ?? [];
  const marked = new Set(ports.map((p) => p.id));
  return (
    <>
      <p className="board-lead" role="status">
        <b>{treeTitle(of.tree)}</b>{' '}
        {ports.length === 0 && !mine
          ? 'is the same before and after'
          : `${count(ports.length, 'port')} ${ports.length === 1 ? 'changes its' : 'change their'} role`}
        <span className="quiet">
          {' '}
          · {moved.length} of {count(after.trees.length, 'tree')} {moved.length === 1 ? 'moves' : 'move'}
        </span>
      </p>
      <Sides
        sides={[
          { key: 'before', title: 'before', solved: before, of: was, marked },
          { key: 'after', title: 'after', solved: after, of, marked },
        ]}
      />
    </>
  );
}

/** Ids of the trees that are compared: those that were picked, else the one in view and one with another outcome. */
function useCompared() {
  const solved = useSession((s) => s.solved);
  const inView = useTree();
  const [picked, setPicked] = useState<readonly string[] | null>(null);
  const folds = useMemo(() => [...new Map(solved.trees.map((t) => [t.fold, t])).values()], [solved]);
  const ids = useMemo(() => {
    const there = picked?.filter((id) => solved.byId.has(id));
    if (there && there.length > 1) return there;
    const first = inView ?? solved.trees[0];
    const others = folds.filter((t) => t.fold !== first?.fold);
    const all = [...(first ? [first] : []), ...others, ...solved.trees.filter((t) => t !== first)];
    return [...new Set(all.map((t) => t.tree.id))].slice(0, 2);
  }, [picked, solved, inView, folds]);
  return { ids, setPicked };
}

function SideBySide() {
  const solved = useSession((s) => s.solved);
  const { ids, setPicked } = useCompared();
  const trees = ids.flatMap((id) => solved.byId.get(id) ?? []);
  const marks = useMemo(
    () => ids.map((id) => new Set(differing(solved, solved.byId.get(ids[0]!)!, solved.byId.get(id)!))),
    [ids, solved],
  );
  const differ = new Set(marks.flatMap((m) => [...m])).size;
  if (trees.length < 2)
    return (
      <p className="board-lead quiet">
        The design runs one tree only: there is nothing to compare. Preview a change to compare before and after.
      </p>
    );
  return (
    <>
      <div className={styles.comparePicks}>
        <Picks ids={ids} onPick={setPicked} />
        <span className="quiet">
          {differ === 0
            ? 'They have the same outcome.'
            : `${count(differ, 'port')} ${differ === 1 ? 'differs' : 'differ'} from the first.`}
        </span>
      </div>
      <Sides
        sides={trees.map((of, i) => ({
          key: of.tree.id,
          title: treeTitle(of.tree),
          solved,
          of,
          // Of two, both show what differs; of more, each shows it against the first.
          marked: marks[trees.length === 2 ? 1 : i]!,
        }))}
      />
    </>
  );
}

/** Which trees stand side by side, and one more. */
function Picks({ ids, onPick }: { ids: readonly string[]; onPick: (ids: readonly string[]) => void }) {
  const solved = useSession((s) => s.solved);
  const set = (i: number, id: string) => onPick(ids.map((old, j) => (i === j ? id : old)));
  const shown = new Set(ids.map((id) => solved.byId.get(id)?.fold));
  const left = solved.trees.filter((t) => !ids.includes(t.tree.id));
  const more = left.find((t) => !shown.has(t.fold)) ?? left[0];
  return (
    <>
      {ids.map((id, i) => (
        <span key={i}>
          <Select
            value={id}
            onChange={(e) => set(i, e.target.value)}
            inputProps={{ 'aria-label': `Tree ${i + 1} of the comparison` }}
          >
            {solved.trees.map((t) => (
              <MenuItem key={t.tree.id} value={t.tree.id}>
                {treeTitle(t.tree)}
              </MenuItem>
            ))}
          </Select>
          {ids.length > 2 && (
            <button
              className="plain quiet remove"
              aria-label={`Remove tree ${i + 1}`}
              onClick={() => onPick(ids.filter((_, j) => j !== i))}
            >
              ×
            </button>
          )}
        </span>
      ))}
      {ids.length < MOST && more && (
        <button className="tool" onClick={() => onPick([...ids, more.tree.id])}>
          + tree
        </button>
      )}
    </>
  );
}

function Sides({ sides }: { sides: readonly Side[] }) {
  const { setView } = useBench();
  const { design } = sides[0]!.solved.topology;
  const cabled = useMemo(
    () => arrangeAsCabled(design, AREA),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [design.switches, design.links, design.segments],
  );
  return (
    <div className={`sides sides-${sides.length}`}>
      {sides.map(({ key, title, solved, of, marked }) => {
        const root = rootsOf(of)[0];
        const name = root === undefined ? 'none' : solved.topology.design.switches[root]!.name;
        return (
          <figure key={key}>
            <figcaption>
              <b>{title}</b>{' '}
              <span className="quiet">
                root {name} · {blockedPorts(of).length} blocked
              </span>
            </figcaption>
            <MiniTree
              solved={solved}
              of={of}
              cabled={cabled.at}
              area={sides.length === 2 ? HIGH : AREA}
              hue={hueOf(solved.topology.design, of.tree)}
              marked={marked}
              label={`${title}: root ${name}`}
              onPick={(kind, id) => setView({ tree: of.tree.id, selection: [{ kind, id }], panel: 'selection' })}
            />
          </figure>
        );
      })}
    </div>
  );
}
