/** What happened, in words: each line with the moment it leads to. */
import { bundleById, hostById, portById, switchById } from '../design';
import type { Design } from '../design';
import { formatVlanRanges } from '../standard';
import { loopEffect } from './loop-effect';
import type { ContactLane, Happening, LoopSpan, PortSpan, Trace } from './recorder';

export interface Line {
  /** Microseconds. */
  readonly at: number;
  readonly text: string;
  readonly kind: 'event' | 'port' | 'contact' | 'guard' | 'loop' | 'note';
}

/** `5.000 s`, with as many digits as tell moments apart. */
export const seconds = (at: number): string => `${(at / 1e6).toFixed(3)} s`;

/** `12 ms`, `30.0 s` */
export function lasting(micros: number): string {
  if (micros < 1000) return `${micros} µs`;
  if (micros < 1_000_000) return `${(micros / 1000).toFixed(micros < 10_000 ? 1 : 0)} ms`;
  return `${(micros / 1e6).toFixed(1)} s`;
}

/** `crane-yard 1`, of a port or bundle; what was plugged in by a script keeps its own name. */
export function portWords(design: Design, id: string): string {
  const port = portById(design, id) ?? bundleById(design, id);
  return port ? `${switchById(design, port.switch)?.name} ${port.name}` : id;
}
const hostWords = (design: Design, id: string) => hostById(design, id)?.name ?? id;

/** Names of rehearsed trees, with the VLANs that have the same outcome: `VLANs 110-120, 150`, `instance 2`, `the CIST`. */
export function treesWords(trace: Trace, trees: readonly string[]): string {
  const vlans = trees.flatMap((tree) => {
    const own = /^vlan-(\d+)$/.exec(tree)?.[1];
    return own ? [Number(own), ...(trace.alike[tree] ?? [])] : [];
  });
  const others = trees.flatMap((tree) => {
    const instance = /^msti-(\d+)$/.exec(tree)?.[1];
    return tree.startsWith('vlan-')
      ? []
      : [instance ? `instance ${instance}` : tree === 'cist' ? 'the CIST' : 'the one tree'];
  });
  return [
    ...others,
    ...(vlans.length > 0 ? [`${vlans.length === 1 ? 'VLAN' : 'VLANs'} ${formatVlanRanges(vlans)}`] : []),
  ].join(', ');
}

interface Gap {
  readonly from: number;
  readonly to: number | null;
}

/** Times without contact. */
export function gapsOf(lane: ContactLane): Gap[] {
  const gaps: Gap[] = [];
  lane.spans.forEach((span, i) => {
    if (span.ok) return;
    if (i > 0 && !lane.spans[i - 1]!.ok) return;
    gaps.push({ from: span.at, to: lane.spans.slice(i).find((s) => s.ok)?.at ?? null });
  });
  return gaps;
}

function contactLines(design: Design, trace: Trace): Line[] {
  return trace.contacts.flatMap((lane) => {
    const pair = `${hostWords(design, lane.from)} to ${hostWords(design, lane.to)} in VLAN ${lane.vlan}`;
    const gaps = gapsOf(lane).flatMap(({ from, to }): Line[] => [
      { at: from, kind: 'contact', text: from === 0 ? `No contact ${pair} from the start.` : `Contact ${pair} lost.` },
      ...(to === null
        ? [{ at: from, kind: 'contact' as const, text: `Contact ${pair} is not found again.` }]
        : [{ at: to, kind: 'contact' as const, text: `Contact ${pair} back after ${lasting(to - from)}.` }]),
    ]);
    const moved = lane.spans.flatMap((span, i): Line[] => {
      const before = lane.spans[i - 1];
      if (!before?.ok || !span.ok || before.path.join() === span.path.join()) return [];
      return [{ at: span.at, kind: 'contact', text: `Contact ${pair} kept, over another way.` }];
    });
    const doubled = lane.spans.flatMap((span, i): Line[] =>
      span.copies > 1 && (lane.spans[i - 1]?.copies ?? 0) <= 1
        ? [{ at: span.at, kind: 'contact', text: `Frames ${pair} arrive in ${span.copies} copies or more.` }]
        : [],
    );
    return [...gaps, ...moved, ...doubled];
  });
}

/** What became of a port that is worth a line: opened and cut, not the states between; null for anything else. */
function becameWords(span: PortSpan, before: PortSpan): string | null {
  if (span.state === 'forwarding' && before.state !== 'forwarding')
    return span.role === 'disabled' ? 'opened without a role' : `opened as ${span.role} port`;
  if (span.state === 'guarded' && before.state !== 'guarded') return 'is held back by its guard';
  if (span.state === 'discarding' && before.state === 'forwarding') return 'was cut';
  return span.state === 'listening' && before.state === 'discarding' ? 'began to listen' : null;
}

/** Ports to which the same happened at one moment in the same trees are one line when they are many. */
const MANY = 5;

function portLines(design: Design, trace: Trace): Line[] {
  const moments = new Map<string, { at: number; port: string; words: string; trees: string[] }>();
  const shut = new Set(trace.happenings.flatMap((h) => (h.kind === 'guard' ? [`${h.at} ${h.port}`] : [])));
  for (const lane of trace.ports)
    lane.spans.forEach((span, i) => {
      const before = lane.spans[i - 1];
      const words = before && becameWords(span, before);
      if (!words || (span.state === 'guarded' && shut.has(`${span.at} ${lane.port}`))) return;
      const key = `${Math.round(span.at / 1000)} ${lane.port} ${words}`;
      const known = moments.get(key);
      if (known) known.trees.push(lane.tree);
      else moments.set(key, { at: span.at, port: lane.port, words, trees: [lane.tree] });
    });
  const all = new Set(trace.ports.map((l) => l.tree)).size;
  const where = (trees: readonly string[]): string =>
    trees.length < all ? ` in ${treesWords(trace, trees)}` : all === 1 ? '' : ' in every tree';
  const alike = new Map<string, { at: number; words: string; where: string; ports: string[] }>();
  for (const { at, port, words, trees } of moments.values()) {
    const key = `${Math.round(at / 1000)} ${words} ${trees.join()}`;
    const known = alike.get(key);
    if (known) known.ports.push(port);
    else alike.set(key, { at, words, where: where(trees), ports: [port] });
  }
  return [...alike.values()].flatMap(({ at, words, where: there, ports }): Line[] =>
    ports.length > MANY
      ? [{ at, kind: 'port', text: `${ports.length} ports ${manyWords(words)}${there}: ${portList(design, ports)}.` }]
      : ports.map((port) => ({ at, kind: 'port', text: `${portWords(design, port)} ${words}${there}.` })),
  );
}

const manyWords = (words: string): string =>
  words
    .replace(/^was /, 'were ')
    .replace(/^is held back by its guard/, 'are held back by their guards')
    .replace(/ port$/, ' ports');

/** The first few of some ports, and how many more. */
export const portList = (design: Design, ports: readonly string[]): string =>
  ports
    .slice(0, 6)
    .map((p) => portWords(design, p))
    .join(', ') + (ports.length > 6 ? ` and ${ports.length - 6} more ports` : '');

const grouped = (n: number): string => String(Math.round(n)).replace(/\B(?=(\d{3})+$)/g, '\u202f');

/** What a loop does: copies, tables that point to and fro, and when its slowest link is full. */
export function effectWords(loop: LoopSpan): string {
  const { full, copies, broadcasts, fullAfter } = loopEffect(loop);
  const filled =
    fullAfter === null
      ? `${grouped(broadcasts)} of them fill ${loop.rate} Mb/s`
      : `copies double at every turn, so that a single one fills ${loop.rate} Mb/s after ${lasting(fullAfter)}`;
  return `Once round takes ${lasting(loop.around)}: every host hears each broadcast ${grouped(copies)} times a second, and tables point to and fro as often; ${filled} (${grouped(full)} frames a second).`;
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
        text: `${portWords(design, h.port)} heard a BPDU and was shut by its guard${h.until === null ? ', for good' : ` until ${seconds(h.until)}`}.`,
      };
    case 'recover':
      return { at: h.at, kind: 'guard', text: `${portWords(design, h.port)} came back by itself.` };
    case 'bundle':
      return {
        at: h.at,
        kind: 'port',
        text: `Bundle ${portWords(design, h.bundle)}: ${h.active} of ${h.of} members carry.`,
      };
    case 'restart':
      return { at: h.at, kind: 'note', text: `${switchById(design, h.switch)?.name ?? h.switch} starts anew.` };
    case 'loop':
    case 'loop-end':
    case 'flush':
      return null;
  }
}

/** Who took over as root, and for how long nobody, or more than one, did. */
function rootLines(design: Design, trace: Trace): Line[] {
  const name = (id: string) => switchById(design, id)?.name ?? id;
  const byMoment = new Map<string, { at: number; root: string; since: number | null; trees: string[] }>();
  for (const { tree, spans } of trace.roots) {
    let agreed: string | null = null;
    let lost: number | null = null;
    for (const { at, roots } of spans) {
      if (roots.length !== 1) {
        lost ??= at;
        continue;
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
    }
  }
  return [...byMoment.values()].map(({ at, root, since, trees }) => {
    const without = since === null || since === at ? '' : `, ${lasting(at - since)} after the last one was agreed on`;
    return {
      at,
      kind: 'port',
      text: `${name(root)} is root in ${treesWords(trace, trees)}${without}.`,
    };
  });
}

/** Frames that begin, or cease, to go round: one line for all trees in which they do so over the same ports. */
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
    const where = `in ${same.map((s) => s.loop.tree).join(', ')} over ${portList(design, loop.ports)}`;
    const text = ended
      ? `Nothing goes round ${where} any more, after ${lasting(at - loop.from)}.`
      : `Frames go round ${where}. ${effectWords(loop)}`;
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
    text: `${entries} table ${entries === 1 ? 'entry' : 'entries'} of the probed hosts flushed on ${switches.size} ${switches.size === 1 ? 'switch' : 'switches'}.`,
  }));
}

const ORDER: Record<Line['kind'], number> = { event: 0, loop: 1, guard: 2, port: 3, contact: 4, note: 5 };

/** The story of a rehearsal in the order of time. */
export function storyOf(design: Design, trace: Trace): Line[] {
  const lines = [
    ...trace.happenings.flatMap((h) => happeningLine(design, h) ?? []),
    ...loopLines(design, trace),
    ...rootLines(design, trace),
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
