'use client';
import { bundleById, portById, switchById } from '../../core/design';
import type { Design } from '../../core/design';
import type { MovedTree } from '../../core/trees';
import { ROLE_LETTER } from '../chart/Peg';
import { useBench, useSession, useTree } from '../shell/context';

const MOST_PORTS = 4;
const WORD = { edit: 'Changed', undo: 'Undone', redo: 'Redone', theirs: 'Changed in another window' } as const;

const treeWord = (id: string) => id.replace(/^vlan-/, '');
const roleWord = (role: MovedTree['ports'][number]['before']) =>
  ROLE_LETTER[role] || (role === 'disabled' ? 'down' : 'out');

function portWord(design: Design, id: string): string {
  const port = portById(design, id) ?? bundleById(design, id);
  return port ? `${switchById(design, port.switch)?.name} ${port.name}` : id;
}

/** What the last change moved: roots and roles in the tree in view, and which other trees moved besides. */
export function MovedBar() {
  const { setView, select } = useBench();
  const last = useSession((s) => s.last);
  const design = useSession((s) => s.design);
  const total = useSession((s) => s.solved.trees.length);
  const of = useTree();
  if (!last) return null;
  const here = last.moved.find((m) => m.tree === of?.tree.id);
  const elsewhere = last.moved.filter((m) => m !== here);
  const name = (id: string | null) => (id === null ? 'none' : (switchById(design, id)?.name ?? id));
  return (
    <div className="moved" role="status" aria-label="What the last change moved">
      <span>
        <b>{WORD[last.kind]}</b> {last.label}
      </span>
      <span className="quiet">
        {last.moved.length === 0 && 'Nothing moved in any tree.'}
        {here && here.rootBefore !== here.rootAfter && (
          <b>
            root {name(here.rootBefore)} → {name(here.rootAfter)}{' '}
          </b>
        )}
        {here?.ports.slice(0, MOST_PORTS).map((p) => (
          <button
            key={p.id}
            className="plain move"
            onClick={() => select(bundleById(design, p.id) ? { kind: 'bundle', id: p.id } : { kind: 'port', id: p.id })}
          >
            {portWord(design, p.id)} {roleWord(p.before)} → {roleWord(p.after)}
          </button>
        ))}
        {here && here.ports.length > MOST_PORTS && <> and {here.ports.length - MOST_PORTS} more ports</>}
        {here && here.ports.length === 0 && here.rootBefore === here.rootAfter && 'Costs moved, no role changed.'}
        {!here && last.moved.length > 0 && 'Nothing moved in this tree.'}
      </span>
      {elsewhere.length > 0 && (
        <span className="quiet">
          also{' '}
          {elsewhere.slice(0, 8).map((m) => (
            <button key={m.tree} className="plain move" onClick={() => setView({ tree: m.tree })}>
              {treeWord(m.tree)}
            </button>
          ))}
          {elsewhere.length > 8 && `and ${elsewhere.length - 8} more trees`}
        </span>
      )}
      {last.moved.length > 0 && total > last.moved.length && (
        <span className="quiet">
          {total - last.moved.length} of {total} trees stay
        </span>
      )}
    </div>
  );
}
