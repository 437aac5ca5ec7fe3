import fc from 'fast-check';
import { LACP_STATE, decodeLacpdu, encodeLacpdu, stateWords } from './lacpdu';
import { putNumber } from './fields';

const info = fc.record({
  systemPriority: fc.nat(65535),
  system: fc.nat(0xffffffffffff),
  key: fc.nat(65535),
  portPriority: fc.nat(65535),
  port: fc.nat(65535),
  state: fc.nat(255),
});

describe('LACPDU', () => {
  test('reading what was written gives it back', () => {
    fc.assert(
      fc.property(info, info, fc.nat(65535), (actor, partner, collectorMaxDelay) => {
        const pdu = { actor, partner, collectorMaxDelay };
        expect(decodeLacpdu(encodeLacpdu(pdu))).toEqual(pdu);
      }),
    );
  });
  test('the octets stand where the standard puts them', () => {
    const actor = {
      systemPriority: 0x8000,
      system: 0x00005e005321,
      key: 101,
      portPriority: 0x7fff,
      port: 2,
      state: 0x3d,
    };
    const partner = { systemPriority: 1, system: 0x00005e005322, key: 7, portPriority: 3, port: 9, state: 0x05 };
    const octets = encodeLacpdu({ actor, partner, collectorMaxDelay: 0x1234 });
    expect(octets).toHaveLength(110);
    const hex = Buffer.from(octets).toString('hex');
    expect(hex.slice(0, 44)).toBe('01010114800000005e00532100657fff00023d000000');
    expect(hex.slice(44, 84)).toBe('0214000100005e005322000700030009' + '05000000');
    expect(hex.slice(84, 92)).toBe('03101234');
    expect(hex.slice(92)).toBe('0'.repeat(128));
  });
  test('state bits in words', () => {
    expect(stateWords(LACP_STATE.activity | LACP_STATE.synchronization | LACP_STATE.expired)).toEqual([
      'activity',
      'synchronization',
      'expired',
    ]);
  });
  test('another subtype, or octets cut short, are none; a number that does not fit is a bug', () => {
    const octets = encodeLacpdu({
      actor: { systemPriority: 1, system: 2, key: 3, portPriority: 4, port: 5, state: 6 },
      partner: { systemPriority: 1, system: 2, key: 3, portPriority: 4, port: 5, state: 6 },
      collectorMaxDelay: 0,
    });
    expect(decodeLacpdu(octets.slice(0, 109))).toBeNull();
    expect(decodeLacpdu(Uint8Array.from(octets, (o, i) => (i === 0 ? 2 : o)))).toBeNull();
    expect(() => putNumber(new Uint8Array(4), 0, 2, 65536)).toThrow('65536 does not fit into 2 octets');
  });
});
