'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { groupBy } from '../../core/design';
import { acceptanceOf } from '../../core/review';
import type { Finding } from '../../core/review';
import { count, more } from '../../core/standard';
import { NameDialog } from '../controls/NameDialog';
import { useBench, useSession } from '../session/context';
import { newId } from '../session/new-id';
import type { Ref } from '../session/view';
import styles from './ReviewStage.module.css';

/** Findings of one rule that are shown before all are asked for. */
const FIRST = 8;

const REFS = new Set(['switch', 'port', 'bundle', 'link', 'host']);
const refsOf = ({ subjects }: Finding): Ref[] =>
  subjects.flatMap(({ kind, id }) => (REFS.has(kind) ? [{ kind: kind as Ref['kind'], id }] : []));

/** What is set wrongly, worst first: those of one rule together. */
export function Findings() {
  const { review } = useBench();
  const [open, setOpen] = useState<string | null>(null);
  const [showAccepted, setShowAccepted] = useState(false);
  const { findings } = review;
  if (!findings) return <p className={`quiet ${styles.scroll}`}>Reviewing…</p>;
  const shown = findings.filter((f) => showAccepted || f.accepted === null);
  const accepted = findings.length - findings.filter((f) => f.accepted === null).length;
  return (
    <div className={styles.scroll}>
      {shown.length === 0 && <p className="quiet">Nothing found: no rule has anything to say about this design.</p>}
      {[...groupBy(shown, (f) => f.code).values()].map((group) => {
        const [first] = group as [Finding];
        const isOpen = open === first.code;
        return (
          <div key={first.code}>
            <button
              className={`plain ${styles.finding}`}
              aria-expanded={isOpen}
              onClick={() => setOpen(isOpen ? null : first.code)}
            >
              <span className={styles[first.severity]}>{first.severity}</span>
              <span>
                {first.sentence}
                {group.length > 1 && <span className="quiet"> {more(group.length - 1, 'like this', 'like this')}</span>}
              </span>
              <span className="quiet small mono">{first.code}</span>
            </button>
            {isOpen && <OpenFindings group={group} />}
          </div>
        );
      })}
      {accepted > 0 && (
        <p>
          <button className="plain quiet" onClick={() => setShowAccepted(!showAccepted)}>
            {showAccepted ? 'Hide what is accepted' : `Show ${count(accepted, 'accepted finding')}`}
          </button>
        </p>
      )}
    </div>
  );
}

/** All findings of one rule: shown on the chart, mended, or accepted. */
function OpenFindings({ group }: { group: readonly Finding[] }) {
  const { tryOut } = useBench();
  const [all, setAll] = useState(false);
  const [asked, setAsked] = useState<readonly Finding[] | null>(null);
  const fixes = group.flatMap((f) => (f.fix && f.accepted === null ? [f.fix] : []));
  const pending = group.filter((f) => f.accepted === null);
  return (
    <div className={styles.open}>
      {group.length > 1 && (
        <div className={styles.actions}>
          {fixes.length > 1 && (
            <Button
              onClick={() =>
                tryOut(
                  `Mend ${count(fixes.length, 'finding')}`,
                  fixes.flatMap((f) => f.edits),
                )
              }
            >
              Preview all {fixes.length} fixes
            </Button>
          )}
          {pending.length > 1 && <Button onClick={() => setAsked(pending)}>Accept all {pending.length}…</Button>}
        </div>
      )}
      <ul>
        {group.slice(0, all ? undefined : FIRST).map((f) => (
          <OneFinding key={f.key} finding={f} alone={group.length === 1} onAccept={() => setAsked([f])} />
        ))}
      </ul>
      {!all && group.length > FIRST && (
        <button className="plain quiet" onClick={() => setAll(true)}>
          show {more(group.length - FIRST, 'finding')}
        </button>
      )}
      {asked && <AcceptDialog findings={asked} onClose={() => setAsked(null)} />}
    </div>
  );
}

interface OneProps {
  readonly finding: Finding;
  /** Whether its sentence stands above already. */
  readonly alone: boolean;
  readonly onAccept: () => void;
}

function OneFinding({ finding, alone, onAccept }: OneProps) {
  const { setView, tryOut, edit } = useBench();
  const accepted = useSession((s) => s.design.accepted);
  const refs = refsOf(finding);
  const takeBack = () => {
    const own = accepted.filter((a) => a.code === finding.code && a.said === finding.sentence);
    edit(
      `Finding ${finding.code} is open again`,
      own.map(({ id }) => ({ type: 'remove', kind: 'acceptance', id })),
    );
  };
  return (
    <li>
      {!alone && finding.sentence}
      {finding.accepted !== null && <span className="quiet"> Accepted: {finding.accepted}</span>}
      <div className={styles.actions}>
        {refs.length > 0 && <Button onClick={() => setView({ selection: refs })}>Show</Button>}
        {finding.fix && finding.accepted === null && (
          <Button onClick={() => tryOut(finding.fix!.label, finding.fix!.edits)} title={finding.fix.label}>
            Preview fix
          </Button>
        )}
        {finding.accepted === null ? (
          <Button onClick={onAccept}>Accept with a reason…</Button>
        ) : (
          <Button onClick={takeBack}>Open again</Button>
        )}
      </div>
    </li>
  );
}

function AcceptDialog({ findings, onClose }: { findings: readonly Finding[]; onClose: () => void }) {
  const { edit } = useBench();
  const accept = (reason: string) => {
    if (reason.trim() === '') return Promise.reject(new Error('An accepted finding needs a reason.'));
    const words = findings.length === 1 ? findings[0]!.code : count(findings.length, 'finding');
    const made = edit(
      `Accept ${words}: ${reason}`,
      findings.map((f) => ({
        type: 'add',
        kind: 'acceptance',
        value: acceptanceOf(f, newId('accepted'), reason.trim()),
      })),
    );
    return made ? Promise.resolve() : Promise.reject(new Error('The design does not take it.'));
  };
  return (
    <NameDialog
      title="Accept with a reason"
      label="Reason"
      initial=""
      action="Accept"
      onSubmit={accept}
      onClose={onClose}
    />
  );
}
