import { asMeant } from '../../demo/brackwater';
import type { Design } from '../design';
import { bpduFrame, configurationOctets, encodeBpdu, encodeLacpdu, slowFrame } from '../protocols/frames';
import type { Bpdu } from '../protocols/frames';
import { fieldsOf, flagWords } from './frame-fields';
import { framesOf } from './frame-log';
import { rehearse } from '../simulation';

const named = (octets: Uint8Array) => Object.fromEntries(fieldsOf(octets).map((f) => [f.name, f.value]));
const BASE: Bpdu = {
  type: 'rst',
  flags: 0x7e,
  rootPriority: 4096,
  rootMac: 0x00005e005301,
  rootPathCost: 20_000,
  bridgePriority: 32768,
  bridgeMac: 0x00005e005302,
  port: 0x8003,
  messageAge: 256,
  maxAge: 20 * 256,
  helloTime: 2 * 256,
  forwardDelay: 15 * 256,
};

test('flags in words: the role first, then the others', () => {
  expect(flagWords(0x7e, true)).toBe('designated, proposal, learning, forwarding, agreement');
  expect(flagWords(0x81, false)).toBe('topology change, acknowledged');
  expect(flagWords(0x89, true)).toBe('root, topology change, master');
  expect(flagWords(0, false)).toBe('none');
});

test('a rapid BPDU, with its identifiers written as they are compared and its times in seconds', () => {
  expect(named(bpduFrame(0x00005e005302, encodeBpdu(BASE)))).toMatchObject({
    destination: '01:80:c2:00:00:00',
    source: '00:00:5e:00:53:02',
    BPDU: 'rapid',
    root: '4096 · 00:00:5e:00:53:01',
    'root path cost': '20000',
    bridge: '32768 · 00:00:5e:00:53:02',
    'port identifier': '8003',
    'message age': '1 s',
    'maximum age': '20 s',
    'hello time': '2 s',
    'forward delay': '15 s',
  });
});

test('a notification has no more than its kind', () => {
  const fields = fieldsOf(bpduFrame(1, encodeBpdu({ ...BASE, type: 'notification' })));
  expect(fields.map((f) => f.name)).toEqual(['destination', 'source', 'BPDU']);
});

test('one with instances: the region, and each instance with its regional root', () => {
  const mst = {
    configuration: configurationOctets('quay', 3, 'ab'.repeat(16)),
    internalCost: 2000,
    bridgePriority: 8192,
    bridgeMac: 0x00005e005309,
    hops: 19,
    instances: [
      {
        flags: 0x4c,
        regionalPriority: 4097,
        regionalMac: 7,
        internalCost: 5,
        bridgePriority: 16,
        portPriority: 128,
        hops: 18,
      },
    ],
  };
  const fields = named(bpduFrame(1, encodeBpdu({ ...BASE, type: 'mst', mst })));
  expect(fields).toMatchObject({
    BPDU: 'multiple instances',
    region: 'quay, revision 3',
    digest: 'ab'.repeat(16),
    bridge: '8192 · 00:00:5e:00:53:09',
    'instance 1': 'designated, agreement',
    'regional root': '4096 + 1 · 00:00:00:00:00:07',
    'remaining hops': '18',
  });
});

test('a LACPDU: actor and partner, their state bits in words', () => {
  const party = (port: number, state: number) => ({
    systemPriority: 32768,
    system: 0x00005e005305,
    key: 7,
    portPriority: 1,
    port,
    state,
  });
  const fields = named(
    slowFrame(1, encodeLacpdu({ actor: party(3, 0x3d), partner: party(4, 0x47), collectorMaxDelay: 0 })),
  );
  expect(fields).toMatchObject({
    destination: '01:80:c2:00:00:02',
    'actor system': '32768 · 00:00:5e:00:53:05',
    'actor key': '7',
    'actor port': '1.3',
    'actor state': 'activity, aggregation, synchronization, collecting, distributing',
    'partner port': '1.4',
    'partner state': 'activity, timeout, aggregation, defaulted',
  });
});

describe('of every frame of a run', () => {
  const mstp: Design = {
    ...asMeant(),
    mode: 'mstp',
    regions: [{ id: 'r', name: 'quay', revision: 1, map: { '1': '110,120', '2': '140' } }],
  };
  test.each([
    ['trees per VLAN', asMeant()],
    ['classic', { ...asMeant(), mode: 'stp' as const }],
    ['instances', mstp],
  ])('the fields lie in it, one behind the other, and none twice: %s', (_, design) => {
    const trace = rehearse(design, { id: 's', name: 's', until: 4, events: [], probes: [] });
    const seen = new Set<string>();
    for (const { octets } of framesOf(trace.frames)) {
      if (seen.has(octets.join())) continue;
      seen.add(octets.join());
      let end = 0;
      for (const { at, width } of fieldsOf(octets)) {
        expect(at).toBeGreaterThanOrEqual(end);
        end = at + width;
      }
      expect(end).toBeLessThanOrEqual(octets.length);
    }
    expect(seen.size).toBeGreaterThan(5);
  });
});
