/** What every port of a tree is at a moment of a run, for how long it has been that and when it changes. */
import { bundleById, portById } from '../design';
import type { Design } from '../design';
import type { PortState, RunRole, Trace } from './recorder';
import { spanAt } from './story';

export interface PortAt {
  readonly port: string;
  readonly role: RunRole;
  readonly state: PortState;
  /** Microseconds; 0 where it stood so when the run began. */
  readonly since: number;
  /** When it becomes another one; null where it does not before the run ends. */
  readonly until: number | null;
}

/**
 * Ports and bundles that a rehearsed tree runs on, in the order of the switches and their ports. `switches`: of those alone;
 * empty for all.
 */
export function portsAt(
  design: Design,
  trace: Trace,
  tree: string,
  at: number,
  switches: ReadonlySet<string> = new Set(),
): PortAt[] {
  const element = (id: string) => portById(design, id) ?? bundleById(design, id);
  const order = new Map(design.switches.map((s, i) => [s.id, i]));
  const place = (id: string) => order.get(element(id)?.switch ?? '') ?? Infinity;
  return trace.ports
    .filter((lane) => lane.tree === tree)
    .filter(({ port }) => switches.size === 0 || switches.has(element(port)?.switch ?? ''))
    .flatMap(({ port, spans }): PortAt[] => {
      const span = spanAt(spans, at);
      if (!span) return [];
      const next = spans.find((s) => s.at > at);
      return [{ port, role: span.role, state: span.state, since: span.at, until: next?.at ?? null }];
    })
    .sort((a, b) => place(a.port) - place(b.port) || (element(a.port)?.number ?? 0) - (element(b.port)?.number ?? 0));
}
