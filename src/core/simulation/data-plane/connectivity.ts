/**
 * Who reaches whom. Every probed pair sends all the time both ways; that is looked at whenever something changed, and
 * when an address could have been forgotten meanwhile, so that contact is lost and found at the very moment.
 */
import { hostById, linksOfHost } from '../../design';
import type { Probe } from '../../design';
import { reaches } from '../carrier';
import { passes, processOfVlan } from '../switch';
import { losesData } from '../transmit';
import type { BridgePort, World } from '../network-state';
import { SECOND, TIMERS } from '../../standard';

const MOST_STEPS = 20_000;

/** Bridge ports that a host is plugged into, where frames pass from it, or to it. */
function attachments(w: World, host: string, vlan: number, sent: 'by port' | 'by far end'): BridgePort[] {
  const ports = linksOfHost(w.plan.design, host).flatMap((l) =>
    [l.a, l.b].flatMap((e) => ('port' in e ? [e.port] : [])),
  );
  const found = new Set<BridgePort>();
  for (const id of ports) {
    const physical = w.physical.get(id);
    if (!physical?.carrier || physical.held || losesData(w, id, sent)) continue;
    const bp = physical.attached ?? physical.own;
    if (passes(w, bp, vlan)) found.add(bp);
  }
  return [...found];
}

/** Port at the far end of each cable that a frame leaves by: a bundle sends a conversation by one member. */
function next(w: World, bp: BridgePort): BridgePort[] {
  const [out] = bp.active;
  if (out === undefined || losesData(w, out, 'by port')) return [];
  return reaches(w, out).flatMap((id) => {
    const physical = w.physical.get(id);
    if (!physical?.carrier || physical.held) return [];
    return [physical.attached ?? physical.own];
  });
}

const ageing = (w: World, bp: BridgePort, vlan: number): number => {
  const process = processOfVlan(w, bp.node, vlan);
  const own = bp.node.plan.switch.ageingTime ?? TIMERS.ageingTime.default;
  return (process?.shortAgeing ? Math.min(own, process.plan.settings.timers.forwardDelay ?? 15) : own) * SECOND;
};

/** Whether frames of a VLAN loop: tables then point back and forth, so that every frame is as good as flooded. */
function goesRound(w: World, vlan: number): boolean {
  if (!w.looping) return false;
  const own = w.plan.representative.get(vlan) ?? vlan;
  return w.record.loopSpans.some((l) => l.to === null && l.vlan === own);
}

interface Arrival {
  readonly copies: number;
  readonly path: readonly string[];
}

/** Sends one frame from a host to another: along what is known, or through all open ports where nothing is. */
function sendOne(w: World, from: string, to: string, vlan: number): Arrival {
  const goals = new Set(attachments(w, to, vlan, 'by port'));
  const flaps = goesRound(w, vlan);
  const starts = attachments(w, from, vlan, 'by far end').slice(0, 1);
  let copies = 0;
  let path: readonly string[] = [];
  // Where a copy came in, and by which ports it came there.
  const queue: { into: BridgePort; way: readonly string[] }[] = starts.map((into) => ({ into, way: [into.id] }));
  const seen = new Set<BridgePort>();
  for (let i = 0; i < queue.length && i < MOST_STEPS; i++) {
    const { into, way } = queue[i]!;
    if (seen.has(into)) {
      // A frame that comes in a second time loops from here on.
      copies++;
      continue;
    }
    seen.add(into);
    const { node } = into;
    node.table.set(`${vlan} ${from}`, { port: into.id, at: w.now });
    const known = flaps ? undefined : node.table.get(`${vlan} ${to}`);
    const fresh = known && w.now - known.at <= ageing(w, into, vlan) ? w.bridgePorts.get(known.port) : undefined;
    const outs = fresh ? [fresh] : [...node.ports.values()];
    for (const out of outs) {
      if (out === into || !passes(w, out, vlan)) continue;
      if (goals.has(out)) {
        copies++;
        if (path.length === 0) path = [...way, out.id];
      }
      for (const far of next(w, out))
        if (passes(w, far, vlan)) queue.push({ into: far, way: [...way, out.id, far.id] });
    }
  }
  return { copies: path.length > 0 ? copies : 0, path };
}

/** Ports of the way that each talking pair has used since it was last looked at, by world and pair. */
const inUse = new WeakMap<World, Map<string, readonly string[]>>();

/** What a talking pair kept fresh until now, on every switch of its way. */
function keepFresh(w: World, { from, to, vlan }: Probe, path: readonly string[]): void {
  for (const id of path) {
    const table = w.bridgePorts.get(id)?.node.table;
    for (const host of [from, to]) {
      const entry = table?.get(`${vlan} ${host}`);
      if (entry) entry.at = w.now;
    }
  }
}

/** Lets every pair talk at this moment, and writes down who hears whom. */
export function lookAtContact(w: World, probes: readonly Probe[]): void {
  w.contactDue = false;
  let forgottenAt = Infinity;
  let used = inUse.get(w);
  if (!used) inUse.set(w, (used = new Map()));
  for (const probe of probes) {
    const { from, to, vlan } = probe;
    const key = `${vlan} ${from} ${to}`;
    keepFresh(w, probe, used.get(key) ?? []);
    if (!hostById(w.plan.design, from) || !hostById(w.plan.design, to)) continue;
    // Each answer teaches the way back: they talk until nothing new is learnt.
    let there: Arrival = { copies: 0, path: [] };
    let back: Arrival = there;
    for (let round = 0; round < 3; round++) {
      there = sendOne(w, from, to, vlan);
      back = sendOne(w, to, from, vlan);
      if (there.path.length > 0 && back.path.length > 0) break;
    }
    const ok = there.path.length > 0 && back.path.length > 0;
    used.set(key, ok ? there.path : []);
    w.record.contact(w.now, from, to, vlan, {
      ok,
      path: ok ? there.path : [],
      copies: Math.max(there.copies, back.copies),
    });
    if (!ok) forgottenAt = Math.min(forgottenAt, oldest(w, from, to, vlan));
  }
  if (forgottenAt < Infinity && forgottenAt > w.now) w.queue.push(forgottenAt, { kind: 'contact' });
}

/** When the first address of a silent pair is forgotten. */
function oldest(w: World, from: string, to: string, vlan: number): number {
  let at = Infinity;
  for (const node of w.nodes.values())
    for (const host of [from, to]) {
      const entry = node.table.get(`${vlan} ${host}`);
      const bp = entry && w.bridgePorts.get(entry.port);
      if (entry && bp && entry.at < w.now) at = Math.min(at, entry.at + ageing(w, bp, vlan) + 1);
    }
  return at;
}

/** Pairs to probe when none are named: hosts of one VLAN, each with the first of them. */
export function usualProbes(w: World): Probe[] {
  const { design } = w.plan;
  const byVlan = new Map<number, string[]>();
  for (const host of design.hosts) {
    const port = linksOfHost(design, host.id)
      .flatMap((l) => [l.a, l.b])
      .find((e) => 'port' in e);
    const native = port && 'port' in port ? w.bridgePorts.get(port.port)?.element.native : undefined;
    const vlan = host.vlan ?? native ?? 1;
    byVlan.set(vlan, [...(byVlan.get(vlan) ?? []), host.id]);
  }
  const pairs = [...byVlan].flatMap(([vlan, hosts]) => hosts.slice(1).map((to) => ({ from: hosts[0]!, to, vlan })));
  return pairs.slice(0, 12);
}
