/**
 * Who reaches whom. Every probed pair sends all the time both ways, or one host all the time and the other now and then;
 * that is looked at whenever something changed, and when an address could have been forgotten meanwhile, so that contact
 * is lost and found, and flooding begins and ends, at the very moment.
 */
import { hostById, linksOfHost } from '../../design';
import type { Probe } from '../../design';
import { isStirred, lansOf } from './lans';
import { reaches } from '../carrier';
import { passes, processOfVlan } from '../switch';
import { losesData } from '../transmit';
import type { BridgePort, World } from '../network-state';
import { SECOND, TIMERS } from '../../standard';

const MOST_STEPS = 20_000;

const portsOfHost = (w: World, host: string): string[] =>
  linksOfHost(w.plan.design, host).flatMap((l) => [l.a, l.b].flatMap((e) => ('port' in e ? [e.port] : [])));

/** Bridge ports that a host is plugged into, where frames pass from it, or to it. */
function attachments(w: World, host: string, vlan: number, sent: 'by port' | 'by far end'): BridgePort[] {
  const found = new Set<BridgePort>();
  for (const id of portsOfHost(w, host)) {
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
  /** Switches that do not know where the frame goes to. */
  readonly unsure: readonly string[];
  /** Ports that sent a copy. */
  readonly sent: number;
}
const NOWHERE: Arrival = { copies: 0, path: [], unsure: [], sent: 0 };

/** Sends one frame from a host to another: along what is known, or through all open ports where nothing is. */
function sendOne(w: World, from: string, to: string, vlan: number): Arrival {
  const goals = new Set(attachments(w, to, vlan, 'by port'));
  const flaps = goesRound(w, vlan);
  const starts = attachments(w, from, vlan, 'by far end').slice(0, 1);
  let copies = 0;
  let sent = 0;
  let path: readonly string[] = [];
  const unsure: string[] = [];
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
    if (!fresh && !unsure.includes(node.plan.id)) unsure.push(node.plan.id);
    const outs = fresh ? [fresh] : [...node.ports.values()];
    for (const out of outs) {
      if (out === into || !passes(w, out, vlan)) continue;
      sent++;
      if (goals.has(out)) {
        copies++;
        if (path.length === 0) path = [...way, out.id];
      }
      for (const far of next(w, out))
        if (passes(w, far, vlan)) queue.push({ into: far, way: [...way, out.id, far.id] });
    }
  }
  return { copies: path.length > 0 ? copies : 0, path, unsure: flaps ? [] : unsure, sent };
}

/** What is known of a pair from one look to the next. */
interface Talk {
  /** Ports of the way that it has used since it was last looked at. */
  way: readonly string[];
  /** When the second host speaks next; undefined where it speaks all the time. */
  speaksAt: number | undefined;
  /** When it is looked at again, since an address is forgotten or the second host speaks. */
  againAt: number;
}
const talks = new WeakMap<World, Map<Probe, Talk>>();

function talkOf(w: World, probe: Probe): Talk {
  let known = talks.get(w);
  if (!known) talks.set(w, (known = new Map()));
  let talk = known.get(probe);
  if (!talk) {
    const { answersEvery } = probe;
    const speaksAt = answersEvery === undefined ? undefined : answersEvery === 'never' ? Infinity : w.now;
    known.set(probe, (talk = { way: [], speaksAt, againAt: -Infinity }));
  }
  return talk;
}

/** What a pair kept fresh until now, on every switch of its way. */
function keepFresh(w: World, { from, to, vlan }: Probe, { way, speaksAt }: Talk): void {
  for (const id of way) {
    const table = w.bridgePorts.get(id)?.node.table;
    for (const host of speaksAt === undefined ? [from, to] : [from]) {
      const entry = table?.get(`${vlan} ${host}`);
      if (entry) entry.at = w.now;
    }
  }
}

/** Both send: each answer teaches the way back, so that they talk until nothing new is learnt. */
function bothSend(w: World, { from, to, vlan }: Probe) {
  let there = NOWHERE;
  let back = NOWHERE;
  for (let round = 0; round < 3; round++) {
    there = sendOne(w, from, to, vlan);
    back = sendOne(w, to, from, vlan);
    if (there.path.length > 0 && back.path.length > 0) break;
  }
  const ok = there.path.length > 0 && back.path.length > 0;
  return { ok, path: ok ? there.path : [], copies: Math.max(there.copies, back.copies) };
}

/** One sends all the time, the other now and then: where its address is forgotten meanwhile, frames for it are flooded. */
function oneSends(w: World, { from, to, vlan, answersEvery }: Probe, talk: Talk) {
  if (talk.speaksAt! <= w.now && typeof answersEvery === 'number') {
    sendOne(w, to, from, vlan);
    while (talk.speaksAt! <= w.now) talk.speaksAt! += Math.round(answersEvery * SECOND);
  }
  const { path, copies, unsure, sent } = sendOne(w, from, to, vlan);
  // Every second port of the way is one that sends.
  const beside = sent - path.length / 2;
  const flooded = unsure.length > 0 && beside > 0;
  return { ok: path.length > 0, path, copies, ...(flooded && { flood: { switches: unsure, ports: beside } }) };
}

/** Whether something changed that a pair could notice. */
function concerns(w: World, { from, to }: Probe): boolean {
  if (w.stirred === null) return true;
  const ports = [from, to].flatMap((host) => portsOfHost(w, host));
  return ports.some((id) => {
    const node = w.physical.get(id)?.node;
    const part = node && lansOf(w).partOf.get(node);
    return part !== undefined && isStirred(w, part);
  });
}

/** Lets every pair that something was about talk at this moment, and writes down who hears whom. */
export function lookAtContact(w: World, probes: readonly Probe[]): void {
  w.contactDue = false;
  for (const probe of probes) keepFresh(w, probe, talkOf(w, probe));
  for (const probe of probes) {
    const { from, to, vlan } = probe;
    const talk = talkOf(w, probe);
    if (talk.againAt !== w.now && !concerns(w, probe)) continue;
    if (!hostById(w.plan.design, from) || !hostById(w.plan.design, to)) continue;
    const seen = talk.speaksAt === undefined ? bothSend(w, probe) : oneSends(w, probe, talk);
    talk.way = seen.path;
    w.record.contact(w.now, from, to, vlan, seen);
    const silent = [...(seen.ok ? [] : [from]), ...(seen.ok && talk.speaksAt === undefined ? [] : [to])];
    const at = Math.min(talk.speaksAt ?? Infinity, nextForgotten(w, silent, vlan));
    if (at < Infinity && at !== talk.againAt) w.queue.push((talk.againAt = at), { kind: 'contact' });
  }
  w.stirred = new Set();
}

/** When an address is forgotten next, on any switch. */
function nextForgotten(w: World, hosts: readonly string[], vlan: number): number {
  let next = Infinity;
  for (const node of w.nodes.values())
    for (const host of hosts) {
      const entry = node.table.get(`${vlan} ${host}`);
      const bp = entry && w.bridgePorts.get(entry.port);
      const at = entry && bp ? entry.at + ageing(w, bp, vlan) + 1 : Infinity;
      if (at > w.now) next = Math.min(next, at);
    }
  return next;
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
