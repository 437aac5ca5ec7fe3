/** Storm limits: how much broadcast ports accept, and what becomes of a loop by them. */
import { portById } from '../design';
import { SECOND } from '../standard';
import { speedOf } from './switch';
import type { BridgePort, Due, World } from './network-state';

/** A physical port in a loop that limits broadcast, and to how many Mb/s. */
interface Limited {
  readonly id: string;
  readonly shuts: boolean;
  readonly rate: number;
}

const limitedPorts = (w: World, ports: readonly BridgePort[]): Limited[] =>
  ports.flatMap((bp) =>
    bp.active.flatMap((id): Limited[] => {
      const port = portById(w.plan.design, id);
      if (port?.stormLimit === undefined) return [];
      return [{ id, shuts: port.stormAction === 'shut', rate: (speedOf(w, bp) * port.stormLimit) / 100 }];
    }),
  );

/** Mb/s of broadcast that the ports of a loop let through; null where none limits it. */
export function limitOf(w: World, ports: readonly BridgePort[]): number | null {
  const limits = limitedPorts(w, ports).map((l) => l.rate);
  return limits.length === 0 ? null : Math.min(...limits);
}

/** What arrives is measured over a second: then the port of a loop that allows least is shut, if it is set so. */
export function awaitStorm(w: World, ports: readonly string[]): void {
  const shutting = limitedPorts(
    w,
    ports.flatMap((id) => w.bridgePorts.get(id) ?? []),
  ).filter((l) => l.shuts);
  const [first] = shutting.sort((a, b) => a.rate - b.rate || (a.id < b.id ? -1 : 1));
  if (first) w.queue.push(Math.max(0, w.now) + SECOND, { kind: 'storm', port: first.id });
}

/** Whether a port has to be shut, since frames loop through it still. */
export function isInStorm(w: World, { port }: Extract<Due, { kind: 'storm' }>): boolean {
  const physical = w.physical.get(port);
  if (!physical || physical.own.shutUntil !== null || portById(w.plan.design, port)?.stormAction !== 'shut')
    return false;
  const bp = physical.attached ?? physical.own;
  return w.record.loopSpans.some((l) => l.to === null && l.ports.includes(bp.id));
}
