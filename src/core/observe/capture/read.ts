/** What the control frames of a capture tell: who sent them, what they say, and who else is on the same link. */
import { decodeBpdu, decodeLacpdu, flagRole, FLAG, openEnvelope } from '../../protocols/frames';
import type { Bpdu, Lacpdu } from '../../protocols/frames';
import { instanceTreeId, numberToMac, splitPortId, vlanTreeId } from '../../standard';
import type { BridgeId } from '../../standard';
import { observeMessages as say } from '../../messages';
import { nothingOf } from '../model';
import type { Observation, ObservedRegion, ObservedState, Source } from '../model';
import { observationOf } from './senders';
import type { Saying, Sender } from './senders';
import { CaptureStory } from './story';
import { LLDP_TYPE, readLldpFrame } from './lldp-frame';
import type { LldpFrame } from './lldp-frame';
import { LINK_TYPE, PacketReader } from './packets';
import type { Packet } from './packets';

const SECOND = 1_000_000;
const FRACTION = 256;

/** The frame of a packet as it was on Ethernet; a cooked one has lost its destination, and is known by its protocol. */
function frameOf({ linkType, octets }: Packet): Uint8Array | null {
  if (linkType === LINK_TYPE.ethernet) return octets;
  const head = linkType === LINK_TYPE.cooked ? 16 : linkType === LINK_TYPE.cooked2 ? 20 : 0;
  if (head === 0 || octets.length < head) return null;
  const frame = new Uint8Array(14 + octets.length - head);
  const [type, source] = linkType === LINK_TYPE.cooked ? [14, 6] : [0, 12];
  frame.set(octets.subarray(source, source + 6), 6);
  const protocol = (octets[type]! << 8) | octets[type + 1]!;
  // 802.2 frames stand there under number 4, with their length lost.
  const typeOrLength = protocol === 4 ? octets.length - head : protocol;
  frame[12] = typeOrLength >> 8;
  frame[13] = typeOrLength & 0xff;
  frame.set(octets.subarray(head), 14);
  return frame;
}

const hex = (octets: Uint8Array): string =>
  [...octets]
    .map((o) => o.toString(16).padStart(2, '0'))
    .join('')
    .toUpperCase();

function regionOf(configuration: Uint8Array): ObservedRegion {
  return {
    name: new TextDecoder().decode(configuration.subarray(1, 33)).replace(/\0+$/, ''),
    revision: (configuration[33]! << 8) | configuration[34]!,
    digest: hex(configuration.subarray(35, 51)),
    map: null,
  };
}

const stateOf = (flags: number): ObservedState =>
  flags & FLAG.forwarding ? 'forwarding' : flags & FLAG.learning ? 'learning' : 'discarding';
const ROLE = { unknown: null, alternate: 'alternate', root: 'root', designated: 'designated' } as const;

/** Reads a capture; memory goes by how many senders there are, not by how many frames. */
export class CaptureReader {
  private readonly senders = new Map<number, Sender>();
  private readonly reader: PacketReader;
  readonly story = new CaptureStory();
  private readonly passed = new Map<number, number>();
  private from = Infinity;
  private to = 0;
  private control = 0;

  constructor(private readonly source: Source) {
    this.reader = new PacketReader(source.name, (packet) => this.take(packet));
  }

  push(chunk: Uint8Array): void {
    this.reader.push(chunk);
  }

  get frames(): number {
    return this.reader.frames;
  }

  get fault(): string | null {
    return this.reader.fault;
  }

  private sender(mac: number): Sender {
    let found = this.senders.get(mac);
    if (!found) {
      found = {
        mac,
        protocol: null,
        region: null,
        timers: {},
        trees: new Map(),
        lacp: new Map(),
        interfaces: new Map(),
        lldp: null,
        sources: new Set(),
      };
      this.senders.set(mac, found);
    }
    return found;
  }

  private take(packet: Packet): void {
    const frame = frameOf(packet);
    if (!frame) {
      this.passed.set(packet.linkType, (this.passed.get(packet.linkType) ?? 0) + 1);
      return;
    }
    this.from = Math.min(this.from, packet.at);
    this.to = Math.max(this.to, packet.at);
    const env = openEnvelope(frame);
    if (env.kind === 'bpdu' || env.kind === 'vlan-bpdu') {
      const bpdu = decodeBpdu(env.payload);
      if (bpdu) this.bpdu(packet, frame, bpdu, env.named ?? null);
    } else if (env.kind === 'lacpdu') {
      const pdu = decodeLacpdu(env.payload);
      if (pdu) this.lacpdu(packet, frame, pdu);
    } else if (((env.payload[0]! << 8) | env.payload[1]!) === LLDP_TYPE) {
      const lldp = readLldpFrame(env.payload.subarray(2));
      if (lldp) this.lldp(frame, lldp);
    }
  }

  private heard(packet: Packet, sender: Sender, port: number): void {
    this.control++;
    const ports = sender.interfaces.get(packet.interface) ?? new Set<number>();
    sender.interfaces.set(packet.interface, ports.add(port));
  }

  private bpdu(packet: Packet, frame: Uint8Array, bpdu: Bpdu, vlan: number | null): void {
    if (bpdu.type === 'notification') {
      this.story.changeNotified(packet.at, numberToMac(addressAt(frame)), frame);
      return;
    }
    const own: BridgeId = bpdu.mst
      ? { priority: bpdu.mst.bridgePriority, mac: bpdu.mst.bridgeMac }
      : { priority: bpdu.bridgePriority, mac: bpdu.bridgeMac };
    const sender = this.sender(own.mac);
    const { number } = splitPortId(bpdu.port);
    this.heard(packet, sender, number);
    sender.sources.add(addressAt(frame));
    sender.protocol = bpdu.type === 'mst' ? 'mstp' : bpdu.type === 'rst' ? 'rstp' : (sender.protocol ?? 'stp');
    if (bpdu.mst) sender.region = regionOf(bpdu.mst.configuration);
    const extension = own.priority & 0xfff;
    const tree = bpdu.mst
      ? instanceTreeId(0)
      : vlan !== null
        ? vlanTreeId(vlan)
        : extension > 0
          ? vlanTreeId(extension)
          : 'single';
    const root = { priority: bpdu.rootPriority, mac: bpdu.rootMac };
    if (root.mac === own.mac)
      sender.timers = {
        helloTime: bpdu.helloTime / FRACTION,
        maxAge: bpdu.maxAge / FRACTION,
        forwardDelay: bpdu.forwardDelay / FRACTION,
      };
    const hello = (bpdu.helloTime / FRACTION) * SECOND;
    const role = bpdu.type === 'config' ? 'designated' : ROLE[flagRole(bpdu.flags)];
    this.say(
      sender,
      tree,
      number,
      {
        bridge: own,
        root,
        cost: bpdu.rootPathCost,
        portId: bpdu.port,
        role,
        state: bpdu.type === 'config' ? null : stateOf(bpdu.flags),
        at: packet.at,
        hello,
      },
      bpdu.flags,
      frame,
    );
    this.instances(sender, number, bpdu, { at: packet.at, hello }, frame);
  }

  private instances(
    sender: Sender,
    number: number,
    bpdu: Bpdu,
    when: { at: number; hello: number },
    frame: Uint8Array,
  ): void {
    for (const part of bpdu.mst?.instances ?? []) {
      const instance = part.regionalPriority & 0xfff;
      this.say(
        sender,
        instanceTreeId(instance),
        number,
        {
          bridge: { priority: (part.bridgePriority << 8) | instance, mac: sender.mac },
          root: { priority: part.regionalPriority, mac: part.regionalMac },
          cost: part.internalCost,
          portId: (part.portPriority << 8) | number,
          role: ROLE[flagRole(part.flags)],
          state: stateOf(part.flags),
          ...when,
        },
        part.flags,
        frame,
      );
    }
  }

  private say(sender: Sender, tree: string, port: number, saying: Saying, flags: number, frame: Uint8Array): void {
    const ports = sender.trees.get(tree) ?? new Map<number, Saying>();
    sender.trees.set(tree, ports);
    this.story.said(
      saying.at,
      { sender: numberToMac(sender.mac), port, tree },
      saying,
      (flags & FLAG.topologyChange) !== 0,
      frame,
    );
    ports.set(port, saying);
  }

  private lacpdu(packet: Packet, frame: Uint8Array, pdu: Lacpdu): void {
    const { actor } = pdu;
    const sender = this.sender(actor.system);
    this.heard(packet, sender, actor.port);
    sender.lacp.set(actor.port, pdu);
    this.story.negotiated(packet.at, numberToMac(actor.system), actor.port, actor.state, frame);
  }

  private lldp(frame: Uint8Array, lldp: LldpFrame): void {
    this.control++;
    const source = addressAt(frame);
    const sender =
      [...this.senders.values()].find((s) => numberToMac(s.mac) === lldp.chassisMac || s.sources.has(source)) ??
      this.sender(source);
    sender.lldp = lldp;
    sender.sources.add(source);
  }

  /** What was read, and whether the file ended as it should. */
  end(): Observation[] {
    const fault = this.reader.end();
    this.story.end(this.from, this.to);
    const unread = [
      ...(fault === null ? [] : [fault]),
      ...[...this.passed.keys()].map((type) => say['capture-link-type']({ file: this.source.name, type })),
      ...(this.control === 0 && fault === null ? [say['capture-empty']({ file: this.source.name })] : []),
    ];
    const heard = { senders: [...this.senders.values()], interfaces: this.reader.interfaces, until: this.to };
    const all = heard.senders.map((s) => observationOf(s, this.source, heard));
    if (all.length === 0) return [{ ...nothingOf(this.source), unread }];
    return all.map((o, i) => (i === 0 ? { ...o, unread } : o));
  }
}

const addressAt = (frame: Uint8Array): number => frame.subarray(6, 12).reduce((sum, o) => sum * 256 + o, 0);
