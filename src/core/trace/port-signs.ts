/** What is drawn at ports at a moment of a run: what a script has plugged in, and guards that act, with the time left. */
import { signMessages as say } from '../messages';
import { portById } from '../design';
import type { Design, Script } from '../design';
import { asItStands } from './design-at';
import type { Trace } from './recorder';
import { shutAt } from './status';
import { spanAt } from './story';

export interface PortSign {
  readonly port: string;
  /** Short: it stands in the drawing. */
  readonly words: string;
  readonly kind: 'plugged' | 'guard';
}

/** Signs in the order in which they came; what is plugged in before the guard that acts on it. `at` in microseconds. */
export function portSigns(design: Design, script: Script, trace: Trace, at: number): PortSign[] {
  const name = (port: string) => portById(design, port)?.name ?? '';
  const shut = shutAt(trace, at);
  const held = new Set<string>();
  for (const { port, spans } of trace.ports)
    if (!shut.has(port) && spanAt(spans, at)?.state === 'guarded') held.add(port);
  const plugs = script.events.some((e) => e.kind === 'intruder' || e.kind === 'hub-loop');
  const extras = plugs ? asItStands(design, script, trace, at).extras : [];
  const plugged = extras.flatMap((event): PortSign[] => {
    if (event.kind === 'intruder')
      return [
        {
          port: event.port,
          kind: 'plugged',
          words: say.stranger({ port: name(event.port), priority: event.priority }),
        },
      ];
    if (event.kind !== 'hub-loop') return [];
    return [{ port: event.port, kind: 'plugged', words: say.hub({ port: name(event.port) }) }];
  });
  return [
    ...plugged,
    ...[...shut].map(([port, { until, guard }]): PortSign => {
      const left = until === null ? null : until - at;
      return { port, kind: 'guard', words: say.shut({ port: name(port), guard, left }) };
    }),
    ...[...held].map((port): PortSign => ({ port, kind: 'guard', words: say.held({ port: name(port) }) })),
  ];
}
