/** What has to come before what, whatever it costs: and why. */
import { bundleById, linkAt, switchById } from '../design';
import type { Bundle, Design } from '../design';
import { planMessages as say } from '../messages';
import { setsRegion } from './gather';
import type { Work } from './gather';

export interface Constraint {
  /** Places of two pieces of work. */
  readonly first: number;
  readonly then: number;
  readonly sentence: string;
}

/** A step by the id of its work, and those that come before it; all others come after it. */
export interface PinnedStep {
  readonly step: string;
  readonly after: readonly string[];
}

/** Whether a step is a piece of work, or was split off it or joined with others from it. */
export const comesFrom = (step: string, work: string): boolean =>
  step.split(' + ').some((part) => part === work || part.startsWith(`${work}, `));

/** What keeps pinned steps in their place; steps that come from none of the works are passed over. */
export function pinnedIn(works: readonly Work[], pins: readonly PinnedStep[]): Constraint[] {
  const sentence = say.pinned();
  return pins.flatMap(({ step, after }) => {
    const at = works.findIndex((w) => comesFrom(step, w.id));
    if (at < 0) return [];
    return works.flatMap((w, i): Constraint[] => {
      if (i === at) return [];
      const before = after.some((id) => comesFrom(id, w.id));
      return [before ? { first: i, then: at, sentence } : { first: at, then: i, sentence }];
    });
  });
}

const setsInstances = (work: Work): boolean =>
  work.edits.some((e) => e.type === 'set' && /^instance(Priority|Cost)/.test(e.field));

/** A region's map is there before the settings of its instances. */
function mapsFirst(works: readonly Work[], goal: Design): Constraint[] {
  return works.flatMap((work, then) => {
    if (work.kind !== 'settings' || !setsInstances(work)) return [];
    const first = works.findIndex((w) => w !== work && w.device === work.device && setsRegion(w));
    if (first < 0) return [];
    const name = switchById(goal, work.device ?? '')?.name ?? '';
    return [{ first, then, sentence: say['map-first']({ name }) }];
  });
}

/** Bundles of a design that are made, changed or taken away by a piece of work. */
export const bundlesOfWork = (work: Work, design: Design): Bundle[] =>
  work.edits.flatMap((e) => {
    if (e.type === 'settings' || e.kind !== 'bundle') return [];
    return bundleById(design, e.type === 'add' ? e.value.id : e.id) ?? [];
  });

/** Places of the cables that are plugged into members of a bundle. */
export function cablesOf(bundle: Bundle, works: readonly Work[]): number[] {
  const own = new Set(bundle.members);
  return works.flatMap((w, i) => {
    const plugs = w.edits.some(
      (e) =>
        e.type === 'add' &&
        e.kind === 'link' &&
        [e.value.a, e.value.b].some((end) => own.has((end as { port?: string }).port ?? '')),
    );
    return plugs ? [i] : [];
  });
}

/** A static bundle is there at both ends before its second cable: with one end alone, frames would loop unseen. */
function staticFirst(works: readonly Work[], start: Design, goal: Design): Constraint[] {
  return works.flatMap((work, first) =>
    bundlesOfWork(work, goal).flatMap((bundle) => {
      if (bundle.kind !== 'static') return [];
      const live = bundle.members.some((m) => linkAt(start, m) !== undefined);
      const cables = cablesOf(bundle, works);
      return cables.slice(live ? 0 : 1).map((then) => ({
        first,
        then,
        sentence: say['static-first']({ bundle: `${switchById(goal, bundle.switch)?.name} ${bundle.name}` }),
      }));
    }),
  );
}

export const constraintsOf = (works: readonly Work[], start: Design, goal: Design): Constraint[] => [
  ...mapsFirst(works, goal),
  ...staticFirst(works, start, goal),
];
