/** A piece of work as a rehearsal has it: how long each watched pair and each VLAN is out, and whether frames loop. */
import { isClassicMode, modeOf, timersOf } from '../design';
import type { Design, Edit, Probe, Script } from '../design';
import { rehearse } from '../simulation';
import { SECOND, TIMERS } from '../standard';
import { gapsOf } from '../trace';
import type { Trace } from '../trace';

/** Seconds without contact; null where it does not come back during the step. */
export interface PairOutage {
  readonly pair: Probe;
  readonly seconds: number | null;
}
export interface VlanOutage {
  /** VLANs whose frames go alike. */
  readonly vlans: readonly number[];
  readonly seconds: number | null;
}

export interface Measured {
  readonly pairs: readonly PairOutage[];
  readonly vlans: readonly VlanOutage[];
  /** Seconds in which frames loop; null where they go on. */
  readonly looped: number | null;
  /** It was not rehearsed: the seconds are those of theory. */
  readonly byTheory?: boolean;
}

export const NOTHING_LOST: Measured = { pairs: [], vlans: [], looped: 0 };

/** Seconds before the first change. */
const BEFORE = 1;
/** Seconds in which a rapid network surely comes to rest: bundles agree, and old messages age. */
const RAPID_REST = 25;

/** Seconds from a change until everything has had the time to come to rest. */
export function restSeconds(design: Design): number {
  if (!design.switches.some((s) => isClassicMode(modeOf(design, s)))) return RAPID_REST;
  const timers = design.switches.map(timersOf);
  return Math.max(...timers.map((t) => t.maxAge + 2 * t.forwardDelay)) + RAPID_REST;
}

/** What each VLAN had joined before, by ids of switches: only that can be lost. */
export type Joined = ReadonlyMap<number, ReadonlySet<string>>;

/** Longest time that one of the switches was apart between two moments; null: at the end still. */
function longestApart(spans: Trace['reach'][number]['spans'], own: ReadonlySet<string>, from: number, to: number) {
  const since = new Map<string, number>();
  let longest = 0;
  spans.forEach(({ at, apart }, i) => {
    const ends = spans[i + 1]?.at ?? Infinity;
    if (ends <= from || at >= to) return;
    const now = new Set(apart.flat());
    for (const [id, began] of since)
      if (!now.has(id)) {
        longest = Math.max(longest, at - began);
        since.delete(id);
      }
    for (const id of now) if (own.has(id) && !since.has(id)) since.set(id, Math.max(at, from));
  });
  return since.size > 0 ? null : longest;
}

/** What a trace says of the time from one moment to another, in microseconds. */
export function outagesIn(trace: Trace, joined: Joined, from: number, to: number): Measured {
  const pairs = trace.contacts.flatMap((lane): PairOutage[] => {
    const gaps = gapsOf(lane).filter((g) => g.from >= from && g.from < to);
    if (gaps.length === 0) return [];
    const lasting = gaps.some((g) => g.to === null || g.to > to);
    const longest = Math.max(...gaps.map((g) => (g.to ?? to) - g.from));
    return [{ pair: { from: lane.from, to: lane.to, vlan: lane.vlan }, seconds: lasting ? null : longest / SECOND }];
  });
  const vlans = trace.reach.flatMap(({ vlan, spans }): VlanOutage[] => {
    const longest = longestApart(spans, joined.get(vlan) ?? new Set(), from, to);
    const own = trace.classes[vlan] ?? [vlan];
    return longest === 0 ? [] : [{ vlans: own, seconds: longest === null ? null : longest / SECOND }];
  });
  const loops = trace.loops.filter((l) => l.from < to && (l.to ?? Infinity) > from);
  const looped = loops.some((l) => (l.to ?? Infinity) >= to)
    ? null
    : Math.max(0, ...loops.map((l) => l.to! - Math.max(l.from, from))) / SECOND;
  return { pairs, vlans, looped };
}

const setting = (edits: readonly Edit[], at: number, label: string, n = 1): Script['events'][number] => ({
  id: `e${n}`,
  kind: 'set',
  at,
  edits: edits as never,
  label,
});

function measureFor(design: Design, edits: readonly Edit[], pairs: readonly Probe[], joined: Joined, seconds: number) {
  const until = BEFORE + seconds;
  const events = [setting(edits, BEFORE, 'step')];
  const script: Script = { id: 'step', name: 'step', until, events, probes: [...pairs] };
  return outagesIn(rehearse(design, script), joined, BEFORE * SECOND, until * SECOND);
}

/**
 * Rehearses one change of a network at rest. `comesBack`: whether a pair has contact again once the network stands: where it
 * has none by then, frames follow addresses that no topology change had forgotten, until they are too old.
 */
export function measure(
  design: Design,
  edits: readonly Edit[],
  pairs: readonly Probe[],
  joined: Joined,
  comesBack: (pair: Probe) => boolean,
): Measured {
  const rest = restSeconds(design);
  const measured = measureFor(design, edits, pairs, joined, rest);
  if (!measured.pairs.some((o) => o.seconds === null && comesBack(o.pair))) return measured;
  const ageing = Math.max(...design.switches.map((s) => s.ageingTime ?? TIMERS.ageingTime.default));
  return measureFor(design, edits, pairs, joined, rest + ageing);
}

/** The whole of a plan as one script, each step when the one before has come to rest; and when each begins, in seconds. */
export function planScript(
  from: Design,
  to: Design,
  steps: readonly { readonly edits: readonly Edit[]; readonly label: string; readonly pause?: number }[],
  pairs: readonly Probe[],
  name: string,
): { readonly script: Script; readonly times: readonly number[] } {
  // On the way a network can be classic in part.
  const rest = Math.max(restSeconds(from), restSeconds(to));
  let at = BEFORE;
  const times = steps.map(({ pause = 0 }) => {
    const own = at;
    at += rest + pause;
    return own;
  });
  const events = steps.map(({ edits, label }, i) => setting(edits, times[i]!, label, i + 1));
  return { script: { id: 'plan', name, until: at, events, probes: [...pairs] }, times };
}
