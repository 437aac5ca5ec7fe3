/** Builds the running network from a plan, and brings it up to date when the plan changes under it. */
import { hostById, portById } from '../design';
import type { Design } from '../design';
import type { PortSettings } from '../machines/mst';
import { vlanMembership } from '../standard';
import { changePort, changePriorities, startEngine } from './engines';
import { goOn, hearAt, light, memberStanding } from './lag';
import { addLags, addPhysical } from './physical';
import { contactSoon, drain, hasCarrier, isBundle, note, forgetRoots, setUp } from './network';
import { planOf, portSettings } from './plan';
import type { NetworkPlan, NodePlan, ProcessPlan } from './plan';
import { EventQueue } from './queue';
import { Recorder } from './recorder';
import type { BridgePort, Lag, Node, Process, World } from './world';

/** A generator of even chances from a seed (mulberry32). */
export function chance(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const settingsAt = (w: World, node: Node, process: ProcessPlan, bp: BridgePort) =>
  portSettings(w.plan.design, node.plan, process, bp.element, bp.active);

function startProcess(w: World, node: Node, plan: ProcessPlan): Process {
  const settings = plan.ports.map((id) => settingsAt(w, node, plan, w.bridgePorts.get(id)!));
  return {
    node,
    plan,
    engine: startEngine(plan, settings, w.now, node.phase),
    members: settings.reduce<boolean[]>((set, s) => ((set[s.number] = true), set), []),
    settings: new Map(settings.map((s) => [s.number, s])),
    shortAgeing: false,
    sent: [],
    lanes: [],
  };
}

/** Starts the processes of a switch anew, with the ports that are up. */
function startProcesses(w: World, node: Node): void {
  for (const { plan } of node.processes)
    for (const tree of plan.trees) {
      for (const id of plan.ports) w.record.port(w.now, w.record.lane(tree, id), 'disabled', 'disabled');
    }
  forgetRoots(w, node);
  node.processes = node.on ? node.plan.processes.map((plan) => startProcess(w, node, plan)) : [];
  node.byVlan = new Map(node.processes.map((p) => [p.plan.vlan ?? 0, p]));
  for (const bp of node.ports.values()) bp.up = false;
  node.table.clear();
}

function addNode(w: World, plan: NodePlan): Node {
  const known = w.nodes.get(plan.id);
  const node: Node = {
    plan,
    on: plan.on,
    treeOff: known?.treeOff ?? false,
    processes: [],
    byVlan: new Map(),
    ports: new Map(),
    table: new Map(),
    phase: known?.phase ?? Math.floor(w.random() * w.helloSpread),
  };
  w.nodes.set(plan.id, node);
  for (const element of plan.elements) {
    const bp: BridgePort = {
      id: element.id,
      number: element.number,
      node,
      element,
      vlans: vlanMembership(element.vlans ?? 'all'),
      up: false,
      active: [],
      shutUntil: w.bridgePorts.get(element.id)?.shutUntil ?? null,
    };
    node.ports.set(element.number, bp);
    w.bridgePorts.set(element.id, bp);
  }
  startProcesses(w, node);
  return node;
}

/** What of a switch cannot change while it runs: with another one it starts anew. */
const structure = (plan: NodePlan): string =>
  JSON.stringify([
    plan.mode,
    plan.mac,
    plan.elements.map((e) => [e.id, e.number, e.vlans ?? 'all']),
    plan.processes.map((p) => [
      p.vlan,
      p.engine,
      p.trees,
      p.settings.configuration ? [...p.settings.configuration] : 0,
      p.settings.timers,
    ]),
    plan.map ? [...plan.map] : 0,
  ]);

/** Takes a design over in which links are down or whole again and nothing else changed. */
export function changeLight(w: World, drawn: Design): void {
  // A pair of switches acts otherwise without its peer link.
  if (drawn.pairs.length > 0) return changeDesign(w, drawn);
  w.drawn = drawn;
  w.plan = { ...w.plan, design: drawn };
  refresh(w);
}

/** Takes a changed design over: what can be set is set, a switch that is built otherwise starts anew. */
export function changeDesign(w: World, drawn: Design): void {
  w.drawn = drawn;
  const before = w.plan;
  w.plan = planOf(drawn, before.representative);
  for (const plan of w.plan.nodes) {
    const node = w.nodes.get(plan.id);
    const old = before.nodes.find((n) => n.id === plan.id);
    if (!node || !old || structure(old) !== structure(plan)) {
      addNode(w, plan);
      if (old) w.record.happened({ kind: 'restart', at: w.now, switch: plan.id });
      continue;
    }
    (node as { plan: NodePlan }).plan = plan;
    for (const element of plan.elements)
      (node.ports.get(element.number) as { element: typeof element }).element = element;
    if (node.on !== plan.on) {
      node.on = plan.on;
      startProcesses(w, node);
      if (plan.on) w.record.happened({ kind: 'restart', at: w.now, switch: plan.id });
      continue;
    }
    applySettings(w, node, old, plan);
  }
  for (const id of w.nodes.keys()) if (!w.plan.nodes.some((n) => n.id === id)) w.nodes.delete(id);
  addLags(w);
  addPhysical(w);
  refresh(w);
}

function applySettings(w: World, node: Node, old: NodePlan, plan: NodePlan): void {
  node.processes.forEach((process, i) => {
    const [was, is] = [old.processes[i]!, plan.processes[i]!];
    (process as { plan: ProcessPlan }).plan = is;
    if (JSON.stringify(was.settings.trees) !== JSON.stringify(is.settings.trees)) {
      changePriorities(process.engine, is.settings, w.now);
      drain(w, process);
    }
    for (const bp of node.ports.values()) if (is.ports.includes(bp.id)) changeIfDifferent(w, process, bp);
  });
}

/** Sets a port in a process where its settings are others than they were. */
function changeIfDifferent(w: World, process: Process, bp: BridgePort): void {
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
  a.externalCost === b.externalCost &&
  sameList(a.portId, b.portId) &&
  sameList(a.internalCost, b.internalCost);

/** Looks at light, bundles and ports anew until nothing moves. */
export function refresh(w: World): void {
  w.routes.clear();
  for (const port of w.plan.design.ports) {
    const physical = w.physical.get(port.id)!;
    physical.carrier = hasCarrier(w, port) && physical.own.shutUntil === null;
  }
  for (const lag of [...w.lags.values(), ...w.hostLags.values()]) light(w, lag);
  attach(w);
}

/** Which member carries for which bundle, and which ports are up because of it. */
export function attach(w: World): void {
  w.lans = null;
  w.routes.clear();
  w.changed.add(-1);
  contactSoon(w);
  for (const lag of w.lags.values()) {
    const active: string[] = [];
    for (const id of lag.members) {
      const physical = w.physical.get(id)!;
      const standing = memberStanding(w, lag, id);
      physical.attached = standing === 'active' ? lag.port : null;
      physical.held = standing === 'held';
      if (standing === 'active') active.push(id);
    }
    const bp = lag.port;
    if (!bp) continue;
    const enough = active.length >= Math.max(1, lag.bundle?.minActive ?? 1);
    const now = enough ? active : [];
    if (!enough) for (const id of active) Object.assign(w.physical.get(id)!, { attached: null, held: true });
    if (bp.active.join('\n') !== now.join('\n')) {
      bp.active = now;
      contactSoon(w);
      w.record.happened({ kind: 'bundle', at: w.now, bundle: bp.id, active: now.length, of: lag.members.length });
      for (const process of bp.node.processes) if (process.members[bp.number]) changeIfDifferent(w, process, bp);
    }
  }
  // Down first, so that a member is never two ports at once.
  const wanted = (bp: BridgePort): boolean => {
    if (!bp.node.on || bp.shutUntil !== null) return false;
    if (isBundle(bp.element)) return bp.active.length > 0;
    const physical = w.physical.get(bp.id);
    return physical !== undefined && physical.carrier && !physical.held && !physical.attached;
  };
  for (const bp of w.bridgePorts.values()) if (!isBundle(bp.element)) bp.active = [bp.id];
  for (const up of [false, true])
    for (const node of w.nodes.values())
      setUp(
        w,
        node,
        [...node.ports.values()].filter((bp) => bp.up !== up && wanted(bp) === up),
        up,
      );
}

function hearLacp(w: World, to: string, from: string, octets: Uint8Array, index: number): void {
  const { design } = w.plan;
  if (to === 'host') {
    const link = design.links.find((l) => [l.a, l.b].some((e) => 'port' in e && e.port === from));
    const host = link && [link.a, link.b].find((e) => 'host' in e);
    const lag = host && 'host' in host && hostById(design, host.host) ? w.hostLags.get(host.host) : undefined;
    if (lag) hearAt(w, lag, from, octets);
    return;
  }
  const lag = w.physical.get(to)?.lag;
  const sender = from === 'host' ? null : w.physical.get(from)?.lag;
  // Another kind of negotiation is not understood.
  const understood = lag?.end && (sender ? sender.bundle?.kind : 'lacp') === lag.bundle?.kind;
  w.record.heard(index, to, w.now, understood ? 'taken in' : 'ignored');
  if (!lag || !understood || !portById(design, to)) return;
  const before = standings(w, lag);
  hearAt(w, lag, to, octets);
  if (before !== standings(w, lag)) attach(w);
}

/** What the members of a bundle do, in one word to compare. */
const standings = (w: World, lag: Lag): string => lag.members.map((id) => memberStanding(w, lag, id)).join(' ');

export interface WorldOptions {
  readonly seed: number;
  readonly linkDelay: number;
  readonly processingDelay: number;
  /** Microseconds within which switches begin to count seconds. */
  readonly helloSpread: number;
  /** Microseconds before the start at which the network is switched on. */
  readonly warmUp: number;
}

/** The network as it is switched on, everything still down. */
export function createWorld(drawn: Design, plan: NetworkPlan, options: WorldOptions): World {
  const w: World = {
    now: -options.warmUp,
    drawn,
    plan,
    queue: new EventQueue(),
    nodes: new Map(),
    bridgePorts: new Map(),
    physical: new Map(),
    lags: new Map(),
    hostLags: new Map(),
    deaf: new Map(),
    mute: new Map(),
    loops: new Set(),
    intruders: new Map(),
    linkDelay: options.linkDelay,
    processingDelay: options.processingDelay,
    helloSpread: options.helloSpread,
    random: chance(options.seed),
    record: new Recorder(),
    contactDue: false,
    changed: new Set([-1]),
    looping: false,
    rootsOf: new Map(),
    lans: null,
    routes: new Map(),
    handled: 0,
    bpdus: 0,
    refresh: () => refresh(w),
    hearLacp: (to, from, octets, index) => hearLacp(w, to, from, octets, index),
  };
  for (const node of plan.nodes) addNode(w, node);
  addLags(w);
  addPhysical(w);
  for (const node of w.nodes.values()) w.queue.push(w.now + node.phase, { kind: 'second', node });
  refresh(w);
  for (const node of w.nodes.values())
    for (const process of node.processes) {
      for (const number of node.ports.keys()) note(w, process, number);
      drain(w, process);
    }
  return w;
}

/** A bundle's timer ran out. */
export function wakeLag(w: World, lag: Lag): void {
  if (lag.wakeAt > w.now || !lag.end || (lag.bundle && w.lags.get(lag.bundle.id) !== lag)) return;
  const before = standings(w, lag);
  goOn(w, lag);
  if (before !== standings(w, lag)) attach(w);
}
