'use client';
import { count, more, parseTreeId } from '../../core/standard';
import { bundleById, portById, switchById } from '../../core/design';
import type { Design } from '../../core/design';
import type { MovedTree } from '../../core/trees';
import { ROLE_LETTER } from '../chart/Peg';
import { useBench, useSession, useTree } from '../session/context';
import { useChange } from '../session/since';

const MOST_PORTS = 4;
const WORD = {
  edit: 'Changed',
  undo: 'Undone',
  redo: 'Redone',
  theirs: 'Changed in another window',
  refused: 'Refused',
  since: 'Since',
} as const;

function treeWord(id: string): string {
  const parts = parseTreeId(id);
  if (parts?.kind === 'vlan') return String(parts.vlan);
  return parts?.kind === 'instance' ? `instance ${parts.instance}` : id;
}

const roleWord = (role: MovedTree['ports'][number]['before']) =>
  ROLE_LETTER[role] || (role === 'disabled' ? 'down' : 'out');

const MOST_CUT_OFF = 3;

/** Switches that a change parted from the others, or brought back. */
function PartedWords({ design, moved }: { design: Design; moved: MovedTree }) {
  const { select } = useBench();
  const names = (ids: readonly string[]) => (
    <>
      {ids.slice(0, MOST_CUT_OFF).map((id) => (
        <button key={id} className="plain move" onClick={() => select({ kind: 'switch', id })}>
          {switchById(design, id)?.name ?? ''}
        </button>
      ))}
      {ids.length > MOST_CUT_OFF && ` and ${more(ids.length - MOST_CUT_OFF, 'switch', 'switches')}`}
    </>
  );
  const { cutOff, rejoined } = moved;
  return (
    <>
      {cutOff.length > 0 && (
        <span className="alarm">
          <b>{cutOff.length === 1 ? 'Cut off:' : `${cutOff.length} switches cut off:`}</b> {names(cutOff)}
        </span>
      )}
      {rejoined.length > 0 && (
        <span>
          {rejoined.length === 1 ? 'Connected again:' : `${rejoined.length} switches connected again:`}{' '}
          {names(rejoined)}
        </span>
      )}
    </>
  );
}

interface Props {
  design: Design;
  moved: readonly MovedTree[];
  /** Trees that there are. */
  total: number;
  here: string | undefined;
}

/** Roots and roles that moved in the tree in view, other trees that moved, and how many stay. */
export function MovedWords({ design, moved, total, here: treeId }: Props) {
  const { setView, select } = useBench();
  const here = moved.find((m) => m.tree === treeId);
  const elsewhere = moved.filter((m) => m !== here);
  const name = (id: string | null) => (id === null ? 'none' : (switchById(design, id)?.name ?? id));
  return (
    <>
      <span className="quiet">
        {moved.length === 0 && 'Nothing moves in any tree.'}
        {here && here.rootBefore !== here.rootAfter && (
          <b>
            root {name(here.rootBefore)} → {name(here.rootAfter)}{' '}
          </b>
        )}
        {here?.ports.slice(0, MOST_PORTS).map((p) => (
          <button
            key={p.id}
            className="plain move"
            disabled={!portById(design, p.id) && !bundleById(design, p.id)}
            onClick={() => select(bundleById(design, p.id) ? { kind: 'bundle', id: p.id } : { kind: 'port', id: p.id })}
          >
            {p.name} {roleWord(p.before)} → {roleWord(p.after)}
          </button>
        ))}
        {here && here.ports.length > MOST_PORTS && ` and ${more(here.ports.length - MOST_PORTS, 'port')}`}
        {here &&
          here.ports.length + here.cutOff.length + here.rejoined.length === 0 &&
          here.rootBefore === here.rootAfter &&
          'Costs change, no role changes.'}
        {!here && moved.length > 0 && 'Nothing moves in this tree.'}
      </span>
      {here && <PartedWords design={design} moved={here} />}
      {elsewhere.length > 0 && (
        <span className="quiet">
          also{' '}
          {elsewhere.slice(0, 8).map((m) => (
            <button key={m.tree} className="plain move" onClick={() => setView({ tree: m.tree })}>
              {treeWord(m.tree)}
            </button>
          ))}
          {elsewhere.length > 8 && `and ${more(elsewhere.length - 8, 'tree')}`}
        </span>
      )}
      {moved.length > 0 && total > moved.length && (
        <span className="quiet">
          {total - moved.length} of {count(total, 'tree')} {total - moved.length === 1 ? 'stays' : 'stay'}
        </span>
      )}
    </>
  );
}

/** What the last change moved, or what moved since an earlier state. */
export function MovedBar() {
  const { dropSince, openDialog } = useBench();
  const change = useChange();
  const design = useSession((s) => s.design);
  const total = useSession((s) => s.solved.trees.length);
  const of = useTree();
  if (!change) return null;
  const since = change.kind === 'since';
  return (
    <div className="moved" role="status" aria-label="What the last change moved">
      <span>
        <b>{WORD[change.kind]}</b> {change.label}
      </span>
      <MovedWords design={design} moved={change.moved} total={total} here={of?.tree.id} />
      <span className="grow" />
      <button
        className="tool"
        title={since ? 'Shows what the last change moved' : 'Shows what moved since an earlier state'}
        onClick={since ? dropSince : () => openDialog('history')}
      >
        {since ? 'last change' : 'since…'}
      </button>
    </div>
  );
}
