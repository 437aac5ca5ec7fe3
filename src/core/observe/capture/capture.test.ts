/** Captures in every form, whole and broken, and what they tell. */
import { quarryInstances, quarryOneTree } from '../../../demo/quarry';
import { asMeant } from '../../../demo/brackwater';
import type { Design } from '../../design';
import { alikeAt, pcapng, portWords } from '../../trace';
import { rehearse } from '../../simulation';
import { asBuilt } from '../as-built';
import { compareWithDesign } from '../compare/compare';
import { PacketReader } from './packets';
import type { Packet } from './packets';
import { CaptureReader } from './read';

const SOURCE = { kind: 'capture', name: 'wire.pcapng', at: null } as const;

function captured(design: Design, until = 30, events: readonly object[] = []): Uint8Array {
  const trace = rehearse(design, { id: 'x', name: 'x', until, events: events as never, probes: [] });
  return pcapng(trace.frames, {
    names: (p) => portWords(design, p),
    alike: alikeAt(design, trace),
    of: 'every-vlan',
  });
}

function read(
  octets: Uint8Array,
  piece = octets.length,
): CaptureReader & { observations: ReturnType<CaptureReader['end']> } {
  const reader = new CaptureReader(SOURCE);
  for (let at = 0; at < octets.length; at += piece) reader.push(octets.slice(at, at + piece));
  return Object.assign(reader, { observations: reader.end() });
}

test.each([
  ['trees per VLAN', asMeant()],
  ['instances', quarryInstances()],
  ['one tree', quarryOneTree()],
])('%s: a rehearsal that is captured and read again differs from its design in nothing', (_, design) => {
  const { network } = asBuilt(read(captured(design)).observations, 'read');
  expect(compareWithDesign(design, network).filter((d) => d.verdict !== 'not-observed')).toEqual([]);
  expect(network.trees.length).toBeGreaterThan(0);
  expect(network.trees.every((t) => design.switches.some((s) => s.name === t.root))).toBe(true);
});

test('partners of a bundle and the digest of a region are read', () => {
  const { network } = asBuilt(read(captured(asMeant())).observations, 'read');
  const bundle = network.bundles.find((b) => b.switch === 'core-east')!;
  expect(bundle).toMatchObject({ partner: { switch: 'core-west', system: '00:00:5e:00:53:22' } });
  expect(bundle.active).toHaveLength(2);
  const region = asBuilt(read(captured(quarryInstances())).observations, 'read').network.switches[0]!.region!;
  expect(region.digest).toMatch(/^[0-9A-F]{32}$/);
});

test('in whatever pieces a file comes, it tells the same', () => {
  const octets = captured(quarryOneTree(), 5);
  expect(JSON.stringify(read(octets, 7).observations)).toBe(JSON.stringify(read(octets).observations));
});

test('a switch that fails falls silent, and another one becomes root: both are in the story with their times', () => {
  const design = quarryOneTree();
  const root = design.switches.reduce((a, b) => ((b.priority ?? 32768) < (a.priority ?? 32768) ? b : a));
  const { story } = read(captured(design, 30, [{ id: 'e', at: 10, kind: 'switch-off', switch: root.id }]));
  const kinds = new Set(story.events.map((e) => e.kind));
  expect(kinds.has('root')).toBe(true);
  expect(kinds.has('silent')).toBe(true);
  expect(kinds.has('change')).toBe(true);
  const silent = story.lanes().filter((l) => l.sender === root.mac && l.spans.at(-1)!.silent);
  expect(silent.length).toBeGreaterThan(0);
});

/** The packets of a pcapng in the older form, in either byte order and resolution. */
function asPcap(octets: Uint8Array, little: boolean, nano: boolean): Uint8Array {
  const packets: Packet[] = [];
  const reader = new PacketReader('x', (p) => packets.push({ ...p, octets: p.octets.slice() }));
  reader.push(octets);
  const out = new Uint8Array(24 + packets.reduce((sum, p) => sum + 16 + p.octets.length, 0));
  const view = new DataView(out.buffer);
  view.setUint32(0, nano ? 0xa1b23c4d : 0xa1b2c3d4, little);
  view.setUint32(16, 65535, little);
  view.setUint32(20, 1, little);
  let at = 24;
  for (const p of packets) {
    view.setUint32(at, Math.floor(p.at / 1e6), little);
    view.setUint32(at + 4, Math.round(p.at % 1e6) * (nano ? 1000 : 1), little);
    view.setUint32(at + 8, p.octets.length, little);
    view.setUint32(at + 12, p.octets.length, little);
    out.set(p.octets, at + 16);
    at += 16 + p.octets.length;
  }
  return out;
}

test.each([
  [true, false],
  [false, false],
  [true, true],
  [false, true],
])('the older form, little-endian %p, nanoseconds %p, tells of the same senders', (little, nano) => {
  const octets = captured(quarryOneTree(), 5);
  const reader = read(asPcap(octets, little, nano));
  expect(reader.observations.map((o) => o.mac).sort()).toEqual(
    read(octets)
      .observations.map((o) => o.mac)
      .sort(),
  );
  expect(reader.story.until / 1e6).toBeCloseTo(5, 0);
});

test('a file that is cut off keeps what came before, and says so', () => {
  const octets = captured(quarryOneTree(), 5);
  const { observations } = read(octets.subarray(0, octets.length - 33));
  expect(observations[0]!.unread[0]).toMatch(/ends in the middle of a frame: [\d,]+ frames before that were read/);
  expect(observations.length).toBeGreaterThan(3);
});

test('what is no capture, holds no control frame, or is of another link type gets a sentence', () => {
  expect(read(new TextEncoder().encode('this is a text, and a long one too')).observations[0]!.unread[0]).toContain(
    'is no capture',
  );
  const empty = asPcap(captured(quarryOneTree(), 0.0001), true, false).slice(0, 24);
  expect(read(empty).observations[0]!.unread[0]).toContain('holds no BPDU');
  const radio = asPcap(captured(quarryOneTree(), 5), true, false);
  new DataView(radio.buffer).setUint32(20, 127, true);
  expect(read(radio).observations[0]!.unread[0]).toContain('Frames of link type 127');
});

/** The same packets as a capture on all interfaces of a Linux machine, in the older and the newer cooked form. */
function asCooked(octets: Uint8Array, linkType: 113 | 276): Uint8Array {
  const parts: Uint8Array[] = [];
  const reader = new PacketReader('x', (p) => {
    const lengthOrType = (p.octets[12]! << 8) | p.octets[13]!;
    const protocol = lengthOrType <= 1500 ? 4 : lengthOrType;
    const head = new Uint8Array(linkType === 113 ? 16 : 20);
    const view = new DataView(head.buffer);
    const [at, source] = linkType === 113 ? [14, 6] : [0, 12];
    view.setUint16(at, protocol, false);
    if (linkType === 276) view.setUint32(4, p.interface + 1, false);
    head.set(p.octets.subarray(6, 12), source);
    const record = new Uint8Array(16);
    const times = new DataView(record.buffer);
    const body = p.octets.subarray(14);
    times.setUint32(0, Math.floor(p.at / 1e6), true);
    times.setUint32(4, Math.round(p.at % 1e6), true);
    times.setUint32(8, head.length + body.length, true);
    times.setUint32(12, head.length + body.length, true);
    parts.push(record, head, body.slice());
  });
  reader.push(octets);
  const file = new Uint8Array(24);
  const view = new DataView(file.buffer);
  view.setUint32(0, 0xa1b2c3d4, true);
  view.setUint32(20, linkType, true);
  return Uint8Array.from([...file, ...parts.flatMap((p) => [...p])]);
}

test.each([113, 276] as const)('cooked frames of link type %d tell of the same senders and roots', (linkType) => {
  const octets = captured(quarryOneTree(), 5);
  const roots = (from: Uint8Array) =>
    read(from)
      .observations.map((o) => [o.mac, o.trees[0]?.root])
      .sort();
  expect(roots(asCooked(octets, linkType))).toEqual(roots(octets));
});
