/** What happened, in words: each line with the moment it leads to. */
import { switchById } from '../design';
import type { Design } from '../design';
import { loopEffect } from './loop-effect';
import type { ContactLane, Flood, Happening, Trace } from './recorder';
import { portLines } from './story-ports';
import { reachLines } from './story-reach';
import { AGREED, hostWords, portList, portWords, switchList, treesWords, vlansWords } from './words';
import type { Line } from './story-line';
import { storyMessages as say } from '../messages';

interface Gap {
  readonly from: number;
  readonly to: number | null;
}

/** Times unreachable. */
export function gapsOf(lane: ContactLane): Gap[] {
  const gaps: Gap[] = [];
  lane.spans.forEach((span, i) => {
    if (span.ok) return;
    if (i > 0 && !lane.spans[i - 1]!.ok) return;
    gaps.push({ from: span.at, to: lane.spans.slice(i).find((s) => s.ok)?.at ?? null });
  });
  return gaps;
}

interface FloodOf extends Flood {
  readonly from: number;
  readonly to: number | null;
}

/** When frames of a pair were flooded for want of an address, at its worst each time. */
export function floodsOf(lane: ContactLane): FloodOf[] {
  const floods: FloodOf[] = [];
  lane.spans.forEach(({ at, flood }, i) => {
    const last = floods.at(-1);
    const goesOn = lane.spans[i - 1]?.flood !== undefined;
    if (flood && !goesOn) floods.push({ ...flood, from: at, to: null });
    else if (flood && last && flood.ports > last.ports) floods[floods.length - 1] = { ...last, ...flood };
    else if (!flood && goesOn && last) floods[floods.length - 1] = { ...last, to: at };
  });
  return floods;
}

function floodLines(design: Design, lane: ContactLane, pair: string): Line[] {
  return floodsOf(lane).flatMap(({ from, to, switches, ports }): Line[] => {
    return [
      { at: from, kind: 'contact', text: say.flooded({ pair, switches: switchList(design, switches), ports }) },
      ...(to === null
        ? []
        : [{ at: to, kind: 'contact' as const, text: say['flooding-ends']({ pair, after: to - from }) }]),
    ];
  });
}

function contactLines(design: Design, trace: Trace): Line[] {
  return trace.contacts.flatMap((lane) => {
    const pair = `${hostWords(design, lane.from)} to ${hostWords(design, lane.to)} in VLAN ${lane.vlan}`;
    const gaps = gapsOf(lane).flatMap(({ from, to }): Line[] => [
      {
        at: from,
        kind: 'contact',
        text: from === 0 ? say['unreachable-from-start']({ pair }) : say.unreachable({ pair }),
      },
      ...(to === null
        ? [{ at: from, kind: 'contact' as const, text: say['unreachable-to-end']({ pair }) }]
        : [{ at: to, kind: 'contact' as const, text: say.reachable({ pair, after: to - from }) }]),
    ]);
    const moved = lane.spans.flatMap((span, i): Line[] => {
      const before = lane.spans[i - 1];
      if (!before?.ok || !span.ok || before.path.join() === span.path.join()) return [];
      return [{ at: span.at, kind: 'contact', text: say['other-path']({ pair }) }];
    });
    const doubled = lane.spans.flatMap((span, i): Line[] =>
      span.copies > 1 && (lane.spans[i - 1]?.copies ?? 0) <= 1
        ? [{ at: span.at, kind: 'contact', text: say.copies({ pair, copies: span.copies }) }]
        : [],
    );
    return [...gaps, ...moved, ...doubled, ...floodLines(design, lane, pair)];
  });
}

function happeningLine(design: Design, h: Happening): Line | null {
  switch (h.kind) {
    case 'script':
      return { at: h.at, kind: 'event', text: `${h.sentence}.` };
    case 'void':
      return { at: h.at, kind: 'note', text: h.sentence };
    case 'guard':
      return {
        at: h.at,
        kind: 'guard',
        text: say.shut({ port: portWords(design, h.port), until: h.until, guard: h.guard }),
      };
    case 'one-way':
      return { at: h.at, kind: 'guard', text: say['one-way']({ port: portWords(design, h.port), how: h.how }) };
    case 'recover':
      return { at: h.at, kind: 'guard', text: say.recovered({ port: portWords(design, h.port) }) };
    case 'bundle':
      return {
        at: h.at,
        kind: 'port',
        text: say.bundle({ bundle: portWords(design, h.bundle), active: h.active, of: h.of }),
      };
    case 'restart':
      return { at: h.at, kind: 'note', text: say.restart({ name: switchById(design, h.switch)?.name ?? h.switch }) };
    case 'flush':
      return null;
  }
}

/** The new root of each tree, and how long the switches did not agree on one. */
function rootLines(design: Design, trace: Trace): Line[] {
  const name = (id: string) => switchById(design, id)?.name ?? id;
  const byMoment = new Map<string, { at: number; root: string; since: number | null; trees: string[] }>();
  for (const { tree, spans } of trace.roots) {
    let agreed: string | null = null;
    let lost: number | null = null;
    spans.forEach(({ at, roots }, i) => {
      const next = spans[i + 1]?.at ?? Infinity;
      // What stands at the start has stood for long.
      if (roots.length !== 1 || (next - at < AGREED && at > 0)) {
        lost ??= at;
        return;
      }
      const [root] = roots as [string];
      const missed = lost !== null && at - lost > 1000;
      if (agreed !== null && (root !== agreed || missed)) {
        const key = `${at} ${root} ${lost}`;
        const known = byMoment.get(key);
        if (known) known.trees.push(tree);
        else byMoment.set(key, { at, root, since: lost, trees: [tree] });
      }
      agreed = root;
      lost = null;
    });
  }
  return [...byMoment.values()].map(({ at, root, since, trees }) => {
    const after = since === null || since === at ? null : at - since;
    return { at, kind: 'port', text: say.root({ name: name(root), trees: treesWords(trace, trees), after }) };
  });
}

/** Frames that begin, or cease, to loop: one line for all trees in which they do so over the same ports. */
function loopLines(design: Design, trace: Trace): Line[] {
  const ends = trace.loops.flatMap((loop) => [
    { loop, at: loop.from, ended: false },
    ...(loop.to === null ? [] : [{ loop, at: loop.to, ended: true }]),
  ]);
  const alike = new Map<string, typeof ends>();
  for (const end of ends) {
    const key = `${end.at} ${end.ended} ${[...end.loop.ports].sort().join()}`;
    alike.set(key, [...(alike.get(key) ?? []), end]);
  }
  return [...alike.values()].map((same): Line => {
    const { loop, at, ended } = same[0]!;
    const vlans = vlansWords(
      trace,
      same.map((s) => s.loop.vlan),
    );
    const ports = portList(design, loop.ports);
    const text = ended
      ? say['loop-ends']({ vlans, ports, after: at - loop.from })
      : say.loop({ vlans, ports, effect: loopEffect(loop) });
    return { at, kind: 'loop', text };
  });
}

/** Table entries that were forgotten, summed up over a tenth of a second. */
function flushLines(trace: Trace): Line[] {
  const sums = new Map<number, { at: number; entries: number; switches: Set<string> }>();
  for (const h of trace.happenings) {
    if (h.kind !== 'flush') continue;
    const bin = Math.floor(h.at / 100_000);
    const sum = sums.get(bin) ?? { at: h.at, entries: 0, switches: new Set<string>() };
    sum.entries += h.entries;
    sum.switches.add(h.switch);
    sums.set(bin, sum);
  }
  return [...sums.values()].map(({ at, entries, switches }) => ({
    at,
    kind: 'note' as const,
    text: say.flushed({ entries, switches: switches.size }),
  }));
}

const ORDER: Record<Line['kind'], number> = { event: 0, loop: 1, guard: 2, port: 3, contact: 4, note: 5 };

/** The story of a rehearsal in the order of time. */
export function storyOf(design: Design, trace: Trace): Line[] {
  const lines = [
    ...trace.happenings.flatMap((h) => happeningLine(design, h) ?? []),
    ...loopLines(design, trace),
    ...rootLines(design, trace),
    ...reachLines(design, trace),
    ...flushLines(trace),
    ...portLines(design, trace),
    ...contactLines(design, trace),
  ];
  return lines.sort((a, b) => a.at - b.at || ORDER[a.kind] - ORDER[b.kind]);
}

/** The last span that has begun by a moment. */
export function spanAt<T extends { readonly at: number }>(spans: readonly T[], at: number): T | undefined {
  let [low, high] = [0, spans.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (spans[middle]!.at <= at) low = middle + 1;
    else high = middle;
  }
  return spans[low - 1];
}
