/** Control frames of a rehearsal as pcapng: one interface a port, times in microseconds. */
import type { FrameRecord } from './recorder';

const LINKTYPE_ETHERNET = 1;

class Writer {
  private parts: Uint8Array[] = [];
  private length = 0;

  block(type: number, body: Uint8Array): void {
    const padded = (body.length + 3) & ~3;
    const block = new Uint8Array(12 + padded);
    const view = new DataView(block.buffer);
    view.setUint32(0, type, true);
    view.setUint32(4, block.length, true);
    block.set(body, 8);
    view.setUint32(block.length - 4, block.length, true);
    this.parts.push(block);
    this.length += block.length;
  }

  done(): Uint8Array {
    const all = new Uint8Array(this.length);
    let at = 0;
    for (const part of this.parts) {
      all.set(part, at);
      at += part.length;
    }
    return all;
  }
}

/** An option: code, length, value, padding to four octets. */
function option(code: number, value: Uint8Array): Uint8Array {
  const octets = new Uint8Array(4 + ((value.length + 3) & ~3));
  const view = new DataView(octets.buffer);
  view.setUint16(0, code, true);
  view.setUint16(2, value.length, true);
  octets.set(value, 4);
  return octets;
}

function joined(...parts: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}

/** `names` gives an interface its name by the port that frames leave. Times count from 1970, as there is no other start. */
export function pcapng(frames: readonly FrameRecord[], names: (port: string) => string): Uint8Array {
  const out = new Writer();
  const section = new Uint8Array(16);
  const view = new DataView(section.buffer);
  view.setUint32(0, 0x1a2b3c4d, true);
  view.setUint16(4, 1, true);
  view.setUint16(6, 0, true);
  view.setBigInt64(8, -1n, true);
  out.block(0x0a0d0d0a, section);
  const interfaces = new Map<string, number>();
  for (const { from } of frames) {
    if (interfaces.has(from)) continue;
    interfaces.set(from, interfaces.size);
    const head = new Uint8Array(8);
    new DataView(head.buffer).setUint16(0, LINKTYPE_ETHERNET, true);
    out.block(
      1,
      joined(head, option(2, new TextEncoder().encode(names(from))), option(9, Uint8Array.of(6)), new Uint8Array(4)),
    );
  }
  for (const { at, from, octets } of frames) {
    const head = new Uint8Array(20);
    const h = new DataView(head.buffer);
    h.setUint32(0, interfaces.get(from)!, true);
    h.setUint32(4, Math.floor(at / 2 ** 32), true);
    h.setUint32(8, at >>> 0, true);
    h.setUint32(12, octets.length, true);
    h.setUint32(16, octets.length, true);
    out.block(6, joined(head, octets));
  }
  return out.done();
}
