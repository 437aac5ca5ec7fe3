/** The events of a script, each as what it does to the running network, with a sentence for it. */
import { eventFaultMessages, eventMessages as say } from '../messages';
import { applyEdits, cableEdit, editSchema, linkById, portById, portLabel, setField, switchById } from '../design';
import type { Design, Edit, Link, ScriptEvent } from '../design';
import { checkMigration, createBridge, setPortsEnabled } from '../protocols/mst';
import { SECOND, TIMERS } from '../standard';
import { bpduFrame } from '../protocols/frames';
import { refresh } from './build';
import { changeDesign, changeLight } from './design-change';
import { isRootOf, rootMacOf } from './engines';
import { contactSoon, drain, forgetRoots, note } from './switch';
import { deliver } from './transmit';
import { portsAround, portsOfLink } from './carrier';
import { changedBy } from './receive';
import { findReceivers } from './receiver';
import type { World } from './network-state';

/** `quay-a 3 to gate 1` */
export function linkWords(design: Design, link: Link): string {
  return [link.a, link.b].map((e) => ('port' in e ? plainLabel(design, e.port) : e.host)).join(' to ');
}
const plainLabel = (design: Design, id: string) => {
  const port = portById(design, id);
  return port ? `${switchById(design, port.switch)?.name} ${port.name}` : id;
};

/** What an event is about that is not there; null when everything is. */
export function missingIn(design: Design, event: ScriptEvent): string | null {
  const gone = (what: string, id: string) => eventFaultMessages.gone({ what, id });
  if ('link' in event && !linkById(design, event.link)) return gone('link', event.link);
  if ('switch' in event && !switchById(design, event.switch)) return gone('switch', event.switch);
  if ('port' in event && !portById(design, event.port)) return gone('port', event.port);
  if (event.kind === 'cable') for (const id of [event.a, event.b]) if (!portById(design, id)) return gone('port', id);
  return null;
}

/** An event in words; `root` is the switch that an event that takes the root finds. */
export function eventWords(design: Design, event: ScriptEvent, root: string | null = null): string {
  const cable = 'link' in event ? linkById(design, event.link) : undefined;
  const link = cable ? linkWords(design, cable) : 'that is gone';
  const port = 'port' in event ? plainLabel(design, event.port) : '';
  const name = 'switch' in event ? (switchById(design, event.switch)?.name ?? event.switch) : '';
  switch (event.kind) {
    case 'link-down':
      return event.end ? say['carrier-lost']({ link, end: event.end }) : say['link-lost']({ link });
    case 'link-up':
      return say['link-restored']({ link });
    case 'flap':
      return say.flaps({ link, times: event.times, every: event.every });
    case 'switch-off':
      return say['switch-off']({ name });
    case 'switch-on':
      return say['switch-on']({ name });
    case 'root-off':
      return say['root-off']({
        vlan: event.vlan,
        name: root === null ? null : (switchById(design, root)?.name ?? root),
      });
    case 'set':
      return event.label;
    case 'cable':
      return say['cable-plugged']({ a: plainLabel(design, event.a), b: plainLabel(design, event.b) });
    case 'hub-loop':
      return say['hub-plugged']({ port });
    case 'intruder':
      return say['rogue-plugged']({ port, priority: event.priority });
    case 'unplug':
      return say.unplugged({ port });
    case 'bpdu-loss':
      return say['frames-lost']({ link, end: event.from, frames: event.frames ?? 'bpdus' });
    case 'bpdu-heal':
      return say['frames-pass']({ link });
    case 'migration-check':
      return say['migration-check']({ port });
    case 'tree-off':
      return say['tree-off']({ name });
  }
}

/** A turn of a flapping link in words; `step` counts losses and returns from 0 on. */
export function flapWords(design: Design, event: Extract<ScriptEvent, { kind: 'flap' }>, step: number): string {
  const cable = linkById(design, event.link);
  const link = cable ? linkWords(design, cable) : event.link;
  return say['flap-step']({ link, lost: step % 2 === 0, turn: (step >> 1) + 1, of: event.times });
}

const edited = (w: World, edits: readonly Edit[]): Design => {
  const applied = applyEdits(w.drawn, edits);
  if (!applied.ok) throw new ScriptFault(applied.faults[0]!.sentence);
  return applied.design;
};

/** An event that cannot be carried out; the rehearsal goes on without it. */
export class ScriptFault extends Error {}

const setLink = (w: World, id: string, down: boolean): void => {
  w.deaf.delete(id);
  changeLight(w, edited(w, [setField('link', id, 'down', down || null)]), id);
};

function setSwitch(w: World, id: string, off: boolean): void {
  changeDesign(w, edited(w, [setField('switch', id, 'off', off || null)]));
}

/** Switch that is root of a VLAN's tree now; of several, because the tree was partitioned, the one that most others follow. */
export function rootOf(w: World, vlan: number): string | null {
  const own = w.plan.representative.get(vlan);
  const followers = new Map<number, number>();
  const roots: { id: string; mac: number }[] = [];
  for (const node of w.nodes.values()) {
    if (!node.on || node.treeOff) continue;
    const process = node.processes.find((p) => p.plan.vlan === null || p.plan.vlan === own);
    if (!process || ![...node.ports.values()].some((bp) => bp.up && process.members[bp.number])) continue;
    const { map } = node.plan;
    const tree = map
      ? Math.max(
          0,
          process.plan.keys.findIndex((k) => k.instance === map[vlan]),
        )
      : 0;
    const mac = rootMacOf(process.engine, tree);
    followers.set(mac, (followers.get(mac) ?? 0) + 1);
    if (isRootOf(process.engine, tree)) roots.push({ id: node.plan.id, mac: node.plan.mac });
  }
  const following = ({ mac }: { mac: number }) => followers.get(mac) ?? 0;
  return (
    roots.reduce<(typeof roots)[number] | null>(
      (best, root) => (!best || following(root) > following(best) ? root : best),
      null,
    )?.id ?? null
  );
}

/** A bridge of its own behind a port, one hello after the other. */
function plugIntruder(w: World, port: string, priority: number): void {
  const vlanOne = { instance: 0, priority };
  const bridge = createBridge(
    {
      mac: 0x020000000fff,
      version: 2,
      trees: [vlanOne],
      configuration: null,
      timers: {
        helloTime: TIMERS.helloTime.default,
        maxAge: TIMERS.maxAge.default,
        forwardDelay: TIMERS.forwardDelay.default,
        holdCount: TIMERS.holdCount.default,
        maxHops: 20,
      },
    },
    [
      {
        number: 1,
        pointToPoint: true,
        edge: false,
        autoEdge: false,
        portId: [0x8001],
        externalCost: 20000,
        internalCost: [20000],
      },
    ],
  );
  w.intruders.set(port, { port, bridge });
  setPortsEnabled(bridge, [1], true);
  refresh(w, portsAround(w, port));
  intruderSpeaks(w, port);
  w.queue.push(w.now + SECOND, { kind: 'intruder', port });
}

/** Lets what the intruder wants to say out. */
export function intruderSpeaks(w: World, port: string): void {
  const intruder = w.intruders.get(port);
  if (!intruder) return;
  for (const effect of intruder.bridge.effects)
    if (effect.kind === 'send') {
      const octets = bpduFrame(0x020000000fff, effect.octets);
      const index = w.record.anotherFrame(w.now, `rogue switch at ${port}`, octets, 'rst');
      deliver(w, 'intruder', port, octets, index);
    }
  intruder.bridge.effects.length = 0;
}

function treeOff(w: World, id: string): void {
  const node = w.nodes.get(id);
  if (!node) return;
  node.treeOff = true;
  findReceivers(w, [node]);
  w.changed.add(-1);
  forgetRoots(w, node);
  for (const process of node.processes) for (const number of node.ports.keys()) note(w, process, number);
  contactSoon(w, [node]);
}

/** The edits of an event, read; what is no edit makes it void. */
function readEdits({ edits, label }: Extract<ScriptEvent, { kind: 'set' }>): Edit[] {
  return edits.map((edit, i) => {
    const read = editSchema.safeParse(edit);
    if (read.success) return read.data;
    const [issue] = read.error.issues;
    const where = issue?.path.length ? `, at ${issue.path.join('.')}` : '';
    throw new ScriptFault(
      `Change ${i + 1} of '${label}' is not an edit of a design${where}: ${issue?.message ?? ''}. The event has no effect.`,
    );
  });
}

/** Carries an event out; `step` counts on for events that happen more than once. */
export function carryOut(w: World, event: ScriptEvent, step: number): void {
  switch (event.kind) {
    case 'link-down':
      if (!event.end) return setLink(w, event.link, true);
      w.deaf.set(event.link, event.end);
      return refresh(w, portsOfLink(linkById(w.plan.design, event.link)!));
    case 'link-up':
      return setLink(w, event.link, false);
    case 'flap':
      return setLink(w, event.link, step % 2 === 0);
    case 'switch-off':
      return setSwitch(w, event.switch, true);
    case 'switch-on':
      return setSwitch(w, event.switch, false);
    case 'root-off': {
      const root = rootOf(w, event.vlan);
      if (root === null) throw new ScriptFault(`No switch is root of VLAN ${event.vlan}: the event has no effect.`);
      return setSwitch(w, root, true);
    }
    case 'set':
      return changeDesign(w, edited(w, readEdits(event)));
    case 'cable':
      return plugCable(w, event.a, event.b);
    case 'hub-loop':
      w.loops.add(event.port);
      return refresh(w, portsAround(w, event.port));
    case 'intruder':
      return plugIntruder(w, event.port, event.priority);
    case 'unplug':
      w.loops.delete(event.port);
      w.intruders.delete(event.port);
      return refresh(w, portsAround(w, event.port));
    case 'bpdu-loss':
      w.mute.set(event.link, { from: event.from, frames: event.frames ?? 'bpdus' });
      return contactSoon(w);
    case 'bpdu-heal':
      w.mute.delete(event.link);
      return contactSoon(w);
    case 'migration-check':
      return checkAgain(w, event.port);
    case 'tree-off':
      return treeOff(w, event.switch);
  }
}

/** Has every tree of a port look again whom it meets there. */
function checkAgain(w: World, port: string): void {
  const bp = w.physical.get(port)?.attached ?? w.bridgePorts.get(port);
  for (const process of bp?.node.processes ?? []) {
    if (process.engine.kind !== 'mst' || !bp) continue;
    checkMigration(process.engine.bridge, bp.number);
    drain(w, process);
  }
}

function plugCable(w: World, a: string, b: string): void {
  const taken = [a, b].find((id) => w.drawn.links.some((l) => [l.a, l.b].some((e) => 'port' in e && e.port === id)));
  if (taken) throw new ScriptFault(`Port ${portLabel(w.drawn, taken)} has a cable already: the event has no effect.`);
  changeDesign(w, edited(w, [cableEdit(a, b)]));
}

/** The guarded port comes back; what shut it may still be there. */
export function recover(w: World, port: string): void {
  const bp = w.bridgePorts.get(port);
  if (!bp || bp.shutUntil === null || bp.shutUntil > w.now) return;
  bp.shutUntil = null;
  w.record.happened({ kind: 'recover', at: w.now, port });
  refresh(w, changedBy(w, bp));
}
