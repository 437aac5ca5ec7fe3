'use client';
import Button from '@mui/material/Button';
import { useEffect, useRef } from 'react';
import { workWords } from '../../core/design';
import { treeInView, useBench, useSession } from '../session/context';
import type { Draft } from '../session/draft';
import { MovedWords } from './MovedBar';
import { OneOf } from './OneOf';
import styles from './DraftBar.module.css';

const SIDES = [
  { id: 'before', name: 'before' },
  { id: 'after', name: 'after' },
] as const;

/** A change that is tried out: what it would move, the chart before and after it, apply or drop. */
export function DraftBar({ draft }: { draft: Draft }) {
  const { view, setDraftSide, applyDraft, dropDraft } = useBench();
  const { solved } = draft;
  const here = treeInView({ solved }, view)?.tree.id;
  const now = useSession((s) => s.solved);
  const others = solved.trees.some((t) => !now.byId.has(t.tree.id)) || solved.trees.length !== now.trees.length;
  const apply = useRef<HTMLButtonElement>(null);
  // Whoever pressed a button to try a change out applies it with the next press of Enter.
  useEffect(() => {
    if (document.activeElement instanceof HTMLButtonElement) apply.current?.focus();
  }, [draft.edits]);
  return (
    <div className="moved draft" role="status" aria-label="Effect of the previewed change">
      <span>
        <b>Preview</b> {draft.label}
        <span className="quiet"> · {workWords(draft.edits)}</span>
      </span>
      {others ? (
        <span className="quiet">
          number of trees then: {solved.trees.length} instead of {now.trees.length}
        </span>
      ) : (
        <MovedWords design={solved.topology.design} moved={draft.moved} total={solved.trees.length} here={here} />
      )}
      <span className="grow" />
      <span className={styles.draftKeys}>
        <OneOf label="Show the network" options={SIDES} value={draft.side} onPick={setDraftSide} />
        <Button onClick={dropDraft}>
          Discard <kbd className="key">Esc</kbd>
        </Button>
        <Button variant="contained" ref={apply} onClick={applyDraft}>
          Apply <kbd className="key">Enter</kbd>
        </Button>
      </span>
    </div>
  );
}
