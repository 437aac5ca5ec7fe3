import fc from 'fast-check';
import { runs } from '../../../tests/support/runs';
import { BRIDGE_PRIORITY, nearestLegal } from './constants';
import { MESSAGE_PARTS, compareVectors } from './message-vector';
import type { Vector } from './message-vector';
import { canonicalMac, isIndividualMac, macToNumber, numberToMac } from './mac';
import {
  compareBridgeId,
  comparePriorityVector,
  decidingPart,
  bridgeIdWords,
  formatBridgeId,
  shortBridgeId,
  formatPortId,
  portIdentifier,
  splitPortId,
} from './vectors';
import { defaultPathCost } from './cost';
import { formatVlanRanges, parseVlanRanges, vlanMembership } from './vlan-set';
import { instanceTreeId, parseTreeId, vlanOfTreeId, vlanTreeId } from './tree-id';
import type { PriorityVector } from './vectors';

describe('port path cost by speed', () => {
  test.each([
    [10, 2_000_000],
    [100, 200_000],
    [1000, 20_000],
    [2500, 8000],
    [5000, 4000],
    [10_000, 2000],
    [25_000, 800],
    [40_000, 500],
    [100_000, 200],
    [400_000, 50],
    [3000, 6666],
  ])('32-bit scale: %i Mb/s costs %i', (rate, cost) => expect(defaultPathCost(rate, 'long')).toBe(cost));

  test.each([
    [4, 250],
    [10, 100],
    [16, 62],
    [100, 19],
    [1000, 4],
    [10_000, 2],
    [40_000, 1],
    [200, 12],
    [300, 9],
    [400, 8],
    [500, 7],
    [600, 6],
    [700, 5],
    [800, 5],
    [900, 4],
    [2000, 3],
    [20_000, 1],
  ])('16-bit scale: %i Mb/s costs %i', (rate, cost) => expect(defaultPathCost(rate, 'short')).toBe(cost));

  test('more speed never costs more, and nothing costs less than 1', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.integer({ min: 1, max: 1e6 }),
        fc.constantFrom('short' as const, 'long' as const),
        (a, b, scale) => {
          const [slow, fast] = [Math.min(a, b), Math.max(a, b)].map((rate) => defaultPathCost(rate, scale));
          expect(fast).toBeLessThanOrEqual(slow!);
          expect(fast).toBeGreaterThanOrEqual(1);
        },
      ),
    );
  });
});

describe('identifiers', () => {
  test('a bridge identifier compares by priority with extension first, then by MAC address', () => {
    const id = (priority: number, mac: string) => ({ priority, mac: macToNumber(mac) });
    expect(compareBridgeId(id(4097, '00:00:5e:00:53:ff'), id(8193, '00:00:5e:00:53:01'))).toBeLessThan(0);
    expect(compareBridgeId(id(8193, '00:00:5e:00:53:02'), id(8193, '00:00:5e:00:53:10'))).toBeLessThan(0);
    expect(formatBridgeId(id(32769, '00:00:5e:00:53:01'))).toBe('8001.00:00:5e:00:53:01');
    expect(bridgeIdWords(id(32769, '00:00:5e:00:53:01'))).toBe('32768 + 1 · 00:00:5e:00:53:01');
    expect(bridgeIdWords(id(0, '00:00:5e:00:53:01'))).toBe('0 · 00:00:5e:00:53:01');
    expect([false, true].map((own) => shortBridgeId(id(4206, '00:00:5e:00:53:01'), own))).toEqual([
      '4096·53:01',
      '4096+110·53:01',
    ]);
  });
  test('a port identifier holds four bits of priority and twelve of number', () => {
    expect(formatPortId(portIdentifier(128, 7))).toBe('8007');
    expect(portIdentifier(16, 4095)).toBe(0x1fff);
    expect(splitPortId(0xf002)).toEqual({ priority: 240, number: 2 });
  });
  test('MAC addresses are read in the usual spellings', () => {
    for (const text of ['00:00:5E:00:53:01', '00-00-5e-00-53-01', '0000.5e00.5301', '00005e005301'])
      expect(canonicalMac(text)).toBe('00:00:5e:00:53:01');
    for (const text of ['00:00:5e:00:53', '00:00:5e:00:53:0g', '']) expect(canonicalMac(text)).toBeNull();
    expect(isIndividualMac('01:80:c2:00:00:00')).toBe(false);
    expect(() => macToNumber('x')).toThrow('macToNumber');
  });
  test('a MAC address and its number are one', () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2 ** 48 - 1 }), (n) => expect(macToNumber(numberToMac(n))).toBe(n)),
    ));
  test('the nearest legal priority is named', () => {
    expect(nearestLegal(2478, BRIDGE_PRIORITY)).toBe(4096);
    expect(nearestLegal(2048, BRIDGE_PRIORITY)).toBe(0);
    expect(nearestLegal(99_999, BRIDGE_PRIORITY)).toBe(61440);
    expect(nearestLegal(-5, BRIDGE_PRIORITY)).toBe(0);
  });
});

describe('priority vectors', () => {
  const id = (n: number) => ({ priority: 32768, mac: n });
  const vector: PriorityVector = {
    root: id(1),
    rootPathCost: 4,
    designatedBridge: id(2),
    designatedPort: 0x8001,
    receivingPort: 0x8001,
  };
  test.each([
    ['root', { root: id(2), rootPathCost: 0 }],
    ['rootPathCost', { rootPathCost: 5, designatedBridge: id(0) }],
    ['designatedBridge', { designatedBridge: id(3), designatedPort: 0 }],
    ['designatedPort', { designatedPort: 0x8002, receivingPort: 0 }],
    ['receivingPort', { receivingPort: 0x8002 }],
  ] as const)('%s decides before the parts after it', (part, worse) => {
    expect(comparePriorityVector(vector, { ...vector, ...worse })).toBeLessThan(0);
    expect(decidingPart(vector, { ...vector, ...worse })).toBe(part);
  });
  test('equal vectors have no deciding part', () => expect(decidingPart(vector, { ...vector })).toBeNull());
});

describe('VLAN ranges', () => {
  test('numbers and ranges are read, sorted and joined', () => {
    expect(parseVlanRanges('199, 110-112 111')).toEqual({ ok: true, vlans: [110, 111, 112, 199] });
    expect(formatVlanRanges([199, 110, 112, 111])).toBe('110-112,199');
  });
  test.each([
    ['110-12x', 'not-a-number'],
    ['4095', 'out-of-range'],
    ['0', 'out-of-range'],
    ['20-10', 'backwards'],
  ])('%s is refused: %s', (text, reason) => {
    expect(parseVlanRanges(text)).toMatchObject({ ok: false, reason });
  });
  test('what is written is read back', () =>
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 4094 }), { maxLength: 200 }), (vlans) => {
        expect(parseVlanRanges(formatVlanRanges(vlans))).toEqual({ ok: true, vlans: [...vlans].sort((a, b) => a - b) });
      }),
    ));
  test('all holds every VLAN that may be used', () => {
    const bits = vlanMembership('all');
    expect([bits[0], bits[1], bits[4094], bits[4095]]).toEqual([0, 1, 1, 0]);
    expect(vlanMembership('5-6')[6]).toBe(1);
  });
});

describe('tree identifiers', () => {
  test('each kind is made and read back', () => {
    expect(parseTreeId(vlanTreeId(110))).toEqual({ kind: 'vlan', vlan: 110 });
    expect(parseTreeId(instanceTreeId(2))).toEqual({ kind: 'instance', instance: 2 });
    expect(parseTreeId(instanceTreeId(0))).toEqual({ kind: 'common' });
    expect(parseTreeId('rstp')).toEqual({ kind: 'single', protocol: 'rstp' });
    expect([vlanOfTreeId('vlan-7'), vlanOfTreeId('msti-7')]).toEqual([7, null]);
  });
  test.each(['vlan-', 'vlan-x', 'vlan-12345', 'msti', '', 'vlan-1 ', 'all'])("'%s' is none", (text) =>
    expect(parseTreeId(text)).toBeNull(),
  );
});

test('the order of messages, written out for speed, is that of their parts in turn', () => {
  const field = fc.integer({ min: 0, max: 2 });
  const vector = fc.record(Object.fromEntries(MESSAGE_PARTS.map((part) => [part, field]))) as fc.Arbitrary<Vector>;
  fc.assert(
    fc.property(vector, vector, (a, b) => {
      const part = MESSAGE_PARTS.find((p) => a[p] !== b[p]);
      expect(Math.sign(compareVectors(a, b))).toBe(part ? Math.sign(a[part] - b[part]) : 0);
      // The vector of the ledger puts the same parts in the same order.
      const ledger = (v: Vector): PriorityVector => ({
        root: { priority: v.rootPriority, mac: v.rootMac },
        rootPathCost: v.externalCost,
        regionalRoot: { priority: v.regionalPriority, mac: v.regionalMac },
        internalCost: v.internalCost,
        designatedBridge: { priority: v.bridgePriority, mac: v.bridgeMac },
        designatedPort: v.port,
        receivingPort: 0,
      });
      expect(Math.sign(comparePriorityVector(ledger(a), ledger(b)))).toBe(Math.sign(compareVectors(a, b)));
    }),
    runs(500),
  );
});
