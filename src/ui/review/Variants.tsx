'use client';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { count, grouped, rateWords } from '../../core/standard';
import type { VariantFigures } from '../../core/plan';
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

interface Figure {
  readonly name: string;
  readonly of: (figures: VariantFigures) => string;
  /** The less, the better; null where neither is. */
  readonly badness: (figures: VariantFigures) => number | null;
  readonly place: Place;
  readonly title?: (figures: VariantFigures) => string | null;
}

const REVIEW: Place = { stage: 'review' };
const whole = (n: number): string => (n === 0 ? 'none' : grouped(n));

const FIGURES: readonly Figure[] = [
  {
    name: 'faults, risks, remarks',
    of: ({ findings: { fault, risk, remark } }) => `${fault}, ${risk}, ${remark}`,
    badness: ({ findings: { fault, risk, remark } }) => fault * 1e6 + risk * 1e3 + remark,
    place: REVIEW,
  },
  {
    name: 'goals met',
    of: ({ goals: { met, of } }) => (of === 0 ? 'none set' : `${met} of ${of}`),
    badness: ({ goals: { met, of } }) => (of === 0 ? null : of - met),
    place: { stage: 'trees', view: { panel: 'goals' } },
  },
  {
    name: 'to get there',
    of: ({ touches: t }) =>
      t === null
        ? 'the starting point'
        : t.settings + t.cables + t.devices === 0
          ? 'nothing to do'
          : `${count(t.settings, 'setting')}, ${count(t.devices, 'device')}${t.cables > 0 ? `, ${count(t.cables, 'cable')}` : ''}`,
    badness: () => null,
    place: { stage: 'hand-over' },
  },
  {
    name: 'failures that separate',
    of: ({ failures: { separating, of } }) => `${separating} of ${grouped(of)}`,
    badness: ({ failures: { separating } }) => separating,
    place: REVIEW,
  },
  {
    name: 'of these avoidable',
    of: ({ failures }) => whole(failures.avoidable),
    badness: ({ failures }) => failures.avoidable,
    place: REVIEW,
  },
  {
    name: 'does most harm',
    of: ({ worst }) => worst ?? 'no failure',
    badness: () => null,
    place: REVIEW,
  },
  {
    name: 'longest outage',
    of: ({ outage }) => outage?.words ?? 'none',
    badness: ({ outage }) => outage?.seconds ?? 0,
    place: { stage: 'rehearsal' },
    title: ({ outage }) => outage && `when it fails: ${outage.by}`,
  },
  {
    name: 'failures that overload',
    of: ({ overloading, fullest }) => (fullest === null ? 'no traffic set' : whole(overloading)),
    badness: ({ overloading, fullest }) => (fullest === null ? null : overloading),
    place: REVIEW,
  },
  {
    name: 'fullest link, ordinary day',
    of: ({ fullest }) => (fullest === null ? 'no traffic set' : `${Math.round(fullest)} %`),
    badness: ({ fullest }) => fullest,
    place: { stage: 'trees', view: { board: 'link-use' } },
  },
  {
    name: 'narrowest open link',
    of: ({ narrowest }) => (narrowest === null ? '–' : rateWords(narrowest)),
    badness: ({ narrowest }) => (narrowest === null ? null : -narrowest),
    place: { stage: 'trees', view: { board: 'link-use' } },
  },
  {
    name: 'trees that differ',
    of: ({ trees }) => grouped(trees),
    badness: () => null,
    place: { stage: 'trees', view: { board: 'roots' } },
  },
  {
    name: 'longest path, any failure',
    of: ({ longestPath }) => count(longestPath, 'link'),
    badness: ({ longestPath }) => longestPath,
    place: REVIEW,
  },
];

/** Better or worse than the first, where that can be said. */
function comparedWith(first: VariantFigures | null, figures: VariantFigures, { badness }: Figure): string {
  const [a, b] = [first && badness(first), badness(figures)];
  if (a === null || b === null || a === b) return '';
  return b < a ? styles.better! : styles.worse!;
}

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
  readonly figure: Figure;
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
              className={`plain ${comparedWith(first, figures, figure)}`}
              title={figure.title?.(figures) ?? undefined}
              onClick={() => onOpen(id, figure.place)}
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
          {FIGURES.map((figure) => (
            <FigureRow key={figure.name} {...{ figure, columns }} onOpen={open} />
          ))}
        </tbody>
      </table>
    </div>
  );
}
