/** The story of a capture in sentences, with names in place of addresses where they are known. */
import { captureMessages as say } from '../../messages';
import { treeWordsOf } from '../tree-words';
import type { CaptureEvent } from './story';

export interface CaptureLine {
  /** Seconds from the first frame. */
  readonly at: number;
  readonly alarm: boolean;
  readonly text: string;
}

/** Milliseconds within which one thing in several trees is one event. */
const TOGETHER = 1;

/** What an event says, whatever the tree. */
const key = (e: CaptureEvent): string => {
  const { at, ...rest } = e;
  const alike = 'tree' in rest ? { ...rest, tree: '' } : rest;
  // A silence lasts as long in each tree, to within a hello.
  return `${Math.round(at / 1000 / TOGETHER)} ${JSON.stringify('seconds' in alike && alike.seconds !== null ? { ...alike, seconds: 0 } : alike)}`;
};

function sentence(e: CaptureEvent, trees: readonly string[], nameOf: (mac: string) => string): Omit<CaptureLine, 'at'> {
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
    return { at: Math.max(0, (first.at - from) / 1e6), ...sentence(first, trees, nameOf) };
  });
}
