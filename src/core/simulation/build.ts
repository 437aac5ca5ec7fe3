/** Builds the running network from a plan, and looks at light, bundles and ports whenever something about them changed. */
import { hostById, portById } from '../design';
import type { Design } from '../design';
import { goOn, receiveAt, light, memberOf, memberStanding } from './bundle-exchange';
import { addBundleEnds, addPhysical } from './physical';
import { hasCarrier } from './carrier';
import { contactSoon, isBundle, setUp } from './switch';
import { findWays, staleAt } from './transmit';
import { findReceivers } from './receiver';
import { watchLinks } from './keepalives';
import { minimumAt, rateAt } from '../network';
import type { NetworkPlan } from './plan';
import { addNode, changeIfDifferent } from './processes';
import { EventQueue } from './scheduler';
import { Recorder } from '../trace';
import type { BridgePort, BundleEnd, World } from './network-state';

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

/** Looks at light, bundles and ports again until nothing moves; `around`: ports at which alone something can have changed. */
export function refresh(w: World, around?: readonly string[]): void {
  const { design } = w.plan;
  const ports = around ? around.flatMap((id) => portById(design, id) ?? []) : design.ports;
  for (const port of ports) {
    const physical = w.physical.get(port.id)!;
    physical.carrier = hasCarrier(w, port) && physical.own.shutUntil === null;
  }
  watchLinks(w, ports);
  for (const bundleEnd of [...w.bundleEnds.values(), ...w.hostBundleEnds.values()]) light(w, bundleEnd);
  attach(w, around);
}

/** Which member carries for which bundle, and which ports are up because of it. */
export function attach(w: World, around?: readonly string[]): void {
  const physicals = around?.flatMap((id) => w.physical.get(id) ?? []);
  const touched = physicals && new Set(physicals.map((p) => p.node));
  findWays(w, physicals);
  w.changed.add(-1);
  contactSoon(w, touched);
  for (const bundleEnd of w.bundleEnds.values()) {
    const active: string[] = [];
    for (const id of bundleEnd.members) {
      const physical = w.physical.get(id)!;
      const standing = memberStanding(w, bundleEnd, id);
      if (physical.held !== (standing === 'held') || (physical.attached === null) === (standing === 'active')) {
        touched?.add(physical.node);
        staleAt(w, [id]);
      }
      physical.attached = standing === 'active' ? bundleEnd.port : null;
      physical.held = standing === 'held';
      if (standing === 'active') active.push(id);
    }
    const bp = bundleEnd.port;
    if (!bp) continue;
    const enough = active.length >= minimumAt(bundleEnd.bundle ?? {}, rateAt(w.plan.design, active[0] ?? ''));
    const now = enough ? active : [];
    if (!enough) for (const id of active) Object.assign(w.physical.get(id)!, { attached: null, held: true });
    if (bp.active.join('\n') !== now.join('\n')) {
      touched?.add(bp.node);
      staleAt(w, bundleEnd.members);
      bp.active = now;
      w.record.happened({
        kind: 'bundle',
        at: w.now,
        bundle: bp.id,
        active: now.length,
        of: bundleEnd.members.length,
        members: now,
      });
      for (const process of bp.node.processes) if (process.members[bp.number]) changeIfDifferent(w, process, bp);
    }
  }
  contactSoon(w, touched);
  // Down first, so that a member is never two ports at once.
  const wanted = (bp: BridgePort): boolean => {
    if (!bp.node.on || bp.shutUntil !== null) return false;
    if (isBundle(bp.element)) return bp.active.length > 0;
    const physical = w.physical.get(bp.id);
    return physical !== undefined && physical.carrier && !physical.held && !physical.attached;
  };
  const nodes = touched ?? [...w.nodes.values()];
  for (const node of nodes)
    for (const bp of node.ports.values()) if (!isBundle(bp.element) && bp.active[0] !== bp.id) bp.active = [bp.id];
  for (const up of [false, true])
    for (const node of nodes)
      setUp(
        w,
        node,
        [...node.ports.values()].filter((bp) => bp.up !== up && wanted(bp) === up),
        up,
      );
  findReceivers(w, nodes);
}

/** A LACPDU arrives at a port, or at a host. */
export function receiveLacp(w: World, to: string, from: string, octets: Uint8Array, index: number): void {
  const { design } = w.plan;
  if (to === 'host') {
    const link = design.links.find((l) => [l.a, l.b].some((e) => 'port' in e && e.port === from));
    const host = link && [link.a, link.b].find((e) => 'host' in e);
    const bundleEnd =
      host && 'host' in host && hostById(design, host.host) ? w.hostBundleEnds.get(host.host) : undefined;
    // A host understands LACP alone.
    if (bundleEnd && w.physical.get(from)?.bundleEnd?.bundle?.kind !== 'own') receiveAt(w, bundleEnd, from, octets);
    return;
  }
  const bundleEnd = w.physical.get(to)?.bundleEnd;
  const sender = from === 'host' ? null : w.physical.get(from)?.bundleEnd;
  // Another kind of negotiation is not understood.
  const understood = bundleEnd?.end && (sender ? sender.bundle?.kind : 'lacp') === bundleEnd.bundle?.kind;
  if (!bundleEnd || !understood || !portById(design, to)) return w.record.heard(index, to, w.now, 'ignored');
  const before = standings(w, bundleEnd);
  const { mux } = memberOf(w, bundleEnd, to);
  receiveAt(w, bundleEnd, to, octets);
  const now = memberOf(w, bundleEnd, to);
  w.record.heard(index, to, w.now, `${now.receive} ${now.selected} ${mux} ${now.mux}`);
  if (before !== standings(w, bundleEnd)) attach(w, bundleEnd.members);
}

/** What the members of a bundle do, in one word to compare. */
const standings = (w: World, bundleEnd: BundleEnd): string =>
  bundleEnd.members.map((id) => memberStanding(w, bundleEnd, id)).join(' ');

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
    bundleEnds: new Map(),
    hostBundleEnds: new Map(),
    deaf: new Map(),
    mute: new Map(),
    loops: new Set(),
    intruders: new Map(),
    sent: 0,
    passed: new Map(),
    linkDelay: options.linkDelay,
    processingDelay: options.processingDelay,
    helloSpread: options.helloSpread,
    random: chance(options.seed),
    record: new Recorder(),
    contactDue: false,
    stirred: null,
    changed: new Set([-1]),
    looping: false,
    rootsOf: new Map(),
    lans: null,
    stalePorts: null,
    lanIds: new Map(),
    places: new Map(),
    spreads: new Map(),
    handled: 0,
    bpdus: 0,
  };
  for (const node of plan.nodes) addNode(w, node);
  addBundleEnds(w);
  addPhysical(w);
  refresh(w);
  return w;
}

/** A bundle's timer ran out. */
export function wakeBundleEnd(w: World, bundleEnd: BundleEnd): void {
  if (bundleEnd.wakeAt > w.now || !bundleEnd.end || !isThere(w, bundleEnd)) return;
  const before = standings(w, bundleEnd);
  goOn(w, bundleEnd);
  if (before !== standings(w, bundleEnd)) attach(w, bundleEnd.members);
}

/** Whether an end is still that of its bundle or host, or another has taken its place. */
function isThere({ bundleEnds, hostBundleEnds }: World, bundleEnd: BundleEnd): boolean {
  if (bundleEnd.bundle) return bundleEnds.get(bundleEnd.bundle.id) === bundleEnd;
  return [...hostBundleEnds.values()].includes(bundleEnd);
}
