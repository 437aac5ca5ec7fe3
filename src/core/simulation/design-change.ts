/** A changed design is taken over while the network runs: what can go on goes on, and nothing else restarts. */
import { vlanMembership } from '../standard';
import { linkById } from '../design';
import type { Design } from '../design';
import { sameOctets } from '../protocols/frames';
import { refresh } from './build';
import { portsOfLink } from './carrier';
import { addPortTo, changeBridge, changePort, enable, hasPort } from './engines';
import { addBundleEnds, addPhysical } from './physical';
import { drain, note, setUp } from './switch';
import { planOf } from './plan';
import type { NodePlan, ProcessPlan } from './plan';
import {
  addBridgePort,
  addNode,
  changeIfDifferent,
  endProcess,
  guardsOf,
  processesByVlan,
  settingsAt,
  startProcess,
  startProcesses,
} from './processes';
import type { BridgePort, Node, Process, World } from './network-state';

/** Takes a design over in which a link is down or whole again and nothing else changed. */
export function changeLight(w: World, drawn: Design, link: string): void {
  // A pair of switches acts otherwise without its peer link.
  if (drawn.pairs.length > 0) return changeDesign(w, drawn);
  w.drawn = drawn;
  w.plan = { ...w.plan, design: drawn };
  refresh(w, portsOfLink(linkById(drawn, link)!));
}

/** Takes a changed design over. */
export function changeDesign(w: World, drawn: Design): void {
  w.drawn = drawn;
  w.plan = planOf(drawn, w.plan.representative);
  const wanted = new Set(w.plan.nodes.map((n) => n.id));
  for (const node of w.nodes.values()) if (!wanted.has(node.plan.id)) removeNode(w, node);
  // Ports go before they come: those of a pair go from one of its switches to the other.
  for (const plan of w.plan.nodes) {
    const node = w.nodes.get(plan.id);
    if (node) removePorts(w, node, plan);
  }
  for (const plan of w.plan.nodes) {
    const node = w.nodes.get(plan.id);
    if (node) changeNode(w, node, plan);
    else {
      addNode(w, plan);
      w.record.happened({ kind: 'restart', at: w.now, switch: plan.id });
    }
  }
  addBundleEnds(w);
  addPhysical(w);
  refresh(w);
}

function removeNode(w: World, node: Node): void {
  for (const process of node.processes) endProcess(w, process);
  for (const bp of node.ports.values()) w.bridgePorts.delete(bp.id);
  w.nodes.delete(node.plan.id);
}

/** Takes ports and bundles out that the switch has no more. */
function removePorts(w: World, node: Node, plan: NodePlan): void {
  const kept = new Set(plan.elements.map((e) => `${e.number} ${e.id}`));
  for (const bp of [...node.ports.values()]) {
    if (kept.has(`${bp.number} ${bp.id}`)) continue;
    setUp(w, node, [bp], false);
    node.ports.delete(bp.number);
    w.bridgePorts.delete(bp.id);
    for (const { members, outlets, lanes } of node.processes)
      members[bp.number] = outlets[bp.number] = lanes[bp.number] = undefined;
  }
}

function changeNode(w: World, node: Node, plan: NodePlan): void {
  node.plan = plan;
  for (const element of plan.elements) {
    const bp = node.ports.get(element.number) ?? addBridgePort(w, node, element);
    Object.assign(bp, { element, ...guardsOf(w, element) });
    bp.vlans = vlanMembership(element.vlans ?? 'all');
  }
  forgetVlans(node);
  if (node.on === plan.on) return changeProcesses(w, node);
  node.on = plan.on;
  startProcesses(w, node);
  if (plan.on) w.record.happened({ kind: 'restart', at: w.now, switch: plan.id });
}

/** What was learnt at a port in a VLAN that it carries no more is forgotten. */
function forgetVlans(node: Node): void {
  const carried = new Map([...node.ports.values()].map((bp) => [bp.id, bp.vlans]));
  for (const [key, { port }] of node.table) if (!carried.get(port)?.[parseInt(key, 10)]) node.table.delete(key);
}

/** Whether a process can go on as the other: the same protocol, trees and region. */
function canGoOn(was: ProcessPlan, is: ProcessPlan): boolean {
  const [a, b] = [was.settings.configuration, is.settings.configuration];
  return (
    was.engine === is.engine &&
    was.settings.version === is.settings.version &&
    was.settings.mac === is.settings.mac &&
    was.trees.join() === is.trees.join() &&
    (a === b || (a !== null && b !== null && sameOctets(a, b)))
  );
}

function changeProcesses(w: World, node: Node): void {
  const before = new Map(node.processes.map((p) => [p.plan.vlan, p]));
  const fresh: Process[] = [];
  const processes = node.plan.processes.map((plan) => {
    const known = before.get(plan.vlan);
    if (known && canGoOn(known.plan, plan)) {
      before.delete(plan.vlan);
      return known;
    }
    const process = startProcess(w, node, plan);
    fresh.push(process);
    return process;
  });
  for (const process of before.values()) endProcess(w, process);
  if (fresh.length > 0 || before.size > 0) {
    node.processes = processes;
    node.byVlan = processesByVlan(processes);
  }
  processes.forEach((process, i) => {
    if (fresh.includes(process)) bringUp(w, process);
    else goOn(w, process, node.plan.processes[i]!);
  });
  // All of them are new where a switch begins to act by itself.
  if (fresh.length > 0 && (fresh.length === processes.length || fresh.some(({ plan }) => before.has(plan.vlan))))
    w.record.happened({ kind: 'restart', at: w.now, switch: node.plan.id });
}

/** The ports of a new process that are up. */
function bringUp(w: World, process: Process): void {
  const up = [...process.node.ports.values()].filter((bp) => bp.up && process.members[bp.number]);
  turn(w, process, up, true);
}

function turn(w: World, process: Process, ports: readonly BridgePort[], on: boolean): void {
  enable(
    process.engine,
    ports.map((bp) => bp.number),
    on,
    w.now,
  );
  for (const bp of ports) note(w, process, bp.number);
  drain(w, process);
}

/** A process goes on with other settings, and with ports that carry its VLAN now, or do no more. */
function goOn(w: World, process: Process, plan: ProcessPlan): void {
  const { settings: was } = process.plan;
  const ports = [...process.node.ports.values()];
  const member = (bp: BridgePort) => process.members[bp.number] === true;
  const leaving = ports.filter((bp) => member(bp) && !plan.ports.includes(bp.id));
  const joining = ports.filter((bp) => !member(bp) && plan.ports.includes(bp.id));
  turn(w, process, leaving, false);
  for (const bp of leaving) process.members[bp.number] = undefined;
  process.plan = plan;
  for (const bp of joining) join(w, process, bp);
  if (JSON.stringify([was.trees, was.timers]) !== JSON.stringify([plan.settings.trees, plan.settings.timers])) {
    changeBridge(process.engine, plan.settings, w.now);
    drain(w, process);
  }
  for (const bp of ports) if (member(bp)) changeIfDifferent(w, process, bp);
  turn(
    w,
    process,
    joining.filter((bp) => bp.up),
    true,
  );
}

function join(w: World, process: Process, bp: BridgePort): void {
  const settings = settingsAt(w, process.node, process.plan, bp);
  process.members[bp.number] = true;
  process.settings.set(bp.number, settings);
  if (hasPort(process.engine, bp.number)) changePort(process.engine, settings, w.now);
  else addPortTo(process.engine, settings);
}
