/** The rows in which variants are compared: each a figure in words, and whether less of it is better. */
import { count, grouped, rateWords } from '../standard';
import type { VariantFigures } from './comparison';

export interface ComparedFigure {
  readonly id: string;
  readonly name: string;
  readonly of: (figures: VariantFigures) => string;
  /** The less, the better; null where neither is. */
  readonly badness: (figures: VariantFigures) => number | null;
}

const whole = (n: number): string => (n === 0 ? 'none' : grouped(n));

export const COMPARED: readonly ComparedFigure[] = [
  {
    id: 'findings',
    name: 'faults, risks, remarks',
    of: ({ findings: { fault, risk, remark } }) => `${fault}, ${risk}, ${remark}`,
    badness: ({ findings: { fault, risk, remark } }) => fault * 1e6 + risk * 1e3 + remark,
  },
  {
    id: 'goals',
    name: 'goals met',
    of: ({ goals: { met, of } }) => (of === 0 ? 'none set' : `${met} of ${of}`),
    badness: ({ goals: { met, of } }) => (of === 0 ? null : of - met),
  },
  {
    id: 'touches',
    name: 'to get there',
    of: ({ touches: t }) =>
      t === null
        ? 'the starting point'
        : t.settings + t.cables + t.devices === 0
          ? 'nothing to do'
          : `${count(t.settings, 'setting')}, ${count(t.devices, 'device')}${t.cables > 0 ? `, ${count(t.cables, 'cable')}` : ''}`,
    badness: () => null,
  },
  {
    id: 'separating',
    name: 'failures that separate',
    of: ({ failures: { separating, of } }) => `${separating} of ${grouped(of)}`,
    badness: ({ failures: { separating } }) => separating,
  },
  {
    id: 'avoidable',
    name: 'of these avoidable',
    of: ({ failures }) => whole(failures.avoidable),
    badness: ({ failures }) => failures.avoidable,
  },
  {
    id: 'worst',
    name: 'does most harm',
    of: ({ worst }) => worst ?? 'no failure',
    badness: () => null,
  },
  {
    id: 'outage',
    name: 'longest outage',
    of: ({ outage }) => outage?.words ?? 'none',
    badness: ({ outage }) => outage?.seconds ?? 0,
  },
  {
    id: 'overloading',
    name: 'failures that overload',
    of: ({ overloading, fullest }) => (fullest === null ? 'no traffic set' : whole(overloading)),
    badness: ({ overloading, fullest }) => (fullest === null ? null : overloading),
  },
  {
    id: 'fullest',
    name: 'fullest link, ordinary day',
    of: ({ fullest }) => (fullest === null ? 'no traffic set' : `${Math.round(fullest)} %`),
    badness: ({ fullest }) => fullest,
  },
  {
    id: 'narrowest',
    name: 'narrowest open link',
    of: ({ narrowest }) => (narrowest === null ? '–' : rateWords(narrowest)),
    badness: ({ narrowest }) => (narrowest === null ? null : -narrowest),
  },
  {
    id: 'trees',
    name: 'trees that differ',
    of: ({ trees }) => grouped(trees),
    badness: () => null,
  },
  {
    id: 'longest-path',
    name: 'longest path, any failure',
    of: ({ longestPath }) => count(longestPath, 'link'),
    badness: ({ longestPath }) => longestPath,
  },
];

/** Better or worse than the first design; null where that cannot be said, or where they are alike. */
export function comparedWith(
  first: VariantFigures | null,
  figures: VariantFigures,
  { badness }: Pick<ComparedFigure, 'badness'>,
): 'better' | 'worse' | null {
  const [a, b] = [first && badness(first), badness(figures)];
  if (a === null || b === null || a === b) return null;
  return b < a ? 'better' : 'worse';
}
