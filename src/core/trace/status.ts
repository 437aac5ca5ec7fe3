/** The state at a moment of a rehearsal: guarded ports with why and how long, and frames that loop. */
import { bundleById, portById, untaggedWords } from '../design';
import type { Design } from '../design';
import type { LoopSpan, Trace } from './recorder';
import { effectWords, spanAt } from './story';
import { portList, portWords, treesWords, vlansWords } from './words';
import { lasting, seconds } from '../standard';

export interface Standing {
  readonly kind: 'guard' | 'loop';
  /** Ports it is about. */
  readonly ports: readonly string[];
  readonly text: string;
}

/** Ports that a BPDU guard holds shut at a moment, each with when it comes back; null for never. */
function shutAt(trace: Trace, at: number): Map<string, number | null> {
  const shut = new Map<string, number | null>();
  for (const h of trace.happenings) {
    if (h.at > at) break;
    if (h.kind === 'guard' && h.guard === 'bpdu') shut.set(h.port, h.until);
    else if (h.kind === 'recover') shut.delete(h.port);
  }
  return shut;
}

function shutWords(design: Design, port: string, until: number | null, at: number): string {
  const back =
    until === null
      ? 'it stays shut down until it is enabled by hand'
      : `it recovers in ${lasting(until - at)}, at ${seconds(until)}`;
  return `${portWords(design, port)} is shut down by BPDU guard: it received a BPDU; ${back}.`;
}

/** Why a port is held back without being shut. */
function heldWords(design: Design, port: string): string {
  const element = portById(design, port) ?? bundleById(design, port);
  return element?.rootGuard
    ? `${portWords(design, port)} is blocked by root guard while it receives superior BPDUs.`
    : `${portWords(design, port)} is blocked by loop guard: it receives no more BPDUs, and stays blocked until it does.`;
}

/** Loops of several trees that began together over the same ports. */
function loopsTogether(loops: readonly LoopSpan[]): LoopSpan[][] {
  const groups = new Map<string, LoopSpan[]>();
  for (const loop of loops) {
    const key = `${loop.from} ${[...loop.ports].sort().join()}`;
    groups.set(key, [...(groups.get(key) ?? []), loop]);
  }
  return [...groups.values()];
}

/** `at` in microseconds. */
export function standingOut(design: Design, trace: Trace, at: number): Standing[] {
  const shut = shutAt(trace, at);
  const held = new Set<string>();
  for (const lane of trace.ports)
    if (spanAt(lane.spans, at)?.state === 'guarded' && !shut.has(lane.port)) held.add(lane.port);
  const inconsistent = new Map<string, string[]>();
  for (const { tree, port, spans } of trace.ports)
    if (spanAt(spans, at)?.state === 'inconsistent') inconsistent.set(port, [...(inconsistent.get(port) ?? []), tree]);
  const loops = trace.loops.filter((l) => l.from <= at && (l.to === null || l.to > at));
  return [
    ...loopsTogether(loops).map((same): Standing => {
      const [loop] = same as [LoopSpan];
      const trees = vlansWords(
        trace,
        same.map((l) => l.vlan),
      );
      return {
        kind: 'loop',
        ports: loop.ports,
        text: `Frames ${at === loop.from ? `start to loop in ${trees}` : `have looped in ${trees} for ${lasting(at - loop.from)}`}, over ${portList(design, loop.ports)}. ${effectWords(loop)}`,
      };
    }),
    ...[...shut].map(([port, until]): Standing => ({
      kind: 'guard',
      ports: [port],
      text: shutWords(design, port, until, at),
    })),
    ...[...inconsistent].map(([port, trees]): Standing => ({
      kind: 'guard',
      ports: [port],
      text: `${portWords(design, port)} is inconsistent in ${treesWords(trace, trees, { design, port })}: ${untaggedWords(design, port)}.`,
    })),
    ...[...held].map((port): Standing => ({ kind: 'guard', ports: [port], text: heldWords(design, port) })),
  ];
}
