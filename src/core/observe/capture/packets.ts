/**
 * Packets of a capture, chunk by chunk, so that a file of any size needs no more memory than its longest packet: pcap in both
 * byte orders, in microseconds and nanoseconds, and pcapng with the resolution of each interface.
 */
import { observeMessages as say } from '../../messages';

export interface Packet {
  /** Microseconds since 1970, or since the start of what was recorded. */
  readonly at: number;
  readonly interface: number;
  readonly linkType: number;
  readonly octets: Uint8Array;
  /** Octets that the frame had; more than `octets` where it was cut. */
  readonly length: number;
}

export interface CaptureInterface {
  readonly name: string | null;
  readonly linkType: number;
}

export const LINK_TYPE = { ethernet: 1, cooked: 113, cooked2: 276 } as const;
const MAGIC = { micro: 0xa1b2c3d4, nano: 0xa1b23c4d } as const;
const SECTION = 0x0a0d0d0a;
const ORDER = 0x1a2b3c4d;
const BLOCK = { interface: 1, simple: 3, packet: 6, oldPacket: 2 } as const;
/** Nothing in a sound file is longer. */
const LONGEST = 16 * 1024 * 1024;
const MICRO = 1_000_000;

interface Interface extends CaptureInterface {
  /** Units a second. */
  readonly units: number;
}

/** Takes the octets of a file as they come, and hands its packets on. */
export class PacketReader {
  private rest = new Uint8Array();
  private kind: 'pcap' | 'pcapng' | null = null;
  private little = true;
  private units = MICRO;
  readonly interfaces: Interface[] = [];
  /** Where the interfaces of the section in hand begin. */
  private first = 0;
  private stopped: string | null = null;
  frames = 0;

  constructor(
    private readonly file: string,
    private readonly take: (packet: Packet) => void,
  ) {}

  /** Why the file is read no further; null while it is sound. */
  get fault(): string | null {
    return this.stopped;
  }

  push(chunk: Uint8Array): void {
    if (this.stopped !== null) return;
    const octets = this.rest.length === 0 ? chunk : joined(this.rest, chunk);
    const view = new DataView(octets.buffer, octets.byteOffset, octets.byteLength);
    let at = 0;
    if (this.kind === null) {
      if (octets.length < 24) {
        this.rest = octets.slice();
        return;
      }
      at = this.begin(view);
    }
    while (this.stopped === null && at < octets.length) {
      const used = this.kind === 'pcap' ? this.record(view, octets, at) : this.block(view, octets, at);
      if (used === 0) break;
      at += used;
    }
    this.rest = octets.slice(at);
    if (this.rest.length > LONGEST) this.stopped = say['capture-cut']({ file: this.file, frames: this.frames });
  }

  /** The end of the file: a sentence where it ends in the middle of something, or was no capture. */
  end(): string | null {
    if (this.stopped !== null) return this.stopped;
    if (this.kind === null) return say['not-a-capture']({ file: this.file });
    return this.rest.length > 0 ? say['capture-cut']({ file: this.file, frames: this.frames }) : null;
  }

  private begin(view: DataView): number {
    for (const little of [true, false]) {
      const magic = view.getUint32(0, little);
      if (magic === MAGIC.micro || magic === MAGIC.nano) {
        this.kind = 'pcap';
        this.little = little;
        this.units = magic === MAGIC.nano ? 1000 * MICRO : MICRO;
        // The upper octets of the link type may hold other things.
        this.interfaces.push({ name: null, linkType: view.getUint32(20, little) & 0xffff, units: this.units });
        return 24;
      }
    }
    if (view.getUint32(0, false) !== SECTION) {
      this.stopped = say['not-a-capture']({ file: this.file });
      return 0;
    }
    this.kind = 'pcapng';
    return 0;
  }

  private record(view: DataView, octets: Uint8Array, at: number): number {
    if (octets.length - at < 16) return 0;
    const length = view.getUint32(at + 8, this.little);
    if (length > LONGEST) return this.broken();
    if (octets.length - at < 16 + length) return 0;
    const [second, fraction] = [view.getUint32(at, this.little), view.getUint32(at + 4, this.little)];
    this.hand(
      0,
      second * MICRO + (fraction * MICRO) / this.units,
      octets.subarray(at + 16, at + 16 + length),
      view.getUint32(at + 12, this.little),
    );
    return 16 + length;
  }

  private block(view: DataView, octets: Uint8Array, at: number): number {
    if (octets.length - at < 12) return 0;
    if (view.getUint32(at, false) === SECTION) {
      this.little = view.getUint32(at + 8, true) === ORDER;
      this.first = this.interfaces.length;
    }
    const type = view.getUint32(at, this.little);
    const length = view.getUint32(at + 4, this.little);
    if (length < 12 || length % 4 !== 0 || length > LONGEST) return this.broken();
    if (octets.length - at < length) return 0;
    if (type === BLOCK.interface) this.interfaceBlock(view, octets, at, length);
    else if (type === BLOCK.packet) this.packetBlock(view, octets, at, view.getUint32(at + 8, this.little));
    else if (type === BLOCK.oldPacket) this.packetBlock(view, octets, at, view.getUint16(at + 8, this.little));
    return length;
  }

  private broken(): number {
    this.stopped = say['capture-cut']({ file: this.file, frames: this.frames });
    return 0;
  }

  private interfaceBlock(view: DataView, octets: Uint8Array, at: number, length: number): void {
    let name: string | null = null;
    let units = MICRO;
    for (let o = at + 16; o + 4 <= at + length - 4;) {
      const [code, size] = [view.getUint16(o, this.little), view.getUint16(o + 2, this.little)];
      if (code === 0) break;
      if (code === 2) name = new TextDecoder().decode(octets.subarray(o + 4, o + 4 + size)).replace(/\0+$/, '');
      // Powers of ten, or of two with the highest bit set.
      if (code === 9) units = octets[o + 4]! & 0x80 ? 2 ** (octets[o + 4]! & 0x7f) : 10 ** octets[o + 4]!;
      o += 4 + ((size + 3) & ~3);
    }
    this.interfaces.push({ name, linkType: view.getUint16(at + 8, this.little), units });
  }

  /** A packet of an interface; the older block is the same behind a shorter index of it. */
  private packetBlock(view: DataView, octets: Uint8Array, at: number, own: number): void {
    const index = this.first + own;
    const units = this.interfaces[index]?.units ?? MICRO;
    const ticks = view.getUint32(at + 12, this.little) * 2 ** 32 + view.getUint32(at + 16, this.little);
    const captured = view.getUint32(at + 20, this.little);
    const length = view.getUint32(at + 24, this.little);
    this.hand(index, (ticks / units) * MICRO, octets.subarray(at + 28, at + 28 + captured), length);
  }

  private hand(index: number, at: number, octets: Uint8Array, length: number): void {
    const of = this.interfaces[index];
    if (!of) return;
    this.frames++;
    this.take({ at, interface: index, linkType: of.linkType, octets, length });
  }
}

function joined(a: Uint8Array, b: Uint8Array): Uint8Array<ArrayBuffer> {
  const whole = new Uint8Array(a.length + b.length);
  whole.set(a);
  whole.set(b, a.length);
  return whole;
}

/** Whether a file begins like a capture. */
export function isCapture(head: Uint8Array): boolean {
  if (head.length < 4) return false;
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength);
  const [big, little] = [view.getUint32(0, false), view.getUint32(0, true)];
  return big === SECTION || [MAGIC.micro, MAGIC.nano].some((m) => m === big || m === little);
}
