/** What became of ports, in words. */
import type { Design } from '../design';
import { portChangeWords, storyMessages as say } from '../messages';
import type { PortChange } from '../messages';
import type { PortLane, PortSpan, Trace } from './recorder';
import type { Line } from './story-line';
import { portList, portWords, treesWords } from './words';

/** A change that is worth a line: to forwarding or blocked, not the states between; null for anything else. */
function changeOf(span: PortSpan, before: PortSpan): PortChange | null {
  if (span.state === 'forwarding' && before.state !== 'forwarding') return { code: 'forwards', role: span.role };
  if (span.state === 'guarded' && before.state !== 'guarded') return { code: 'guarded' };
  if (span.state === 'inconsistent' && before.state !== 'inconsistent') return { code: 'inconsistent' };
  if (before.state === 'inconsistent' && span.state !== 'disabled') return { code: 'consistent' };
  if (span.state === 'discarding' && before.state === 'forwarding') return { code: 'blocked' };
  return span.state === 'listening' && before.state === 'discarding' ? { code: 'listening' } : null;
}

/** Ports to which the same happened at one moment in the same trees are one line when they are many. */
const MANY = 5;

/** Changes of one port in one tree that have a line each. */
const MOST_CHANGES = 6;

interface Became {
  readonly at: number;
  readonly change: PortChange;
}

function changesOf(lane: PortLane, shut: ReadonlySet<string>): Became[] {
  return lane.spans.flatMap((span, i) => {
    const before = lane.spans[i - 1];
    const change = before && changeOf(span, before);
    return !change || (span.state === 'guarded' && shut.has(`${span.at} ${lane.port}`))
      ? []
      : [{ at: span.at, change }];
  });
}

/** Ports that flap, as one line. */
function restlessLines(design: Design, lanes: readonly { lane: PortLane; changes: readonly Became[] }[]): Line[] {
  if (lanes.length === 0) return [];
  const ports = [...new Set(lanes.map((l) => l.lane.port))];
  const from = Math.min(...lanes.map((l) => l.changes[0]!.at));
  const to = Math.max(...lanes.map((l) => l.changes.at(-1)!.at));
  const most = Math.max(...lanes.map((l) => l.changes.length));
  const values = { ports: portList(design, ports), until: to, times: most };
  const text =
    ports.length > MANY
      ? say['many-flap']({ ...values, number: ports.length })
      : say.flap({ ...values, one: ports.length === 1 });
  return [{ at: from, kind: 'note', text }];
}

/** Moments closer than this are one, in microseconds. */
const ONE_MOMENT = 1000;

/** The thing under a key, made when it is not there yet. */
function under<T>(map: Map<string, T>, key: readonly (string | number)[], make: () => T): T {
  const text = key.join('\n');
  let known = map.get(text);
  if (known === undefined) map.set(text, (known = make()));
  return known;
}

interface PortMoment {
  readonly at: number;
  readonly change: PortChange;
  readonly port: string;
  readonly trees: string[];
}

/** What happened to each port, with the trees in which it did; of ports that flap, the first and the last change. */
function momentsOf(changed: readonly { lane: PortLane; changes: readonly Became[] }[], most: boolean): PortMoment[] {
  const moments = new Map<string, PortMoment>();
  for (const { lane, changes } of changed) {
    const listed = changes.length <= MOST_CHANGES ? changes : most ? [] : [changes[0]!, changes.at(-1)!];
    for (const { at, change } of listed)
      under(moments, [Math.round(at / ONE_MOMENT), lane.port, portChangeWords(change, false)], () => ({
        at,
        change,
        port: lane.port,
        trees: [],
      })).trees.push(lane.tree);
  }
  return [...moments.values()];
}

/** What happened to ports, line by line. */
export function portLines(design: Design, trace: Trace): Line[] {
  const shut = new Set(trace.happenings.flatMap((h) => (h.kind === 'guard' ? [`${h.at} ${h.port}`] : [])));
  const changed = trace.ports.map((lane) => ({ lane, changes: changesOf(lane, shut) }));
  const restless = changed.filter((l) => l.changes.length > MOST_CHANGES);
  const many = new Set(restless.map((l) => l.lane.port)).size > MANY;
  const all = new Set(trace.ports.map((l) => l.tree)).size;
  const where = ({ trees, port }: PortMoment): string =>
    trees.length < all ? ` in ${treesWords(trace, trees, { design, port })}` : all === 1 ? '' : ' in every tree';
  const alike = new Map<string, { at: number; change: PortChange; where: string; ports: string[] }>();
  for (const moment of momentsOf(changed, many)) {
    const { at, change, port } = moment;
    const place = where(moment);
    under(alike, [Math.round(at / ONE_MOMENT), portChangeWords(change, false), place], () => ({
      at,
      change,
      where: place,
      ports: [],
    })).ports.push(port);
  }
  const lines = [...alike.values()].flatMap(({ at, change, where: place, ports }): Line[] => {
    const line = (text: string) => ({ at, kind: 'port' as const, text });
    return ports.length > MANY
      ? [line(say.ports({ number: ports.length, ports: portList(design, ports), place, change }))]
      : ports.map((port) => line(say.port({ port: portWords(design, port), place, change })));
  });
  return [...restlessLines(design, restless), ...lines];
}
