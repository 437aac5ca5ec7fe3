/** What became of ports, in words. */
import type { Design } from '../design';
import type { PortLane, PortSpan, Trace } from './recorder';
import type { Line } from './story-line';
import { portList, portWords, seconds, treesWords } from './words';

/** What became of a port that is worth a line: opened and cut, not the states between; null for anything else. */
function becameWords(span: PortSpan, before: PortSpan): string | null {
  if (span.state === 'forwarding' && before.state !== 'forwarding')
    return span.role === 'disabled' ? 'opened without a role' : `opened as ${span.role} port`;
  if (span.state === 'guarded' && before.state !== 'guarded') return 'is held back by its guard';
  if (span.state === 'inconsistent' && before.state !== 'inconsistent')
    return 'is held inconsistent, since the ends of its cable do not agree on what travels untagged';
  if (before.state === 'inconsistent' && span.state !== 'disabled') return 'is held inconsistent no more';
  if (span.state === 'discarding' && before.state === 'forwarding') return 'was cut';
  return span.state === 'listening' && before.state === 'discarding' ? 'began to listen' : null;
}

/** Ports to which the same happened at one moment in the same trees are one line when they are many. */
const MANY = 5;

/** Changes of one port in one tree that are told one by one. */
const MOST_CHANGES = 6;

interface Became {
  readonly at: number;
  readonly words: string;
}

function changesOf(lane: PortLane, shut: ReadonlySet<string>): Became[] {
  return lane.spans.flatMap((span, i) => {
    const before = lane.spans[i - 1];
    const words = before && becameWords(span, before);
    return !words || (span.state === 'guarded' && shut.has(`${span.at} ${lane.port}`)) ? [] : [{ at: span.at, words }];
  });
}

/** Ports that went to and fro, as one line. */
function restlessLines(design: Design, lanes: readonly { lane: PortLane; changes: readonly Became[] }[]): Line[] {
  if (lanes.length === 0) return [];
  const ports = [...new Set(lanes.map((l) => l.lane.port))];
  const from = Math.min(...lanes.map((l) => l.changes[0]!.at));
  const to = Math.max(...lanes.map((l) => l.changes.at(-1)!.at));
  const most = Math.max(...lanes.map((l) => l.changes.length));
  const subject =
    ports.length > MANY
      ? `${ports.length} ports go to and fro`
      : `${portList(design, ports)} ${ports.length === 1 ? 'goes' : 'go'} to and fro`;
  const text = `${subject} between open and cut until ${seconds(to)}, up to ${most} times${ports.length > MANY ? `: ${portList(design, ports)}` : ''}.`;
  return [{ at: from, kind: 'note', text }];
}

/** What became of ports, line by line. */
export function portLines(design: Design, trace: Trace): Line[] {
  const moments = new Map<string, { at: number; port: string; words: string; trees: string[] }>();
  const shut = new Set(trace.happenings.flatMap((h) => (h.kind === 'guard' ? [`${h.at} ${h.port}`] : [])));
  const changed = trace.ports.map((lane) => ({ lane, changes: changesOf(lane, shut) }));
  const restless = changed.filter((l) => l.changes.length > MOST_CHANGES);
  const many = new Set(restless.map((l) => l.lane.port)).size > MANY;
  for (const { lane, changes } of changed) {
    // Of few that go to and fro the first and the last change are told besides.
    const told = changes.length <= MOST_CHANGES ? changes : many ? [] : [changes[0]!, changes.at(-1)!];
    for (const { at, words } of told) {
      const key = `${Math.round(at / 1000)} ${lane.port} ${words}`;
      const known = moments.get(key);
      if (known) known.trees.push(lane.tree);
      else moments.set(key, { at, port: lane.port, words, trees: [lane.tree] });
    }
  }
  const all = new Set(trace.ports.map((l) => l.tree)).size;
  const where = (trees: readonly string[], port: string): string =>
    trees.length < all ? ` in ${treesWords(trace, trees, { design, port })}` : all === 1 ? '' : ' in every tree';
  const alike = new Map<string, { at: number; words: string; where: string; ports: string[] }>();
  for (const { at, port, words, trees } of moments.values()) {
    const there = where(trees, port);
    const key = `${Math.round(at / 1000)} ${words} ${there}`;
    const known = alike.get(key);
    if (known) known.ports.push(port);
    else alike.set(key, { at, words, where: there, ports: [port] });
  }
  const lines = [...alike.values()].flatMap(({ at, words, where: there, ports }): Line[] =>
    ports.length > MANY
      ? [{ at, kind: 'port', text: `${ports.length} ports ${manyWords(words)}${there}: ${portList(design, ports)}.` }]
      : ports.map((port) => ({ at, kind: 'port', text: `${portWords(design, port)} ${words}${there}.` })),
  );
  return [...restlessLines(design, restless), ...lines];
}

const manyWords = (words: string): string =>
  words
    .replace(/^was /, 'were ')
    .replace(/^is held back by its guard/, 'are held back by their guards')
    .replace(/^is held inconsistent/, 'are held inconsistent')
    .replace(/the ends of its cable do/, 'the ends of their cables do')
    .replace(/ port$/, ' ports');
