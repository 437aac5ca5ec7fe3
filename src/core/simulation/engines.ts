/** One face for both kinds of spanning tree engine: start, hear, tick, set, and what a port is in a tree. */
import {
  addStpPort,
  createStpBridge,
  hearStpBpdu,
  nextStpTimer,
  setStpPort,
  setStpPortEnabled,
  setStpPriority,
  setStpTimers,
  wakeStpBridge,
  rootGuarded,
} from '../protocols/stp';
import type { StpPortSettings } from '../protocols/stp';
import { addPort, createBridge, hearBpdu, setBridge, setPort, setPortsEnabled, tickBridge } from '../protocols/mst';
import type { BridgeSettings, MachineRole, PortSettings, TreePort } from '../protocols/mst';
import type { ProcessPlan } from './plan';
import { classicState } from '../trace';
import type { PortState, RunRole } from '../trace';
import type { Engine } from './network-state';

const classicPort = (s: PortSettings): StpPortSettings => ({
  number: s.number,
  portId: s.portId[0]!,
  pathCost: s.externalCost,
  edge: s.edge,
  loopGuard: s.loopGuard ?? false,
  rootGuard: s.restrictedRole ?? false,
  tcGuard: s.restrictedTcn ?? false,
});
const classicBridge = ({ mac, trees, timers }: BridgeSettings) => ({ mac, priority: trees[0]!.priority, ...timers });

/** `phase`: microseconds by which a classic bridge says its first hello later than others. */
export function startEngine(plan: ProcessPlan, ports: readonly PortSettings[], now: number, phase: number): Engine {
  if (plan.engine === 'mst') return { kind: 'mst', bridge: createBridge(plan.settings, ports) };
  const bridge = createStpBridge(classicBridge(plan.settings), ports.map(classicPort), now);
  bridge.helloTimer = (bridge.helloTimer ?? now) + phase;
  return { kind: 'stp', bridge, wakeAt: Infinity };
}

export function enable(engine: Engine, ports: readonly number[], on: boolean, now: number): void {
  if (engine.kind === 'mst') setPortsEnabled(engine.bridge, ports, on);
  else for (const port of ports) setStpPortEnabled(engine.bridge, port, on, now);
}

export function hear(engine: Engine, port: number, octets: Uint8Array, now: number): void {
  if (engine.kind === 'mst') hearBpdu(engine.bridge, port, octets);
  else hearStpBpdu(engine.bridge, port, octets, now);
}

export function changePort(engine: Engine, settings: PortSettings, now: number): void {
  if (engine.kind === 'mst') setPort(engine.bridge, settings);
  else setStpPort(engine.bridge, classicPort(settings), now);
}

/** Adds a port to a bridge that runs; disabled. */
export function addPortTo(engine: Engine, settings: PortSettings): void {
  if (engine.kind === 'mst') addPort(engine.bridge, settings);
  else addStpPort(engine.bridge, classicPort(settings));
}

export const hasPort = (engine: Engine, port: number): boolean => engine.bridge.byNumber[port] !== undefined;

/** Takes priorities and timers of a bridge over. */
export function changeBridge(engine: Engine, settings: BridgeSettings, now: number): void {
  if (engine.kind === 'mst') return setBridge(engine.bridge, settings);
  setStpTimers(engine.bridge, settings.timers);
  setStpPriority(engine.bridge, settings.trees[0]!.priority, now);
}

/** A second of the rapid machines; the classic one has its own timers. */
export function tick(engine: Engine): void {
  if (engine.kind === 'mst') tickBridge(engine.bridge);
}

export function wake(engine: Engine, now: number): void {
  if (engine.kind === 'stp') wakeStpBridge(engine.bridge, now);
}

/** When a classic bridge wants to be woken; Infinity for a rapid one. */
export const wakeTime = (engine: Engine): number =>
  engine.kind === 'stp' ? (nextStpTimer(engine.bridge) ?? Infinity) : Infinity;

const ROLE: Record<MachineRole, RunRole> = {
  Disabled: 'disabled',
  Root: 'root',
  Designated: 'designated',
  Alternate: 'alternate',
  Backup: 'backup',
  Master: 'master',
};
/** Held since it may not be root port and hears of a better root than the bridge has. */
function rapidRootGuarded({ port, role, infoIs, portPriority, designatedPriority }: TreePort): boolean {
  const order =
    portPriority.rootPriority - designatedPriority.rootPriority || portPriority.rootMac - designatedPriority.rootMac;
  return port.restrictedRole && role === 'Alternate' && infoIs === 'Received' && order < 0;
}

const rapidState = (tp: TreePort): PortState =>
  tp.role === 'Disabled'
    ? 'disabled'
    : tp.forwarding
      ? 'forwarding'
      : tp.learning
        ? 'learning'
        : tp.port.loopInconsistent || tp.port.silent || rapidRootGuarded(tp)
          ? 'guarded'
          : 'discarding';

/** Role and state of a port in a tree of the process; null for a port it does not have. */
export function standingOf(engine: Engine, port: number, tree: number): { role: RunRole; state: PortState } | null {
  if (engine.kind === 'mst') {
    const tp = engine.bridge.byNumber[port]?.trees[tree];
    return tp ? { role: ROLE[tp.role], state: rapidState(tp) } : null;
  }
  const { bridge } = engine;
  const p = bridge.byNumber[port];
  if (!p) return null;
  const backup = p.designatedBridgeMac === bridge.settings.mac;
  const role = p.role === 'blocked' ? (backup ? 'backup' : 'alternate') : p.role;
  return { role, state: p.held || rootGuarded(bridge, p) ? 'guarded' : classicState[p.state] };
}

/** Whether frames pass a port in a tree of the process. */
export function isForwarding(engine: Engine, port: number, tree: number): boolean {
  if (engine.kind === 'mst') return engine.bridge.byNumber[port]?.trees[tree]?.forwarding === true;
  const p = engine.bridge.byNumber[port];
  return p !== undefined && p.state === 'forwarding' && !p.held;
}

/** Whether the process takes its bridge for the root of a tree. */
export function isRootOf(engine: Engine, tree: number): boolean {
  if (engine.kind === 'mst') {
    const t = engine.bridge.trees[tree]!;
    return t.rootPort === null && !engine.bridge.ports.some((p) => p.trees[tree]!.role === 'Master');
  }
  return engine.bridge.rootPort === null;
}

/** Address of the bridge that the process takes for the root of a tree; of an instance, for its regional root. */
export function rootMacOf(engine: Engine, tree: number): number {
  if (engine.kind === 'stp') return engine.bridge.designatedRootMac;
  const { rootMac, regionalMac } = engine.bridge.trees[tree]!.rootPriority;
  return tree > 0 ? regionalMac : rootMac;
}
