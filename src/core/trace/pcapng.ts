/** Control frames of a rehearsal as pcapng: one interface a port, times in microseconds. */
import { frameAt, portAt } from './frame-log';
import type { FrameLog } from './frame-log';

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

/**
 * `names` gives an interface its name by the port that frames leave; `wanted` says which ports' frames are meant, all
 * of them when it is not given. Times count from 1970, as there is no other start.
 */
export function pcapng(
  log: FrameLog,
  names: (port: string) => string,
  wanted: (port: string) => boolean = () => true,
): Uint8Array {
  const interfaces = new Map<string, number>();
  const heads: Uint8Array[][] = [];
  const frames: number[] = [];
  let size = AROUND + sectionHead().length;
  for (let i = 0; i < log.count; i++) {
    const port = portAt(log, i);
    if (!wanted(port)) continue;
    if (!interfaces.has(port)) {
      interfaces.set(port, interfaces.size);
      const head = interfaceHead(names(port));
      heads.push(head);
      size += AROUND + head.reduce((sum, part) => sum + part.length, 0);
    }
    frames.push(i);
    size += AROUND + PACKET_HEAD + padded(frameAt(log, i).octets.length);
  }
  const view = new DataView(new ArrayBuffer(size));
  let at = putBlock(view, 0, BLOCK.section, sectionHead());
  for (const head of heads) at = putBlock(view, at, BLOCK.interface, ...head);
  for (const i of frames) {
    const { from, octets, at: time } = frameAt(log, i);
    at = putBlock(view, at, BLOCK.packet, packetHead(interfaces.get(from)!, time, octets.length), octets);
  }
  return new Uint8Array(view.buffer);
}
