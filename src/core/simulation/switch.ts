/** What a switch becomes and wants done, and what passes it. */
import { linkAt, linkSpeed, portById } from '../design';
import type { Bundle, Port } from '../design';
import { enable, isForwarding, isRootOf, standingOf, wakeTime } from './engines';
import { sendBpdu } from './transmit';
import type { Arrival, BridgePort, Engine, Node, Process, World } from './network-state';

/** Whether a port is held in the tree of a process because its BPDUs get into other VLANs. */
export const isInconsistent = ({ inconsistent }: BridgePort, { plan: { vlan } }: Process): boolean =>
  inconsistent !== null && vlan !== null && inconsistent.has(vlan);

/** Writes down what a port is now in every tree of a process; from the start of the rehearsal on. */
export function note(w: World, process: Process, number: number): void {
  if (w.now < 0) return;
  const bp = process.node.ports.get(number);
  if (!bp || !process.members[number]) return;
  const { trees } = process.plan;
  const lanes = (process.lanes[number] ??= trees.map((tree) => w.record.lane(tree, bp.id)));
  for (let i = 0; i < trees.length; i++) {
    // Without spanning tree there are no roles, and what is up forwards.
    const standing = process.node.treeOff
      ? { role: 'disabled' as const, state: bp.up ? ('forwarding' as const) : ('disabled' as const) }
      : standingOf(process.engine, number, i);
    if (!standing) return;
    if (isInconsistent(bp, process)) w.record.port(w.now, lanes[i]!, 'alternate', 'inconsistent');
    else w.record.port(w.now, lanes[i]!, standing.role, bp.shutUntil !== null ? 'guarded' : standing.state);
  }
}

/** Writes down whether a process takes its switch for the root of one of its trees, where that changed. */
function noteRoot(w: World, process: Process): void {
  if (w.now < 0) return;
  const { trees } = process.plan;
  const { id } = process.node.plan;
  for (let i = 0; i < trees.length; i++) {
    const tree = trees[i]!;
    let roots = w.rootsOf.get(tree);
    if (!roots) w.rootsOf.set(tree, (roots = new Set()));
    const is = process.node.on && !process.node.treeOff && isRootOf(process.engine, i);
    if (is === roots.has(id)) continue;
    if (is) roots.add(id);
    else roots.delete(id);
    w.record.roots(w.now, tree, [...roots]);
  }
}

/** Writes down how everything stands, when the rehearsal starts. */
export function noteAll(w: World): void {
  for (const node of w.nodes.values())
    for (const process of node.processes) {
      for (const number of node.ports.keys()) note(w, process, number);
      noteRoot(w, process);
    }
}

/** A switch that goes off, or restarts, is root of nothing; `trees`: of those alone. */
export function forgetRoots(w: World, node: Node, trees?: readonly string[]): void {
  for (const [tree, roots] of w.rootsOf)
    if ((!trees || trees.includes(tree)) && roots.delete(node.plan.id)) w.record.roots(w.now, tree, [...roots]);
}

/** Forgets addresses at ports in the VLANs of a tree. */
function flush(w: World, process: Process, ports: readonly number[], tree: number): void {
  const { node, plan } = process;
  const ids = new Set(ports.map((number) => node.ports.get(number)!.id));
  let entries = 0;
  for (const [key, entry] of node.table) {
    if (!ids.has(entry.port)) continue;
    const vlan = Number(key.slice(0, key.indexOf(' ')));
    const own = plan.vlan === null ? treeOfVlan(process, vlan) === tree : w.plan.representative.get(vlan) === plan.vlan;
    if (!own) continue;
    node.table.delete(key);
    entries++;
  }
  if (entries === 0) return;
  w.record.happened({ kind: 'flush', at: w.now, switch: node.plan.id, entries });
  contactSoon(w, [node]);
}

/** Performs what a process wants done. `arrival`: the frame that moved it, if one did. */
export function drain(w: World, process: Process, arrival?: Arrival): void {
  const { engine, node } = process;
  const { effects } = engine.bridge;
  if (effects.length > 0) {
    let moved = false;
    const rapid = engine.kind === 'mst';
    for (let i = 0; i < effects.length; i++) {
      const effect = effects[i]!;
      switch (effect.kind) {
        case 'send':
          sendBpdu(w, process, effect.port, effect.octets);
          break;
        case 'state':
          moved = true;
          if (rapid) note(w, process, effect.port);
          w.changed.add(process.plan.vlan ?? -1);
          contactSoon(w, [node]);
          break;
        case 'flush':
          if (node.table.size > 0) flush(w, process, effect.ports, effect.tree);
          break;
        case 'ageing':
          process.shortAgeing = effect.short;
          contactSoon(w, [node]);
          break;
        case 'heard':
          noteReceived(w, effect, arrival);
          break;
      }
    }
    effects.length = 0;
    if (moved) {
      // A guarded port, and any of a classic bridge, is another one without having moved itself.
      for (const bp of node.ports.values())
        if (!rapid || bp.element.rootGuard || bp.element.loopGuard || bp.element.silenceGuard)
          note(w, process, bp.number);
      noteRoot(w, process);
    }
  }
  if (engine.kind !== 'stp') return;
  const wakeAt = wakeTime(engine);
  if (wakeAt < engine.wakeAt || engine.wakeAt <= w.now) {
    engine.wakeAt = wakeAt;
    if (wakeAt < Infinity) w.queue.push(wakeAt, { kind: 'wake', process });
  }
}

/** Writes down what a port made of a frame: in the first tree always, in others where it is more than a repetition. */
export function noteReceived(w: World, { tree, held, info }: HeardEffect, arrival: Arrival | undefined): void {
  if (arrival && (tree === 0 || held)) w.record.heard(arrival.index, arrival.to, w.now, info, tree, held);
}
type HeardEffect = Extract<Engine['bridge']['effects'][number], { kind: 'heard' }>;

/** Has contact and rings looked at in this moment; `around`: switches at which alone something changed. */
export function contactSoon(w: World, around?: Iterable<Node>): void {
  if (!around) w.stirred = null;
  else if (w.stirred) for (const node of around) w.stirred.add(node);
  if (w.contactDue) return;
  w.contactDue = true;
  w.queue.push(w.now, { kind: 'contact' });
}

/** Whether frames of a VLAN pass a port of a switch now. */
export function passes(w: World, bp: BridgePort, vlan: number): boolean {
  const { node } = bp;
  if (!bp.up || !node.on || !bp.vlans[vlan]) return false;
  if (node.treeOff) return true;
  const process = processOfVlan(w, node, vlan);
  if (!process) return true;
  return !isInconsistent(bp, process) && isForwarding(process.engine, bp.number, treeOfVlan(process, vlan));
}

export function processOfVlan(w: World, node: Node, vlan: number): Process | undefined {
  const [first] = node.processes;
  if (first?.plan.vlan === null) return first;
  return node.byVlan.get(w.plan.representative.get(vlan) ?? vlan);
}

/** Index of the tree of a process that a VLAN's frames follow: by the map of its region. */
export function treeOfVlan(process: Process, vlan: number): number {
  const { map } = process.node.plan;
  return map
    ? Math.max(
        0,
        process.plan.keys.findIndex((k) => k.instance === map[vlan]),
      )
    : 0;
}

/** Brings ports of a switch into or out of service in all its processes. */
export function setUp(w: World, node: Node, ports: readonly BridgePort[], up: boolean): void {
  const turned = ports.filter((bp) => bp.up !== up);
  if (turned.length === 0) return;
  for (const bp of turned) {
    bp.up = up;
    bp.inconsistent = null;
    bp.since = w.now;
    bp.yielded = false;
    if (!up) for (const [key, entry] of node.table) if (entry.port === bp.id) node.table.delete(key);
  }
  for (const process of node.processes) {
    const numbers = turned.filter((bp) => process.members[bp.number]).map((bp) => bp.number);
    if (numbers.length === 0) continue;
    enable(process.engine, numbers, up, w.now);
    for (const number of numbers) note(w, process, number);
    drain(w, process);
  }
  contactSoon(w, [node]);
}

/** Mb/s of what a bridge port sends over. */
export function speedOf(w: World, bp: BridgePort): number {
  return bp.active.reduce((sum, id) => {
    const link = linkAt(w.plan.design, id);
    return sum + (link ? linkSpeed(w.plan.design, link) : (portById(w.plan.design, id)?.speed ?? 0));
  }, 0);
}

export const isBundle = (element: Port | Bundle): element is Bundle => 'members' in element;
