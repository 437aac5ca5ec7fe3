import * as fc from 'fast-check';
import { FLAG, configurationOctets, decodeBpdu, encodeBpdu, extensionIn, flagRole, roleFlags } from './bpdu';
import { addressesOf, bpduFrame, openEnvelope, vlanBpduFrame } from './envelope';
import type { Bpdu } from './bpdu';

const u8 = fc.integer({ min: 0, max: 255 });
const u16 = fc.integer({ min: 0, max: 65535 });
const u32 = fc.integer({ min: 0, max: 0xffffffff });
const mac = fc.integer({ min: 0, max: 0xffffffffffff });
const common = {
  flags: u8,
  rootPriority: u16,
  rootMac: mac,
  rootPathCost: u32,
  bridgePriority: u16,
  bridgeMac: mac,
  port: u16,
  messageAge: u16,
  maxAge: u16,
  helloTime: u16,
  forwardDelay: u16,
};
const msti = fc.record({
  flags: u8,
  regionalPriority: u16,
  regionalMac: mac,
  internalCost: u32,
  bridgePriority: u8,
  portPriority: u8,
  hops: u8,
});
const mst = fc.record({
  configuration: fc.uint8Array({ minLength: 51, maxLength: 51 }),
  internalCost: u32,
  bridgePriority: u16,
  bridgeMac: mac,
  hops: u8,
  instances: fc.array(msti, { maxLength: 64 }),
});
const bpdu: fc.Arbitrary<Bpdu> = fc.oneof(
  fc.record({ type: fc.constantFrom('config' as const, 'rst' as const), ...common }),
  fc.record({ type: fc.constant('mst' as const), ...common, mst }),
);

const hex = (octets: Uint8Array) => Buffer.from(octets).toString('hex');

test('a BPDU that is written and read again is the same', () => {
  fc.assert(fc.property(bpdu, (b) => void expect(decodeBpdu(encodeBpdu(b))).toEqual(b)));
});

test('frames around it give it back, with VLAN and source', () => {
  fc.assert(
    fc.property(bpdu, mac, fc.integer({ min: 1, max: 4094 }), fc.boolean(), (b, source, vlan, tagged) => {
      const octets = encodeBpdu(b);
      const frame = bpduFrame(source, octets);
      const plain = openEnvelope(frame);
      expect([plain.kind, addressesOf(frame).source, plain.vlan, hex(plain.payload)]).toEqual([
        'bpdu',
        source,
        null,
        hex(octets),
      ]);
      const own = openEnvelope(vlanBpduFrame(source, octets, vlan, tagged));
      expect([own.kind, own.vlan, own.named, hex(own.payload.subarray(0, octets.length))]).toEqual([
        'vlan-bpdu',
        tagged ? vlan : null,
        vlan,
        hex(octets),
      ]);
    }),
  );
});

test('octets by hand: an RST BPDU of a designated port that proposes', () => {
  const octets = encodeBpdu({
    type: 'rst',
    flags: roleFlags('designated') | FLAG.proposal,
    rootPriority: 0x8001,
    rootMac: 0x00005e005301,
    rootPathCost: 20000,
    bridgePriority: 0x8001,
    bridgeMac: 0x00005e005302,
    port: 0x8003,
    messageAge: 256,
    maxAge: 20 * 256,
    helloTime: 2 * 256,
    forwardDelay: 15 * 256,
  });
  expect(hex(octets)).toBe(
    '0000' +
      '02' +
      '02' +
      '0e' +
      '800100005e005301' +
      '00004e20' +
      '800100005e005302' +
      '8003' +
      '0100' +
      '1400' +
      '0200' +
      '0f00' +
      '00',
  );
  expect(flagRole(octets[4]!)).toBe('designated');
});

test('what is cut short or foreign is no BPDU; an MST BPDU cut short is read as an RST BPDU', () => {
  expect(decodeBpdu(new Uint8Array(3))).toBeNull();
  expect(decodeBpdu(Uint8Array.from([0, 1, 0, 0]))).toBeNull();
  expect(decodeBpdu(new Uint8Array(34))).toBeNull();
  const whole = encodeBpdu({
    ...(fc.sample(fc.record({ type: fc.constant('mst' as const), ...common, mst }), 1)[0]! as Bpdu),
  });
  expect(decodeBpdu(whole.subarray(0, 101))?.type).toBe('rst');
  expect(decodeBpdu(Uint8Array.from([0, 0, 0, 0x80]))?.type).toBe('notification');
});

test('the configuration has selector, name, revision and digest in their places', () => {
  const octets = configurationOctets('quay', 258, 'ac36177f50283cd4b83821d8ab26de62');
  expect(hex(octets)).toBe(
    '00' + Buffer.from('quay').toString('hex').padEnd(64, '0') + '0102' + 'ac36177f50283cd4b83821d8ab26de62',
  );
});

test('the extension is that of the bridge that speaks, in every kind of BPDU that names one', () => {
  const types = fc.constantFrom('config' as const, 'rst' as const, 'mst' as const);
  fc.assert(
    fc.property(fc.record({ type: types, ...common, mst }), (bpdu) => {
      const octets = encodeBpdu(bpdu.type === 'mst' ? bpdu : { ...bpdu, mst: undefined });
      expect(extensionIn(octets)).toBe(bpdu.bridgePriority % 4096);
    }),
  );
  expect(extensionIn(encodeBpdu({ ...decodeBpdu(Uint8Array.from([0, 0, 0, 0x80]))! }))).toBeNull();
});
