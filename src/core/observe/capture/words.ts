/** The story of a capture in sentences, with names in place of addresses where they are known. */
import { captureMessages as say } from '../../messages';
import { treeWordsOf } from '../tree-words';
import type { ObservedRole, ObservedState } from '../model';
import type { CaptureEvent, CaptureLane } from './story';

export interface CaptureLine {
  /** Seconds from the first frame. */
  readonly at: number;
  readonly alarm: boolean;
  readonly text: string;
  readonly kind: CaptureEvent['kind'];
  /** The first frame that says it; null for a silence. */
  readonly frame: Uint8Array | null;
}

/** Milliseconds within which one thing in several trees is one event. */
const TOGETHER = 1;

/** What an event says, whatever the tree. */
const key = (e: CaptureEvent): string => {
  const { at } = e;
  const alike = { ...e, at: 0, frame: null, ...('tree' in e ? { tree: '' } : {}) };
  // A silence lasts as long in each tree, to within a hello.
  return `${Math.round(at / 1000 / TOGETHER)} ${JSON.stringify('seconds' in alike && alike.seconds !== null ? { ...alike, seconds: 0 } : alike)}`;
};

function sentence(
  e: CaptureEvent,
  trees: readonly string[],
  nameOf: (mac: string) => string,
): Pick<CaptureLine, 'alarm' | 'text'> {
  const port = 'port' in e ? `${nameOf(e.sender)} ${e.port}` : '';
  const tree = treeWordsOf(trees);
  switch (e.kind) {
    case 'root':
      return { alarm: true, text: say.root({ tree, sender: nameOf(e.sender), root: nameOf(e.root) }) };
    case 'role':
      return { alarm: true, text: say.role({ tree, port, before: e.before, after: e.role }) };
    case 'change':
      return { alarm: false, text: say.change({ tree, port }) };
    case 'notified':
      return { alarm: false, text: say.notified({ sender: nameOf(e.sender) }) };
    case 'silent':
      return { alarm: true, text: say.silent({ tree, port, seconds: e.seconds }) };
    case 'lacp':
      return { alarm: false, text: say.lacp({ port, now: e.now, before: e.before }) };
  }
}

/** One line an event; what happens in several trees at once is one. */
export function captureLines(
  events: readonly CaptureEvent[],
  from: number,
  nameOf: (mac: string) => string,
): CaptureLine[] {
  const groups = new Map<string, CaptureEvent[]>();
  for (const e of events) groups.set(key(e), [...(groups.get(key(e)) ?? []), e]);
  return [...groups.values()].map((alike): CaptureLine => {
    const [first] = alike as [CaptureEvent];
    const trees = alike.flatMap((e) => ('tree' in e ? [e.tree] : []));
    const { kind, frame } = first;
    return { at: Math.max(0, (first.at - from) / 1e6), kind, frame, ...sentence(first, trees, nameOf) };
  });
}

/** A port in one tree or alike in several: what it says, second by second. */
export interface CaptureLaneWords {
  readonly name: string;
  readonly trees: string;
  readonly spans: readonly {
    /** Seconds from the first frame. */
    readonly from: number;
    readonly to: number;
    readonly role: ObservedRole | null;
    readonly state: ObservedState | null;
  }[];
}

/** Ports with what they say over time; those that change something first, and what is alike in several trees once. */
export function captureLanes(
  lanes: readonly CaptureLane[],
  seconds: number,
  nameOf: (mac: string) => string,
): CaptureLaneWords[] {
  const found = new Map<string, { of: CaptureLane; trees: string[] }>();
  for (const lane of lanes) {
    const spans = lane.spans.map(({ at, role, state }) => [Math.round(at / 1000 / TOGETHER), role, state]);
    const alike = JSON.stringify([lane.sender, lane.port, spans]);
    const known = found.get(alike);
    if (known) known.trees.push(lane.tree);
    else found.set(alike, { of: lane, trees: [lane.tree] });
  }
  return [...found.values()]
    .map(({ of: { sender, port, spans }, trees }): CaptureLaneWords => ({
      name: `${nameOf(sender)} ${port}`,
      trees: treeWordsOf(trees),
      spans: spans.map(({ at, role, state }, i) => {
        const next = spans[i + 1]?.at;
        return { from: Math.max(0, at / 1e6), to: next === undefined ? seconds : next / 1e6, role, state };
      }),
    }))
    .sort(
      (a, b) =>
        b.spans.length - a.spans.length ||
        `${a.name} ${a.trees}`.localeCompare(`${b.name} ${b.trees}`, 'en', { numeric: true }),
    );
}
