'use client';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { COMPARED, comparedWith } from '../../core/plan';
import type { ComparedFigure } from '../../core/plan';
import { useBench } from '../session/context';
import type { StageId } from '../session/stages';
import { viewAddress } from '../session/view';
import type { View } from '../session/view';
import { MOST_COMPARED, PREVIEW, useComparison } from './useComparison';
import styles from './ReviewStage.module.css';

interface Place {
  readonly stage: StageId;
  readonly view?: Partial<View>;
}

const REVIEW: Place = { stage: 'review' };

/** Where each figure comes from. */
const PLACES: Readonly<Record<string, Place>> = {
  goals: { stage: 'trees', view: { panel: 'goals' } },
  touches: { stage: 'hand-over' },
  outage: { stage: 'rehearsal' },
  fullest: { stage: 'trees', view: { board: 'link-use' } },
  narrowest: { stage: 'trees', view: { board: 'link-use' } },
  trees: { stage: 'trees', view: { board: 'roots' } },
};

type Comparison = ReturnType<typeof useComparison>;

/** Which variants stand in the table. The first is always there. */
function ColumnChoice({ all, columns, toggle, busy, failed, stop }: Comparison) {
  const isIn = (id: string) => columns.some((c) => c.id === id);
  return (
    <p className={styles.columns}>
      {all.map(({ id, name }, i) => (
        <label key={id}>
          <input
            type="checkbox"
            checked={isIn(id)}
            disabled={i === 0 || (columns.length === MOST_COMPARED && !isIn(id))}
            onChange={() => toggle(id)}
          />{' '}
          {id === PREVIEW ? `previewed: ${name}` : name}
        </label>
      ))}
      <span className="grow" />
      {busy && (
        <span role="status">
          comparing… <Button onClick={stop}>Stop</Button>
        </span>
      )}
      {failed !== null && <span className="alarm">{failed}</span>}
    </p>
  );
}

interface RowProps {
  readonly figure: ComparedFigure;
  readonly columns: Comparison['columns'];
  readonly onOpen: (id: string, place: Place) => void;
}

function FigureRow({ figure, columns, onOpen }: RowProps) {
  const first = columns[0]!.figures;
  return (
    <tr>
      <th scope="row">{figure.name}</th>
      {columns.map(({ id, figures }) => (
        <td key={id}>
          {figures === null ? (
            <span className="quiet">…</span>
          ) : (
            <button
              className={`plain ${styles[comparedWith(first, figures, figure) ?? ''] ?? ''}`}
              title={figure.id === 'outage' && figures.outage ? `when it fails: ${figures.outage.by}` : undefined}
              onClick={() => onOpen(id, PLACES[figure.id] ?? REVIEW)}
            >
              {figure.of(figures)}
            </button>
          )}
        </td>
      ))}
    </tr>
  );
}

/** Variants beside each other, figure by figure; a cell leads to where it comes from. */
export function Variants() {
  const { head, view, variantId, go, setView } = useBench();
  const router = useRouter();
  const comparison = useComparison();
  const { columns } = comparison;
  const open = (id: string, { stage, view: part }: Place) => {
    if (id !== variantId && id !== PREVIEW)
      return router.push(viewAddress(head.id, stage, id, { ...view, board: 'chart', ...part }));
    if (part) setView(part);
    if (stage !== 'review') go(stage);
  };
  const advice = head.variants.length < 2 ? 'make a second variant, or preview a fix' : 'tick another variant';
  return (
    <div className={styles.scroll}>
      <ColumnChoice {...comparison} />
      {columns.length < 2 && <p className="quiet">Nothing to compare with: {advice}.</p>}
      <table className={styles.figures} aria-label="Variants compared">
        <thead>
          <tr>
            <th scope="col" />
            {columns.map(({ id, name }) => (
              <th key={id} scope="col">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {COMPARED.map((figure) => (
            <FigureRow key={figure.id} {...{ figure, columns }} onOpen={open} />
          ))}
        </tbody>
      </table>
    </div>
  );
}
