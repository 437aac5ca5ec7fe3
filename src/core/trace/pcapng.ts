/** Control frames of a rehearsal as pcapng: one interface a port, times in microseconds. */
import { vlansAt } from '../design';
import type { Design } from '../design';
import { addressesOf, inVlan, openEnvelope, vlanBpduFrame } from '../protocols/frames';
import { formatVlanRanges, vlanMembership } from '../standard';
import { frameAt, portAt } from './frame-log';
import type { FrameLog, FrameRecord } from './frame-log';
import type { Trace } from './recorder';

const LINKTYPE_ETHERNET = 1;
const BLOCK = { section: 0x0a0d0d0a, interface: 1, packet: 6 } as const;
/** Octets of a block around its body: type, length, and length once more. */
const AROUND = 12;
const PACKET_HEAD = 20;
const padded = (length: number): number => (length + 3) & ~3;

/** Writes a block into `view` at `at`; gives where the next begins. */
function putBlock(view: DataView, at: number, type: number, ...body: readonly Uint8Array[]): number {
  const inside = body.reduce((sum, part) => sum + part.length, 0);
  const length = AROUND + padded(inside);
  view.setUint32(at, type, true);
  view.setUint32(at + 4, length, true);
  let to = at + 8;
  for (const part of body) {
    new Uint8Array(view.buffer).set(part, to);
    to += part.length;
  }
  view.setUint32(at + length - 4, length, true);
  return at + length;
}

/** An option: code, length, value, padding to four octets. */
function option(code: number, value: Uint8Array): Uint8Array {
  const octets = new Uint8Array(4 + padded(value.length));
  const view = new DataView(octets.buffer);
  view.setUint16(0, code, true);
  view.setUint16(2, value.length, true);
  octets.set(value, 4);
  return octets;
}

function sectionHead(): Uint8Array {
  const section = new Uint8Array(16);
  const view = new DataView(section.buffer);
  view.setUint32(0, 0x1a2b3c4d, true);
  view.setUint16(4, 1, true);
  view.setBigInt64(8, -1n, true);
  return section;
}

function interfaceHead(name: string): Uint8Array[] {
  const head = new Uint8Array(8);
  new DataView(head.buffer).setUint16(0, LINKTYPE_ETHERNET, true);
  // Its name, and that times are in microseconds; the end of the options.
  return [head, option(2, new TextEncoder().encode(name)), option(9, Uint8Array.of(6)), new Uint8Array(4)];
}

function packetHead(number: number, at: number, length: number): Uint8Array {
  const head = new Uint8Array(PACKET_HEAD);
  const view = new DataView(head.buffer);
  view.setUint32(0, number, true);
  view.setUint32(4, Math.floor(at / 2 ** 32), true);
  view.setUint32(8, at >>> 0, true);
  view.setUint32(12, length, true);
  view.setUint32(16, length, true);
  return head;
}

/** A comment to a packet, as an option with the end of the options. */
const comment = (text: string): Uint8Array[] => [option(1, new TextEncoder().encode(text)), new Uint8Array(4)];

/** What a file of frames holds. */
export interface FrameFile {
  /** Name of the interface of a port that frames leave. */
  readonly names: (port: string) => string;
  /** Which ports' frames are meant; absent: all. */
  readonly wanted?: (port: string) => boolean;
  /** Which of the VLANs that go alike a port sends BPDUs of, by the one that is run for them. */
  readonly alike: Alike;
  /** Of VLANs that go alike a BPDU each; or one, with a comment that says which VLANs it speaks for. */
  readonly of: 'every-vlan' | 'one-for-alike';
}

interface Packet {
  readonly octets: Uint8Array;
  readonly comment: string | null;
}

/** A frame of the log as the packets that it stands for. */
function packetsOf({ from, octets, vlan }: FrameRecord, { alike, of }: FrameFile): readonly Packet[] {
  const others = vlan === null ? [] : alike(from, vlan);
  if (vlan === null || others.length === 0 || (others.length === 1 && others[0]!.vlan === vlan))
    return [{ octets, comment: null }];
  const env = openEnvelope(octets);
  // A plain one is of the one VLAN of its port, or of VLAN 1.
  if (env.kind !== 'vlan-bpdu') return [{ octets, comment: null }];
  if (of === 'one-for-alike') {
    const numbers = formatVlanRanges(others.map((o) => o.vlan)).replaceAll(',', ', ');
    return [{ octets, comment: `speaks for VLANs ${numbers}` }];
  }
  const { source } = addressesOf(octets);
  return others.map(({ vlan: other, tagged }) => ({
    octets: vlanBpduFrame(source, inVlan(env.payload, vlan, other), other, tagged),
    comment: null,
  }));
}

/** Most packets that a file holds. */
export const MOST_PACKETS = 5_000_000;

/** How many packets a file would hold. */
export function packetCount(log: FrameLog, file: FrameFile): number {
  let count = 0;
  for (let i = 0; i < log.count; i++) {
    const wanted = !file.wanted || file.wanted(portAt(log, i));
    if (wanted) count += packetsOf(frameAt(log, i), file).length;
  }
  return count;
}

/** The control frames of a run. Times count from 1970, as there is no other start. */
export function pcapng(log: FrameLog, file: FrameFile): Uint8Array {
  const interfaces = new Map<string, number>();
  const heads: Uint8Array[][] = [];
  const frames: number[] = [];
  const optionsOf = (packet: Packet) => (packet.comment === null ? [] : comment(packet.comment));
  const lengthOf = (parts: readonly Uint8Array[]) => parts.reduce((sum, part) => sum + part.length, 0);
  let size = AROUND + sectionHead().length;
  for (let i = 0; i < log.count; i++) {
    const port = portAt(log, i);
    if (file.wanted && !file.wanted(port)) continue;
    if (!interfaces.has(port)) {
      interfaces.set(port, interfaces.size);
      const head = interfaceHead(file.names(port));
      heads.push(head);
      size += AROUND + lengthOf(head);
    }
    frames.push(i);
    for (const packet of packetsOf(frameAt(log, i), file))
      size += AROUND + PACKET_HEAD + padded(packet.octets.length) + lengthOf(optionsOf(packet));
  }
  const view = new DataView(new ArrayBuffer(size));
  let at = putBlock(view, 0, BLOCK.section, sectionHead());
  for (const head of heads) at = putBlock(view, at, BLOCK.interface, ...head);
  for (const i of frames) {
    const frame = frameAt(log, i);
    for (const packet of packetsOf(frame, file)) {
      const { octets } = packet;
      const head = packetHead(interfaces.get(frame.from)!, frame.at, octets.length);
      // Options begin at a multiple of four octets.
      const room = new Uint8Array(padded(octets.length) - octets.length);
      at = putBlock(view, at, BLOCK.packet, head, octets, room, ...optionsOf(packet));
    }
  }
  return new Uint8Array(view.buffer);
}

/** VLANs that a port sends BPDUs of, each with whether they are tagged, by the VLAN that is run for all that go alike. */
type Alike = (port: string, vlan: number) => readonly { readonly vlan: number; readonly tagged: boolean }[];

/** The same from a design and the classes of a run. */
export function alikeAt(design: Design, { classes }: Pick<Trace, 'classes'>): Alike {
  const known = new Map<string, ReturnType<Alike>>();
  return (port, vlan) => {
    const key = `${port} ${vlan}`;
    let found = known.get(key);
    if (!found) {
      const { vlans, native } = vlansAt(design, port);
      const carried = vlanMembership(vlans);
      found = (classes[vlan] ?? [vlan])
        .filter((other) => carried[other] === 1)
        .map((other) => ({ vlan: other, tagged: other !== native }));
      known.set(key, found);
    }
    return found;
  };
}
