/** VLANs that were partitioned and connected again, in words. */
import type { Design } from '../design';
import type { ReachSpan, Trace } from './recorder';
import type { Line } from './story-line';
import { AGREED, switchList, vlansWords } from './words';
import { storyMessages as say } from '../messages';

type Apart = ReachSpan['apart'];
/** Something to tell of a VLAN. */
interface Turn {
  readonly at: number;
  /** Since when it has been partitioned; null at the moment when that begins. */
  readonly since: number | null;
  readonly apart: Apart;
  /** Changes that this one stands for, and when the last of them was. */
  readonly more: number;
  readonly until: number;
}

const MOST_PARTS = 3;
/** Changes of a partitioned VLAN that have a line each. */
const MOST_TURNS = 3;

const size = (apart: Apart): number => apart.reduce((sum, part) => sum + part.length, 0);

/** Lines from the partition on: each change, or of many the first with the worst of them, and the last state. */
function toldOf(turns: readonly { at: number; apart: Apart }[], lasts: boolean): Turn[] {
  const [first] = turns;
  if (!first) return [];
  const one = ({ at, apart }: { at: number; apart: Apart }, i: number): Turn => ({
    at,
    since: i === 0 ? null : first.at,
    apart,
    more: 0,
    until: at,
  });
  if (turns.length <= MOST_TURNS) return turns.map(one);
  const worst = turns.reduce((w, t) => (size(t.apart) > size(w.apart) ? t : w));
  const last = turns.at(-1)!;
  return [
    { at: first.at, since: null, apart: worst.apart, more: turns.length - 1, until: last.at },
    ...(lasts ? [one(last, 1)] : []),
  ];
}

function turnsOf(spans: readonly ReachSpan[]): Turn[] {
  const found: Turn[] = [];
  let turns: { at: number; apart: Apart }[] = [];
  spans.forEach(({ at, apart }, i) => {
    if (apart.length > 0) {
      // While it is apart, what changes faster than can be acted upon is not told.
      if (turns.length === 0 || (spans[i + 1]?.at ?? Infinity) - at >= AGREED) turns.push({ at, apart });
    } else if (turns.length > 0) {
      const since = turns[0]!.at;
      found.push(...toldOf(turns, false), { at, since, apart, more: 0, until: at });
      turns = [];
    }
  });
  return [...found, ...toldOf(turns, true)];
}

function sentence(design: Design, trace: Trace, { at, since, apart, more, until }: Turn, of: number[]): string {
  const vlans = vlansWords(trace, of);
  const one = vlans.startsWith('VLAN ');
  if (apart.length === 0) return say.connected({ vlans, one, after: at - (since ?? at) });
  const parts =
    apart.length > MOST_PARTS
      ? `${size(apart)} switches in ${apart.length} partitions: ${switchList(design, apart.flat())}`
      : apart.map((part) => switchList(design, part)).join('; ');
  const when = at === 0 ? 'start' : since === null ? 'now' : 'still';
  return more > 0
    ? say['partitioned-often']({ vlans, one, parts, when, times: more, until })
    : say.partitioned({ vlans, one, parts, when });
}

/** One line for all VLANs to which the same happened at a moment. */
export function reachLines(design: Design, trace: Trace): Line[] {
  const moments = new Map<string, { turn: Turn; vlans: number[] }>();
  for (const { vlan, spans } of trace.reach)
    for (const turn of turnsOf(spans)) {
      const key = JSON.stringify(turn);
      const known = moments.get(key);
      if (known) known.vlans.push(vlan);
      else moments.set(key, { turn, vlans: [vlan] });
    }
  return [...moments.values()].map(({ turn, vlans }) => ({
    at: turn.at,
    kind: 'note',
    text: sentence(design, trace, turn, vlans),
  }));
}
