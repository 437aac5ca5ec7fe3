/** The state at a moment of a rehearsal: guarded ports with why and how long, and frames that loop. */
import { bundleById, hasSilenceGuard, portById, untaggedWords } from '../design';
import type { Design } from '../design';
import type { Happening, LoopSpan, Trace } from './recorder';
import { loopEffect } from './loop-effect';
import { spanAt } from './story';
import { portList, portWords, treesWords, vlansWords } from './words';
import { storyMessages as say } from '../messages';

export interface Standing {
  readonly kind: 'guard' | 'loop';
  /** Ports it is about. */
  readonly ports: readonly string[];
  readonly text: string;
}

type Shut = Extract<Happening, { kind: 'guard' }>;

/** Ports that are shut at a moment, each with what shut it and when it comes back. */
export function shutAt(trace: Trace, at: number): Map<string, Shut> {
  const shut = new Map<string, Shut>();
  for (const h of trace.happenings) {
    if (h.at > at) break;
    if (h.kind === 'guard') shut.set(h.port, h);
    else if (h.kind === 'recover') shut.delete(h.port);
  }
  return shut;
}

/** Why a port is held back without being shut. */
function heldWords(design: Design, id: string): string {
  const port = portWords(design, id);
  const element = portById(design, id) ?? bundleById(design, id);
  // A root guard holds a port that receives; of the other two a port has one at most that acts.
  if (element?.rootGuard) return say['now-root-guard']({ port });
  return element && hasSilenceGuard(design, element)
    ? say['now-silence-guard']({ port })
    : say['now-loop-guard']({ port });
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
      const vlans = vlansWords(
        trace,
        same.map((l) => l.vlan),
      );
      return {
        kind: 'loop',
        ports: loop.ports,
        text: say['now-looping']({
          vlans,
          ports: portList(design, loop.ports),
          since: at - loop.from,
          effect: loopEffect(loop),
        }),
      };
    }),
    ...[...shut].map(([port, { until, guard }]): Standing => ({
      kind: 'guard',
      ports: [port],
      text: say['now-shut']({ port: portWords(design, port), until, at, guard }),
    })),
    ...[...inconsistent].map(([port, trees]): Standing => ({
      kind: 'guard',
      ports: [port],
      text: say['now-inconsistent']({
        port: portWords(design, port),
        trees: treesWords(trace, trees, { design, port }),
        difference: untaggedWords(design, port),
      }),
    })),
    ...[...held].map((port): Standing => ({ kind: 'guard', ports: [port], text: heldWords(design, port) })),
  ];
}
