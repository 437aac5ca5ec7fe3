'use client';
import Button from '@mui/material/Button';
import { missingCableEdits } from '../../core/review';
import type { MissingCable } from '../../core/review';
import { portById, switchById } from '../../core/design';
import { count } from '../../core/standard';
import { useBench, useSession } from '../session/context';
import { newId } from '../session/new-id';
import styles from './ReviewStage.module.css';

const PURPOSES = [
  {
    id: 'link',
    title: 'So that any one link can fail',
    none: 'Any one link can fail without separating a switch in any VLAN.',
  },
  {
    id: 'switch',
    title: 'So that any one switch can fail',
    none: 'Any one switch can fail without separating others in any VLAN.',
  },
] as const;

/** The fewest cables that are missing, for links and for switches; as a preview on the chart. */
export function Missing() {
  const { review, tryOut } = useBench();
  const design = useSession((s) => s.design);
  if (!review.missing) return <p className={`quiet ${styles.scroll}`}>Reviewing…</p>;
  const missing = review.missing;
  const end = ({ switch: at, port }: MissingCable['a']) =>
    `${switchById(design, at)?.name ?? at} ${port === null ? '(no free port)' : (portById(design, port)?.name ?? port)}`;
  return (
    <div className={styles.scroll}>
      {PURPOSES.map(({ id, title, none }) => (
        <section key={id} aria-label={title}>
          <h3>{title}</h3>
          {missing[id].length === 0 ? (
            <p className="quiet">{none}</p>
          ) : (
            <>
              <ul>
                {missing[id].map((cable) => (
                  <li key={`${cable.a.switch} ${cable.b.switch} ${cable.a.port} ${cable.b.port}`}>
                    {end(cable.a)} – {end(cable.b)}
                  </li>
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
    </div>
  );
}
