'use client';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef, useState } from 'react';
import { editListWords } from '../../../core/design';
import type { Design } from '../../../core/design';
import { goalSentence, proposalWords } from '../../../core/goals';
import type { Progress, Proposal, Proposals } from '../../../core/goals';
import { useBench, useSession } from '../../session/context';
import { startProposing } from './propose-job';
import type { ProposeJob } from './propose-job';
import { count, grouped } from '../../../core/standard';

interface Found {
  /** The design they are for: another change makes them stale. */
  readonly design: Design;
  readonly proposals: Proposals;
}

/** The search in its worker: how far it is, what it found for the design as it is now, or why it failed. */
function useSearch(show: (p: Proposal, i: number) => void) {
  const design = useSession((s) => s.design);
  const [progress, setProgress] = useState<Progress | null>(null);
  const [held, setFound] = useState<Found | null>(null);
  const [failure, setFailure] = useState('');
  const job = useRef<ProposeJob | null>(null);
  useEffect(() => () => job.current?.drop(), []);
  const found = held?.design === design ? held : null;
  const start = async () => {
    job.current?.drop();
    setFailure('');
    setFound(null);
    setProgress({ phase: 'trees', done: 0, total: 1, tried: 0 });
    const mine = startProposing(design, setProgress);
    job.current = mine;
    try {
      const proposals = await mine.done;
      if (proposals && job.current === mine) {
        setFound({ design, proposals });
        if (proposals.proposals[0]) show(proposals.proposals[0], 0);
      }
    } catch (error) {
      setFailure(error instanceof Error ? error.message : String(error));
    }
    if (job.current === mine) setProgress(null);
  };
  return { progress, found, failure, start, cancel: () => job.current?.drop() };
}

/** Proposals for all broken goals together: searched in a worker, tried out on the chart, applied with one key. */
export function Proposing() {
  const { tryOut, setView, draft } = useBench();
  const show = (p: Proposal, i: number) => {
    tryOut(`Proposal ${i + 1}`, p.edits);
    const first = p.moved[0]?.tree;
    setView({ board: 'chart', ...(first ? { tree: first } : {}) });
  };
  const { progress, found, failure, start, cancel } = useSearch(show);
  return (
    <section className="proposing" aria-label="Proposals">
      {progress ? (
        <div role="status">
          <p>
            {progress.phase === 'trees'
              ? `Searching, ${progress.done} of ${progress.total} trees done`
              : 'Searching, each change is tried with every single failure'}
            {progress.tried > 0 && `, ${grouped(progress.tried)} changes tried`}
          </p>
          <LinearProgress
            variant={progress.phase === 'trees' ? 'determinate' : 'indeterminate'}
            aria-label="Search for proposals"
            value={(progress.done / Math.max(1, progress.total)) * 100}
          />
          <div className="buttons">
            <Button onClick={cancel}>Cancel</Button>
          </div>
        </div>
      ) : (
        <div className="buttons">
          <Button variant="contained" onClick={() => void start()}>
            Propose
          </Button>
        </div>
      )}
      {failure && <p className="alarm">{failure}</p>}
      {found && <FoundList found={found.proposals} active={draft?.edits} onShow={show} />}
    </section>
  );
}

interface ListProps {
  found: Proposals;
  active: readonly unknown[] | undefined;
  onShow: (p: Proposal, i: number) => void;
}

const MOST_EDITS = 6;

function FoundList({ found, active, onShow }: ListProps) {
  const { applyDraft } = useBench();
  const design = useSession((s) => s.design);
  const { proposals, contradictions } = found;
  return (
    <>
      {contradictions.map((c) => (
        <p key={c.sentence} className="alarm sentence">
          {c.sentence}
        </p>
      ))}
      {proposals.length === 0 && contradictions.length === 0 && (
        <p className="quiet">No settings and no cables were found that meet the broken goals.</p>
      )}
      <ol className="proposals">
        {proposals.map((p, i) => (
          <li key={i} className={active === p.edits ? 'in-view' : undefined}>
            <div className="proposal-head">
              <b>{proposalWords(p)}</b>
              <span className="quiet">
                {' '}
                {p.movedBesides.length === 0
                  ? 'nothing else moves'
                  : `${count(p.movedBesides.length, 'tree moves', 'trees move')} too`}
              </span>
            </div>
            <ul className="small">
              {editListWords(design, p.edits)
                .slice(0, MOST_EDITS)
                .map((words) => (
                  <li key={words}>{words}</li>
                ))}
              {p.edits.length > MOST_EDITS && <li className="quiet">and {p.edits.length - MOST_EDITS} more</li>}
            </ul>
            {p.breaks.length + p.leaves.length === 0 && <p className="quiet small">All goals are met with it.</p>}
            {p.breaks.map((b) => (
              <p key={b.goal.id} className="alarm small">
                Breaks: {goalSentence(design, b.goal)}
              </p>
            ))}
            {p.leaves.map((b) => (
              <p key={b.goal.id} className="alarm small">
                Leaves broken: {goalSentence(design, b.goal)}
              </p>
            ))}
            <div className="buttons">
              {active === p.edits ? (
                <Button variant="contained" onClick={applyDraft}>
                  Apply <kbd className="key">Enter</kbd>
                </Button>
              ) : (
                <Button onClick={() => onShow(p, i)}>Show it</Button>
              )}
            </div>
          </li>
        ))}
      </ol>
    </>
  );
}
