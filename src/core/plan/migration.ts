/** From the modes of today to one mode everywhere, switch by switch: by several rules of order, side by side. */
import { modeOf, switchById } from '../design';
import type { Design, Mode } from '../design';
import { singleFailures, sweepBase } from '../review';
import { solveDesign } from '../trees';
import { frameOf } from './frame';
import { gatherWork } from './gather';
import type { Work } from './gather';
import { planArranged, planChange } from './plan';
import type { ChangePlan, PlanOptions } from './plan';

export const MIGRATION_RULES = ['core-first', 'edge-first', 'by-group', 'least-outage'] as const;
export type MigrationRule = (typeof MIGRATION_RULES)[number];

export interface Migration {
  readonly rule: MigrationRule;
  readonly plan: ChangePlan;
  /** Single failures that separate a switch or a host: before, at most on the way, and at the end; null where it was not asked. */
  readonly separating: { readonly before: number; readonly most: number; readonly after: number } | null;
}

const TIER = { core: 0, distribution: 1, access: 2 } as const;

/** The design with one mode on every switch. */
export const allIn = (design: Design, mode: Mode): Design => ({
  ...design,
  mode,
  switches: design.switches.map(({ protocol: _, ...s }) => s),
});

function ranked(design: Design, works: readonly Work[], rule: MigrationRule): Work[] {
  const tier = (w: Work) => TIER[switchById(design, w.device ?? '')?.tier ?? 'access'];
  const group = (w: Work) => switchById(design, w.device ?? '')?.group ?? '';
  const by: Record<MigrationRule, (a: Work, b: Work) => number> = {
    'core-first': (a, b) => tier(a) - tier(b),
    'edge-first': (a, b) => tier(b) - tier(a),
    'by-group': (a, b) => group(a).localeCompare(group(b)) || tier(b) - tier(a),
    'least-outage': () => 0,
  };
  return [...works].sort(by[rule]);
}

const separates = (design: Design): number => {
  const base = sweepBase(solveDesign(design));
  return [...singleFailures(base)].filter((f) => f.separates.switches.length + f.separates.hosts.length > 0).length;
};

/** More switches than this, and what stays redundant on the way is not asked: each state would be swept. */
const FEW = 24;

function redundancy({ steps }: ChangePlan): Migration['separating'] {
  const first = steps[0]!.before;
  if (first.switches.length > FEW) return null;
  const counts = [separates(first), ...steps.map((s) => separates(s.after))];
  return { before: counts[0]!, most: Math.max(...counts), after: counts.at(-1)! };
}

/**
 * The ways from the modes of today to one mode, by each rule that makes a difference; yields after each. Nothing where every
 * switch runs the mode already.
 */
export function* migrations(
  design: Design,
  mode: Mode,
  options: PlanOptions = {},
  enough?: () => boolean,
): Generator<Migration, void, void> {
  if (design.switches.every((s) => modeOf(design, s) === mode)) return;
  const to = allIn(design, mode);
  const { start, goal } = frameOf(design, to);
  const works = gatherWork(start, goal);
  const seen = new Set<string>();
  for (const rule of MIGRATION_RULES) {
    const order = ranked(design, works, rule);
    const key = order.map((w) => w.id).join('\n');
    if (rule !== 'least-outage' && seen.has(key)) continue;
    seen.add(key);
    const found =
      rule === 'least-outage' ? planChange(design, to, options, enough) : planArranged(design, to, order, options);
    if (found.ok) yield { rule, plan: found.plan, separating: redundancy(found.plan) };
  }
}
