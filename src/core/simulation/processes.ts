/** Switches of the running network and the spanning tree processes they run: started, and set while they run. */
import { vlanMembership } from '../standard';
import { filterOf, hasBpduGuard } from '../design';
import type { Bundle, Port } from '../design';
import type { PortSettings } from '../protocols/mst';
import { changePort, startEngine } from './engines';
import { drain, forgetRoots } from './switch';
import { portSettings } from './plan';
import type { NodePlan, ProcessPlan } from './plan';
import type { BridgePort, Node, Process, World } from './network-state';

export const settingsAt = (w: World, node: Node, process: ProcessPlan, bp: BridgePort) =>
  portSettings(w.plan.design, node.plan, process, bp.element, bp.active);

export function startProcess(w: World, node: Node, plan: ProcessPlan): Process {
  const settings = plan.ports.map((id) => settingsAt(w, node, plan, w.bridgePorts.get(id)!));
  return {
    node,
    plan,
    engine: startEngine(plan, settings, w.now, node.phase),
    members: settings.reduce<boolean[]>((set, s) => ((set[s.number] = true), set), []),
    settings: new Map(settings.map((s) => [s.number, s])),
    shortAgeing: false,
    outlets: [],
    lanes: [],
  };
}

/** A process runs no more: its ports are nothing in its trees, and its switch is root of none. */
export function endProcess(w: World, { plan, node }: Process): void {
  forgetRoots(w, node, plan.trees);
  for (const tree of w.now < 0 ? [] : plan.trees)
    for (const id of plan.ports) w.record.port(w.now, w.record.lane(tree, id), 'disabled', 'disabled');
}

export const processesByVlan = (processes: readonly Process[]): ReadonlyMap<number, Process> =>
  new Map(processes.map((p) => [p.plan.vlan ?? 0, p]));

/** Starts the processes of a switch again; its ports come up afterwards. */
export function startProcesses(w: World, node: Node): void {
  for (const process of node.processes) endProcess(w, process);
  node.processes = node.on ? node.plan.processes.map((plan) => startProcess(w, node, plan)) : [];
  node.byVlan = processesByVlan(node.processes);
  for (const bp of node.ports.values()) bp.up = false;
  node.table.clear();
}

/** Guards in force at a port or bundle. */
export const guardsOf = ({ plan: { design } }: World, element: Port | Bundle) => ({
  guard: hasBpduGuard(design, element),
  filter: filterOf(design, element),
});

/** A port or bundle as a bridge port of a switch, down. */
export function addBridgePort(w: World, node: Node, element: Port | Bundle): BridgePort {
  const bp: BridgePort = {
    id: element.id,
    number: element.number,
    node,
    element,
    vlans: vlanMembership(element.vlans ?? 'all'),
    up: false,
    since: w.now,
    ...guardsOf(w, element),
    yielded: false,
    active: [],
    shutUntil: w.bridgePorts.get(element.id)?.shutUntil ?? null,
    inconsistent: null,
  };
  node.ports.set(element.number, bp);
  w.bridgePorts.set(element.id, bp);
  return bp;
}

/** A switch that is not there yet; its seconds begin within the spread of the hellos. */
export function addNode(w: World, plan: NodePlan): void {
  const node: Node = {
    plan,
    on: plan.on,
    treeOff: false,
    processes: [],
    byVlan: new Map(),
    ports: new Map(),
    table: new Map(),
    phase: Math.floor(w.random() * w.helloSpread),
  };
  w.nodes.set(plan.id, node);
  for (const element of plan.elements) addBridgePort(w, node, element);
  startProcesses(w, node);
  w.queue.push(w.now + node.phase, { kind: 'second', node });
}

/** Sets a port in a process where its settings are others than they were. */
export function changeIfDifferent(w: World, process: Process, bp: BridgePort): void {
  const settings = settingsAt(w, process.node, process.plan, bp);
  if (sameSettings(process.settings.get(bp.number), settings)) return;
  process.settings.set(bp.number, settings);
  changePort(process.engine, settings, w.now);
  drain(w, process);
}

const sameList = (a: readonly number[], b: readonly number[]): boolean =>
  a.length === b.length && a.every((n, i) => n === b[i]);
const sameSettings = (a: PortSettings | undefined, b: PortSettings): boolean =>
  a !== undefined &&
  a.pointToPoint === b.pointToPoint &&
  a.edge === b.edge &&
  a.autoEdge === b.autoEdge &&
  a.restrictedRole === b.restrictedRole &&
  a.restrictedTcn === b.restrictedTcn &&
  a.loopGuard === b.loopGuard &&
  a.silenceGuard === b.silenceGuard &&
  a.helloTime === b.helloTime &&
  a.externalCost === b.externalCost &&
  sameList(a.portId, b.portId) &&
  sameList(a.internalCost, b.internalCost);
