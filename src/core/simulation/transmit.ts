/** Frames on cables: which way they go from a port, and BPDUs that leave. */
import { farEnd, linkAt, timersOf } from '../design';
import { SECOND } from '../standard';
import { inVlan } from '../protocols/frames';
import { BpduFrame, PlainFrame } from './frame';
import type { Frame } from './frame';
import { portsAround, reaches } from './carrier';
import { accessVlan } from './receiver';
import type { BridgePort, Copy, Outlet, PhysicalPort, Process, Way, World } from './network-state';

/** Notes that the LANs of ports, and of what is at the other ends of their cables, can have changed. */
export function staleAt(w: World, ports: readonly string[]): void {
  w.lans = null;
  for (const id of ports) for (const near of portsAround(w, id)) w.stalePorts?.add(near);
  for (const id of ports) w.stalePorts?.add(id);
}

/** Works out again which way frames go from ports, from all where none are given; those that go as before keep their way. */
export function findWays(w: World, around?: readonly PhysicalPort[]): void {
  w.lans = null;
  if (!around) w.stalePorts = null;
  else
    staleAt(
      w,
      around.map((p) => p.id),
    );
  for (const physical of around ?? w.physical.values()) {
    const way = wayFrom(w, physical.id);
    const { ends, link, end } = physical.way;
    if (way.link !== link || way.end !== end || way.ends.join('\n') !== ends.join('\n')) physical.way = way;
  }
}

function wayFrom(w: World, from: string): Way {
  const link = linkAt(w.plan.design, from);
  const far = link && farEnd(link, from);
  const host = far !== undefined && 'host' in far && w.hostBundleEnds.has(far.host);
  return {
    ends: [...(w.intruders.has(from) ? ['intruder'] : []), ...reaches(w, from), ...(host ? ['host'] : [])],
    link: link?.id ?? null,
    end: link && 'port' in link.a && link.a.port === from ? 'a' : 'b',
  };
}

const copyTo = (w: World, from: string, to: string): Copy => ({
  from,
  to,
  physical: w.physical.get(to) ?? null,
  receiver: null,
  process: null,
  mismatched: null,
  bridge: null,
  index: 0,
});

/** Whether a frame of protocols that leaves by a way is lost on its link. */
function isLost(w: World, { link, end }: Way, { opened }: Frame): boolean {
  const mute = link === null ? undefined : w.mute.get(link);
  if (mute?.from !== end || mute.frames === 'data') return false;
  return mute.frames !== 'bpdus' || opened.kind === 'bpdu' || opened.kind === 'vlan-bpdu';
}

/** Whether data is lost on the link of a physical port: what leaves the port, or what the far end sends into it. */
export function losesData(w: World, port: string, sent: 'by port' | 'by far end'): boolean {
  if (w.mute.size === 0) return false;
  const { link, end } = w.physical.get(port)!.way;
  const mute = link === null ? undefined : w.mute.get(link);
  if (!mute || (mute.from === end) !== (sent === 'by port')) return false;
  return mute.frames === 'all' || mute.frames === 'data';
}

/** Sends copies of a frame by a way. */
function send(w: World, way: Way, copies: readonly Copy[], frame: Frame, index: number, serial = ++w.sent): void {
  if (w.mute.size > 0 && isLost(w, way, frame)) return;
  const at = w.now + w.linkDelay + w.processingDelay;
  for (let i = 0; i < copies.length; i++) w.queue.append(at, { kind: 'frame', copy: copies[i]!, frame, index, serial });
}

/** Sends a frame out of a physical port; `serial`: of one that is passed on. */
export function transmit(w: World, from: string, frame: Frame, index: number, serial?: number): void {
  const { way } = w.physical.get(from)!;
  const copies = way.ends.map((to) => copyTo(w, from, to));
  send(w, way, copies, frame, index, serial);
}

/** A frame that comes from outside of the switches: from a host or an intruder. */
export function deliver(w: World, from: string, to: string, octets: Uint8Array, index: number): void {
  const copy = copyTo(w, from, to);
  w.queue.append(w.now + w.linkDelay + w.processingDelay, {
    kind: 'frame',
    copy,
    frame: new PlainFrame(octets),
    index,
    serial: ++w.sent,
  });
}

/** Hellos that a filter that yields lets out after the port came up. */
const FIRST_HELLOS = 10;

/** Whether a filter stops what a port would send. */
function isFilteredNow(w: World, bp: BridgePort): boolean {
  if (bp.filter !== 'until-heard') return bp.filter === 'always';
  return !bp.yielded && w.now > bp.since + FIRST_HELLOS * timersOf(bp.node.plan.switch).helloTime * SECOND;
}

/** Sends a BPDU of a process out of a port of its switch. */
export function sendBpdu(w: World, process: Process, number: number, bpdu: Uint8Array): void {
  w.bpdus++;
  const { node, outlets } = process;
  let outlet = outlets[number];
  const bp = outlet?.bp ?? node.ports.get(number)!;
  const out = bp.active[0];
  if (out === undefined || isFilteredNow(w, bp) || node.treeOff) return;
  if (!outlet || !leadsOn(outlet, out)) outlets[number] = outlet = newOutlet(w, process, bp, out);
  const frame = frameOf(process, outlet, bpdu);
  send(w, outlet.way, outlet.copies, frame, w.record.frame(w.now, frame));
  if (!outlet.again) return;
  w.bpdus++;
  const again = frame.ofVlanOne(bp.element.native !== 1);
  send(w, outlet.way, outlet.again, again, w.record.frame(w.now, again));
}

/** Whether BPDUs still leave by an outlet as they did. */
const leadsOn = ({ bp, element, physical, way }: Outlet, out: string): boolean =>
  physical.way === way && physical.id === out && bp.element === element;

function newOutlet(w: World, { plan: { vlan } }: Process, bp: BridgePort, out: string): Outlet {
  const physical = w.physical.get(out)!;
  const { way, id } = physical;
  const copies = () => way.ends.map((to) => copyTo(w, id, to));
  const again = vlan === 1 && accessVlan(bp) === 0 ? copies() : null;
  return { bp, element: bp.element, physical, way, copies: copies(), again, last: null, earlier: null };
}

/** The frame of a BPDU: the one that was sent before where it says the same. */
function frameOf(process: Process, outlet: Outlet, bpdu: Uint8Array): BpduFrame {
  const { last, earlier } = outlet;
  if (last?.bpdu === bpdu) return last;
  outlet.earlier = last;
  return (outlet.last = earlier?.bpdu === bpdu ? earlier : wrapped(process, outlet, bpdu));
}

function wrapped({ plan: { vlan }, node }: Process, { bp, physical }: Outlet, bpdu: Uint8Array): BpduFrame {
  const access = accessVlan(bp);
  const plain = vlan === null || vlan === 1 || access > 0;
  // The tree may be run for the VLAN of the port by another one that cannot differ.
  const payload = vlan !== null && access > 0 && access !== vlan ? inVlan(bpdu, vlan, access) : bpdu;
  return new BpduFrame(
    physical.id,
    node.plan.mac,
    bpdu,
    payload,
    vlan,
    plain ? null : vlan,
    bp.element.native !== vlan,
  );
}
