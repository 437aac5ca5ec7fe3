'use client';
import Button from '@mui/material/Button';
import { missingCableEdits } from '../../core/review';
import type { MissingCable } from '../../core/review';
import { addElement, portById, switchById } from '../../core/design';
import type { CableCost } from '../../core/design';
import { count } from '../../core/standard';
import { useBench, useSession } from '../session/context';
import { newId } from '../session/new-id';
import { CableCosts } from './CableCosts';
import styles from './ReviewStage.module.css';

const PURPOSES = [
  {
    id: 'link',
    title: 'So that any one link can fail',
    none: 'Any one link can fail without separating a switch in any VLAN.',
    short: 'Some switch hangs on one link whatever is added: no cable that can be laid carries its VLANs another way.',
  },
  {
    id: 'switch',
    title: 'So that any one switch can fail',
    none: 'Any one switch can fail without separating others in any VLAN.',
    short: 'Some switch hangs behind one other whatever is added: no cable that can be laid carries its VLANs past it.',
  },
] as const;

/** One of them, with what it costs where cables cost unlike much; where none can be laid another one is looked for. */
function MissingRow({ cable: { a, b, cost } }: { cable: MissingCable }) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const nameOf = ({ switch: at }: MissingCable['a']) => switchById(design, at)?.name ?? at;
  const end = (of: MissingCable['a']) =>
    `${nameOf(of)} ${of.port === null ? '(no free port)' : (portById(design, of.port)?.name ?? of.port)}`;
  const words = `${nameOf(a)} – ${nameOf(b)}`;
  const row: CableCost = { id: newId('cable'), from: { switch: a.switch }, to: { switch: b.switch } };
  return (
    <li>
      {end(a)} – {end(b)}
      {design.cableCosts.length > 0 && <span className="quiet"> costs {cost}</span>}
      <span className="quiet"> · </span>
      <button
        className="plain quiet small"
        aria-label={`find another: ${words}`}
        title="No cable can be laid here: a row below says so, and another one is looked for"
        onClick={() => edit(`No cable can be laid ${words}`, [addElement('cableCost', row)])}
      >
        find another
      </button>
    </li>
  );
}

/** The fewest cables that are missing, for links and for switches; as a preview on the chart. */
export function Missing() {
  const { review, tryOut } = useBench();
  const design = useSession((s) => s.design);
  if (!review.missing) return <p className={`quiet ${styles.scroll}`}>Reviewing…</p>;
  const missing = review.missing;
  return (
    <div className={styles.scroll}>
      {PURPOSES.map(({ id, title, none, short }) => (
        <section key={id} aria-label={title}>
          <h3>{title}</h3>
          {missing[id].length === 0 && !missing.short[id] && <p className="quiet">{none}</p>}
          {missing.short[id] && <p className="alarm">{short}</p>}
          {missing[id].length > 0 && (
            <>
              <ul>
                {missing[id].map((cable) => (
                  <MissingRow
                    key={`${cable.a.switch} ${cable.b.switch} ${cable.a.port} ${cable.b.port}`}
                    cable={cable}
                  />
                ))}
              </ul>
              <div className={styles.actions}>
                <Button
                  onClick={() =>
                    tryOut(`Add ${count(missing[id].length, 'cable')}`, missingCableEdits(design, missing[id], newId))
                  }
                >
                  Preview {count(missing[id].length, 'cable')}
                </Button>
              </div>
              <p className="quiet small">
                Each carries the VLANs that both its ends carry. Where a switch has no free port, one is added to it.
              </p>
            </>
          )}
        </section>
      ))}
      <CableCosts />
    </div>
  );
}
