'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import TextField from '@mui/material/TextField';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { KeyboardEvent } from 'react';
import { differenceBetween, differenceWords } from '../../core/design';
import type { Design } from '../../core/design';
import { Ago } from '../controls/Ago';
import { NameDialog } from '../controls/NameDialog';
import { OneOf } from '../controls/OneOf';
import { api } from '../session/api';
import { authorName, NAME_MOST, setAuthorName } from '../session/author';
import type { PastStep } from '../../api/contract';
import { viewAddress } from '../session/view';
import { useBench, useSession } from '../session/context';
import { StatePicture } from './StatePicture';
import { usePast, useStateAt } from './usePast';
import type { PastList } from './usePast';
import styles from './HistoryDialog.module.css';

const MOST_LINES = 200;
const titleOf = (step: PastStep) =>
  step.kind === 'edit' ? step.label : `${step.kind === 'undo' ? 'Undo' : 'Redo'}: ${step.label}`;

/** The name that goes with the changes of this browser. */
function YourName() {
  const { say } = useBench();
  const [name, setName] = useState(authorName);
  const keep = () => {
    if (!setAuthorName(name))
      say({ text: 'The browser denies this page its storage: the name is not kept.', alarm: true });
  };
  return (
    <label className={styles.yourName}>
      <span className="quiet">Your name, shown with your changes</span>
      <TextField fullWidth value={name} onChange={(e) => setName(e.target.value.slice(0, NAME_MOST))} onBlur={keep} />
    </label>
  );
}

interface ListProps {
  readonly past: PastList;
  readonly at: number;
  readonly onPick: (revision: number) => void;
}

function StepList({ past, at, onPick }: ListProps) {
  const { steps } = past;
  const onKey = (event: KeyboardEvent) => {
    const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (by === 0) return;
    event.preventDefault();
    const next = steps[steps.findIndex((s) => s.revision === at) + by];
    if (!next) return;
    onPick(next.revision);
    document.getElementById(`state-${next.revision}`)?.focus();
  };
  return (
    <ol className="past" onKeyDown={onKey} aria-label="Changes, newest first">
      {steps.map((step) => (
        <li key={step.revision}>
          <button
            id={`state-${step.revision}`}
            aria-pressed={step.revision === at}
            onClick={() => onPick(step.revision)}
          >
            <b>{titleOf(step)}</b>
            {step.name && <i>{step.name}</i>}
            <span className="quiet">
              {step.revision} · {step.author || 'no name'} · <Ago at={step.madeAt} />
            </span>
          </button>
        </li>
      ))}
      {past.more ? (
        <li>
          <button onClick={past.loadMore}>Load older changes</button>
        </li>
      ) : (
        <li>
          <button id="state-0" aria-pressed={at === 0} onClick={() => onPick(0)}>
            <b>As it was made</b>
            <span className="quiet">0</span>
          </button>
        </li>
      )}
    </ol>
  );
}

/** What going back would change, or what the state changed against the one before it. */
function Difference({ from, to, title }: { from: Design; to: Design; title: string }) {
  const lines = useMemo(() => differenceWords(from, to), [from, to]);
  return (
    <section aria-label={title}>
      <h3>{title}</h3>
      {lines.length === 0 && <p className="quiet">Nothing differs.</p>}
      <ul>
        {lines.slice(0, MOST_LINES).map((line, i) => (
          <li key={i}>{line}</li>
        ))}
        {lines.length > MOST_LINES && <li className="quiet">and {lines.length - MOST_LINES} more</li>}
      </ul>
    </section>
  );
}

/** Leads to the trees, with what moved since a state. */
function MovedSince({ design, label, onShown }: { design: Design | null; label: string; onShown: () => void }) {
  const { showSince, stage, go } = useBench();
  const show = () => {
    if (!design) return;
    showSince(label, design);
    if (stage !== 'trees') go('trees');
    onShown();
  };
  return (
    <Button disabled={!design} onClick={show}>
      What moved since
    </Button>
  );
}

type Against = 'newest' | 'before';

/** One state: its drawing, what differs, and what can be done with it. */
function StateView({ revision, past, onClose }: { revision: number; past: PastList; onClose: () => void }) {
  const { session, variantId, edit } = useBench();
  const newest = useSession((s) => s.design);
  const newestRevision = useSession((s) => s.revision);
  const [against, setAgainst] = useState<Against>(revision === newestRevision ? 'before' : 'newest');
  const [asking, setAsking] = useState<'name' | 'variant' | null>(null);
  const { design, fault } = useStateAt(variantId, revision);
  const { design: before } = useStateAt(variantId, Math.max(0, revision - 1));
  const step = past.steps.find((s) => s.revision === revision);
  const name = past.named.find((n) => n.revision === revision)?.name;
  const title = `State ${revision}${name ? `, ${name}` : ''}`;
  const goBack = () => {
    if (!design) return;
    const edits = differenceBetween(session.store.getState().design, design);
    if (edits.length === 0) return session.complain('This state does not differ from the newest one.');
    if (edit(`Back to state ${revision}${name ? ` (${name})` : ''}`, edits)) onClose();
  };
  return (
    <section className="state" aria-label={title}>
      <header>
        <h2>{title}</h2>
        <span className="quiet">{step ? titleOf(step) : revision === 0 ? 'As it was made' : ''}</span>
        <span className="grow" />
        <Button onClick={() => setAsking('name')}>{name ? 'Rename…' : 'Name this state…'}</Button>
        <Button onClick={() => setAsking('variant')}>New variant…</Button>
        <MovedSince
          design={revision === newestRevision ? null : design}
          label={name ?? `state ${revision}`}
          onShown={onClose}
        />
        <Button variant="contained" disabled={!design || revision === newestRevision} onClick={goBack}>
          Go back to it
        </Button>
      </header>
      <div className={styles.statePicture}>
        {design && <StatePicture design={design} label={`The network in state ${revision}`} />}
        {!design && <p className={fault ? 'alarm pad' : 'quiet pad'}>{fault ?? 'Loading…'}</p>}
      </div>
      <div className={styles.stateDifference}>
        <OneOf
          label="Compare with"
          className="row"
          options={[
            { id: 'newest', name: 'Compare with the newest' },
            { id: 'before', name: 'Compare with the state before' },
          ]}
          value={against}
          onPick={setAgainst}
        />
        {design && against === 'newest' && <Difference from={design} to={newest} title="Changed since" />}
        {design && before && against === 'before' && (
          <Difference from={before} to={design} title="Changed by this step" />
        )}
      </div>
      {asking && (
        <StateNameDialog asking={asking} revision={revision} name={name} past={past} onClose={() => setAsking(null)} />
      )}
    </section>
  );
}

interface AskProps {
  readonly asking: 'name' | 'variant';
  readonly revision: number;
  readonly name: string | undefined;
  readonly past: PastList;
  readonly onClose: () => void;
}

function StateNameDialog({ asking, revision, name, past, onClose }: AskProps) {
  const { session, head, setHead, variantId, view, stage } = useBench();
  const router = useRouter();
  if (asking === 'name')
    return (
      <NameDialog
        title={`Name state ${revision}`}
        label="Name of the state; empty for none"
        initial={name ?? ''}
        action="Name"
        onSubmit={async (next) => {
          await api.nameState(variantId, revision, next);
          past.reload();
        }}
        onClose={onClose}
      />
    );
  return (
    <NameDialog
      title={`New variant from state ${revision}`}
      label="Name of the new variant"
      initial={name ?? `state ${revision}`}
      action="Make"
      onSubmit={async (called) => {
        await session.settled();
        const next = await api.copyVariant(head.id, variantId, { name: called, revision });
        setHead(next);
        router.push(viewAddress(head.id, stage, next.variants.at(-1)!.id, view));
      }}
      onClose={onClose}
    />
  );
}

/** Who changed what and when; the drawing at any earlier step, names of states, and the way back. */
export function HistoryDialog({ onClose }: { onClose: () => void }) {
  const { variantId } = useBench();
  const revision = useSession((s) => s.revision);
  const past = usePast(variantId, revision);
  const [picked, setPicked] = useState<number | null>(null);
  const at = picked ?? revision;
  return (
    <Dialog open fullScreen onClose={onClose} aria-label="History">
      <DialogContent className="history">
        <aside>
          <header>
            <h1>History</h1>
            <span className="grow" />
            <Button onClick={onClose}>Close</Button>
          </header>
          <YourName />
          {past.named.length > 0 && (
            <div className="row" role="group" aria-label="Named states">
              {past.named.map((n) => (
                <button
                  key={n.revision}
                  className="tool"
                  aria-pressed={n.revision === at}
                  onClick={() => setPicked(n.revision)}
                >
                  <i>{n.name}</i>
                </button>
              ))}
            </div>
          )}
          {past.fault && <p className="alarm">{past.fault}</p>}
          {!past.loading && past.steps.length === 0 && !past.fault && (
            <p className="quiet">No changes yet. Every change is listed here, with its author and time.</p>
          )}
          <StepList past={past} at={at} onPick={setPicked} />
        </aside>
        <StateView key={at} revision={at} past={past} onClose={onClose} />
      </DialogContent>
    </Dialog>
  );
}
