/** Cables, frames on them, and what a switch sends and becomes. */
import { farEnd, linkAt, linkSpeed, portById, segmentAt } from '../design';
import type { Bundle, Port } from '../design';
import { bpduFrame, vlanBpduFrame } from '../frames';
import { enable, isRootOf, standingOf, wakeTime } from './engines';
import type { FrameKind } from './recorder';
import type { BridgePort, Frame, Node, PhysicalPort, Process, Route, World } from './world';

/** Physical ports that a frame from one reaches: the far end, all on the segment, or itself over a hub with a loop. */
export function reaches(w: World, from: string): string[] {
  if (w.loops.has(from)) return [from];
  const { design } = w.plan;
  const segment = segmentAt(design, from);
  if (segment) return segment.down ? [] : segment.ports.filter((p) => p !== from);
  const link = linkAt(design, from);
  if (!link || link.down || w.deaf.has(link.id)) return [];
  const far = farEnd(link, from);
  return 'port' in far ? [far.port] : [];
}

/** Whether a port has light: the cable is in and whole, and the far end is on. */
export function hasCarrier(w: World, port: Port): boolean {
  const { design } = w.plan;
  const physical = w.physical.get(port.id);
  if (port.down || !physical?.node.on) return false;
  if (w.loops.has(port.id) || w.intruders.has(port.id)) return true;
  const segment = segmentAt(design, port.id);
  if (segment) return !segment.down;
  const link = linkAt(design, port.id);
  if (!link || link.down) return false;
  const deaf = w.deaf.get(link.id);
  const side = 'port' in link.a && link.a.port === port.id ? 'a' : 'b';
  if (deaf === side) return false;
  const far = farEnd(link, port.id);
  if ('host' in far) return true;
  const farPort = portById(design, far.port);
  if (!farPort) return false;
  // An end that has lost its light alone still lights the other.
  if (deaf) return true;
  const other = w.physical.get(far.port);
  return !farPort.down && other !== undefined && other.node.on && !isShut(other);
}

const isShut = (p: PhysicalPort): boolean => p.own.shutUntil !== null;

function routeOf(w: World, from: string): Route {
  let route = w.routes.get(from);
  if (!route) {
    const link = linkAt(w.plan.design, from);
    const far = link && farEnd(link, from);
    route = {
      ports: reaches(w, from),
      host: far !== undefined && 'host' in far && w.hostLags.has(far.host),
      link: link?.id ?? null,
      end: link && 'port' in link.a && link.a.port === from ? 'a' : 'b',
    };
    w.routes.set(from, route);
  }
  return route;
}

/** Sends a frame out of a physical port; BPDUs of a muted end are lost. */
export function transmit(w: World, from: string, frame: Frame, index: number): void {
  const { ports, host, link, end } = routeOf(w, from);
  if (w.mute.size > 0 && link !== null && w.mute.get(link) === end) return;
  const at = w.now + w.linkDelay + w.processingDelay;
  if (w.intruders.size > 0 && w.intruders.has(from))
    w.queue.append(at, { kind: 'frame', to: 'intruder', from, frame, index });
  for (const to of ports) w.queue.append(at, { kind: 'frame', to, from, frame, index });
  if (host) w.queue.append(at, { kind: 'frame', to: 'host', from, frame, index });
}

const kindOf = (payload: Uint8Array): FrameKind =>
  payload[3] === 0x80 ? 'notification' : payload[3] === 0 ? 'config' : payload[2]! >= 3 ? 'mst' : 'rst';

function sendBpdu(w: World, process: Process, number: number, payload: Uint8Array): void {
  const bp = process.node.ports.get(number)!;
  w.bpdus++;
  if (bp.element.bpduFilter || process.node.treeOff) return;
  const [out] = bp.active;
  if (out === undefined) return;
  const { vlan } = process.plan;
  let sent = process.sent[number];
  if (sent?.bpdu !== payload || sent.element !== bp.element)
    process.sent[number] = sent = {
      bpdu: payload,
      element: bp.element,
      kind: kindOf(payload),
      frame: wrapped(process, bp, payload),
    };
  transmit(w, out, sent.frame, w.record.frame(w.now, out, sent.frame.octets, sent.kind, vlan));
}

function wrapped({ plan: { vlan }, node }: Process, bp: BridgePort, payload: Uint8Array): Frame {
  const { mac } = node.plan;
  const octets =
    vlan === null || vlan === 1 || accessVlan(bp) > 0
      ? bpduFrame(mac, payload)
      : vlanBpduFrame(mac, payload, vlan, bp.element.native !== vlan);
  return { octets, opened: null };
}

/** Writes down what a port is now in every tree of a process. */
export function note(w: World, process: Process, number: number): void {
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
    w.record.port(w.now, lanes[i]!, standing.role, bp.shutUntil !== null ? 'guarded' : standing.state);
  }
}

/** Writes down whether a process takes its switch for the root of one of its trees, where that changed. */
function noteRoot(w: World, process: Process): void {
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

/** A switch that goes off, or starts anew, is root of nothing. */
export function forgetRoots(w: World, node: Node): void {
  for (const [tree, roots] of w.rootsOf) if (roots.delete(node.plan.id)) w.record.roots(w.now, tree, [...roots]);
}

/** Forgets addresses at a port in the VLANs of a tree. */
function flush(w: World, process: Process, bp: BridgePort): void {
  let entries = 0;
  for (const [key, entry] of process.node.table) {
    if (entry.port !== bp.id) continue;
    const vlan = Number(key.slice(0, key.indexOf(' ')));
    if (process.plan.vlan !== null && w.plan.representative.get(vlan) !== process.plan.vlan) continue;
    process.node.table.delete(key);
    entries++;
  }
  if (entries > 0) w.record.happened({ kind: 'flush', at: w.now, switch: process.node.plan.id, entries });
}

/** Performs what a process wants done. `index`: the frame that moved it, −1 for none. */
export function drain(w: World, process: Process, index = -1, at = ''): void {
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
          // A ring can begin only where a port opens, and end only while there is one.
          if (w.looping || standingOf(engine, effect.port, effect.tree)?.state === 'forwarding')
            w.changed.add(process.plan.vlan ?? -1);
          contactSoon(w);
          break;
        case 'flush':
          flush(w, process, node.ports.get(effect.port)!);
          contactSoon(w);
          break;
        case 'ageing':
          process.shortAgeing = effect.short;
          contactSoon(w);
          break;
        case 'heard':
          if (effect.tree === 0) w.record.heard(index, at, w.now, effect.info);
          break;
      }
    }
    effects.length = 0;
    if (moved) {
      // A guarded port, and any of a classic bridge, is another one without having moved itself.
      for (const bp of node.ports.values())
        if (!rapid || bp.element.rootGuard || bp.element.loopGuard) note(w, process, bp.number);
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

export function contactSoon(w: World): void {
  if (w.contactDue) return;
  w.contactDue = true;
  w.queue.push(w.now, { kind: 'contact' });
}

/** The one VLAN of an access port; 0 for any other. */
export function accessVlan({ element: { native, vlans } }: BridgePort): number {
  return native !== undefined && vlans === String(native) ? native : 0;
}

/** Whether frames of a VLAN pass a port of a switch now. */
export function passes(w: World, bp: BridgePort, vlan: number): boolean {
  const { node } = bp;
  if (!bp.up || !node.on || !bp.vlans[vlan]) return false;
  if (node.treeOff) return true;
  const process = processOfVlan(w, node, vlan);
  if (!process) return true;
  const tree = treeOfVlan(process, vlan);
  return standingOf(process.engine, bp.number, tree)?.state === 'forwarding';
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
    if (!up) for (const [key, entry] of node.table) if (entry.port === bp.id) node.table.delete(key);
  }
  for (const process of node.processes) {
    const numbers = turned.filter((bp) => process.members[bp.number]).map((bp) => bp.number);
    if (numbers.length === 0) continue;
    enable(process.engine, numbers, up, w.now);
    for (const number of numbers) note(w, process, number);
    drain(w, process);
  }
  contactSoon(w);
}

/** Mb/s of what a bridge port sends over. */
export function speedOf(w: World, bp: BridgePort): number {
  return bp.active.reduce((sum, id) => {
    const link = linkAt(w.plan.design, id);
    return sum + (link ? linkSpeed(w.plan.design, link) : (portById(w.plan.design, id)?.speed ?? 0));
  }, 0);
}

export const isBundle = (element: Port | Bundle): element is Bundle => 'members' in element;
