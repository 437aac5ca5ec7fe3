import * as fc from 'fast-check';
import { bpduFrame, encodeBpdu } from '../protocols/frames';
import type { Bpdu } from '../protocols/frames';
import { FrameWriter, buffersOf, firstFrom, frameAt, framesOf, markAt, portAt } from './frame-log';
import type { FrameRecord, Held } from './frame-log';

const NO_BPDU: Bpdu = {
  type: 'rst',
  flags: 0,
  rootPriority: 0,
  rootMac: 0,
  rootPathCost: 0,
  bridgePriority: 0,
  bridgeMac: 0,
  port: 0,
  messageAge: 0,
  maxAge: 0,
  helloTime: 0,
  forwardDelay: 0,
};
const octetsOf = (cost: number, flags: number) => bpduFrame(1, encodeBpdu({ ...NO_BPDU, rootPathCost: cost, flags }));
const held = (cost: number): Held => ({
  whose: 'Received',
  vector: {
    rootPriority: 1,
    rootMac: 0xffffffffffff,
    externalCost: cost,
    regionalPriority: 2,
    regionalMac: 3,
    internalCost: 4,
    bridgePriority: 5,
    bridgeMac: 6,
    port: 0x8001,
  },
});

/** Frames as they are written: who says what, after how long, and who hears it. */
const sendings = fc.array(
  fc.record({
    port: fc.nat(4),
    cost: fc.nat(5),
    change: fc.boolean(),
    vlan: fc.option(fc.constantFrom(1, 20, 4094)),
    after: fc.nat(5000),
    heard: fc.array(fc.record({ port: fc.nat(4), after: fc.nat(1_000_000), held: fc.option(fc.nat(3)) }), {
      maxLength: 3,
    }),
  }),
  { maxLength: 700 },
);

test('what is read is what was written, however much there is', () => {
  fc.assert(
    fc.property(sendings, (all) => {
      const writer = new FrameWriter();
      const sayings = new Map<string, number>();
      let now = 0;
      const expected = all.map(({ port, cost, change, vlan, after, heard }): FrameRecord => {
        now += after;
        const octets = octetsOf(cost, change ? 1 : 0);
        const key = `${port} ${cost} ${change} ${vlan}`;
        if (!sayings.has(key)) sayings.set(key, writer.says(`p${port}`, octets, 'rst', vlan));
        const index = writer.sent(now, sayings.get(key)!);
        for (const h of heard)
          writer.heard(index, `p${h.port}`, now + h.after, 'Other', 0, h.held === null ? null : held(h.held));
        return {
          at: now,
          from: `p${port}`,
          octets,
          kind: 'rst',
          mark: change ? 'change' : 'hello',
          vlan,
          heard: heard.map((h) => ({
            port: `p${h.port}`,
            at: now + h.after,
            info: 'Other',
            tree: 0,
            held: h.held === null ? null : held(h.held),
          })),
        };
      });
      const log = writer.done();
      expect([...framesOf(log)]).toEqual(expected);
      expect(all.map((_, i) => [portAt(log, i), markAt(log, i, 0)])).toEqual(expected.map((f) => [f.from, f.mark]));
      expect(firstFrom(log, now + 1)).toBe(all.length);
    }),
    { numRuns: 40 },
  );
});

test('frames of other trees have no mark in the tree of a VLAN; those of a single tree have one in all', () => {
  const writer = new FrameWriter();
  const own = writer.says('p', octetsOf(1, 0), 'rst', 20);
  const common = writer.says('p', octetsOf(2, 0x42), 'rst', null);
  writer.sent(0, own);
  writer.sent(1, common);
  const log = writer.done();
  expect([markAt(log, 0, 30), markAt(log, 0, 20), markAt(log, 1, 30)]).toEqual([null, 'hello', 'proposal']);
});

test('goes through a channel as it is, and its numbers move without being copied', () => {
  const writer = new FrameWriter();
  writer.sent(7, writer.says('p', octetsOf(1, 0), 'rst', null));
  const log = writer.done();
  const moved = structuredClone(log, { transfer: buffersOf(log) as ArrayBuffer[] });
  expect(frameAt(moved, 0)).toMatchObject({ at: 7, from: 'p', kind: 'rst' });
  expect(log.at.byteLength).toBe(0);
});
