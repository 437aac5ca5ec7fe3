/** Rehearsals that run on until nothing moves any more. */
import type { Script } from '@/core/design';
import { advance, roleNow } from '@/core/simulation';
import type { startRehearsal } from '@/core/simulation';

/** What every port is, in one word to compare. */
const standing = ({ world: w }: ReturnType<typeof startRehearsal>): string =>
  [...w.nodes.values()]
    .flatMap(({ processes }) =>
      processes.flatMap(({ plan }) => plan.trees.flatMap((tree) => plan.ports.map((id) => roleNow(w, tree, id)))),
    )
    .join();

/** Seconds that a lost root's word can loop where bridges add 1/256 s to its age, at a frame a second. */
const FINELY_CHASED = 1600;

/** Runs on until no port has become something else for twice the maximum age: a lost root can be chased for minutes. */
export function comeToRest(r: ReturnType<typeof startRehearsal>, events: Script['events']): void {
  const last = Math.max(0, ...events.map((e) => e.at));
  const finely = r.world.drawn.switches.some((s) => s.ageStep === 'fraction');
  let [at, before] = [finely ? last + FINELY_CHASED : last, ''];
  if (finely) advance(r, at * 1_000_000, { most: 3_000_000 });
  do {
    before = standing(r);
    at += 40;
    advance(r, at * 1_000_000, { most: 3_000_000 });
  } while (standing(r) !== before && at < last + FINELY_CHASED + 1000);
}
