/** Several sources as one network: who is who, what is plugged into what, and what is asked about. */
import { asMeant } from '../../../demo/brackwater';
import { asBuilt } from '../as-built';
import { changesBetween } from '../changes';
import { asObserved } from '../compare/accept';
import { compareWithDesign } from '../compare/compare';
import { applyEdits, portLabel, setField } from '../../design';
import type { Design } from '../../design';
import { macToNumber } from '../../standard';
import { known, nothingOf } from '../model';
import type { Observation, ObservedNeighbour, ObservedTree, Source } from '../model';
import { inferredLinks } from '../inferred';
import { unite } from './unite';
import { observedOf } from '../../../../tests/support/observed';

const source = (kind: Source['kind'], name: string): Source => ({ kind, name, at: null });
const mac = (last: number) => `00:00:5e:00:53:${last.toString(16).padStart(2, '0')}`;
const neighbour = (
  port: string,
  name: string,
  farPort: string,
  more: Partial<ObservedNeighbour> = {},
): ObservedNeighbour => ({
  port,
  by: 'lldp',
  name,
  mac: null,
  farPort,
  farDescription: null,
  farMac: null,
  bridge: true,
  management: [],
  ...more,
});
const observed = (name: string, last: number, more: Partial<Observation> = {}): Observation => ({
  ...nothingOf(source('snmp', `${name}.walk`)),
  name,
  mac: mac(last),
  protocol: 'rstp',
  ...more,
});
const tree = (last: number, ports: ObservedTree['ports'], root = last): ObservedTree => ({
  id: 'single',
  bridge: { priority: 32768, mac: macToNumber(mac(last)) },
  root: { priority: 32768, mac: macToNumber(mac(root)) },
  ports,
});

test('sources of one device are one, by the address of the bridge; a contradiction is a question', () => {
  const walk = observed('shed', 1, { trees: [tree(1, [])] });
  const wire: Observation = {
    ...nothingOf(source('capture', 'wire.pcap')),
    mac: mac(1),
    protocol: 'stp',
    trees: [{ ...tree(1, []), bridge: { priority: 4096, mac: macToNumber(mac(1)) } }],
  };
  const { switches, questions } = unite([wire, walk]);
  expect(switches).toHaveLength(1);
  expect(switches[0]).toMatchObject({
    name: 'shed',
    protocol: 'rstp',
    priority: 32768,
    source: ['shed.walk', 'wire.pcap'],
  });
  const texts = questions.filter((q) => q.kind === 'contradicts').map((q) => q.text);
  expect(texts.some((t) => t.startsWith('Of the priority of shed, shed.walk says 32768 and wire.pcap says 4096'))).toBe(
    true,
  );
});

test('two devices of one name stay two, and are asked about', () => {
  const { switches, questions } = unite([observed('shed', 1), observed('shed', 2)]);
  expect(switches.map((s) => s.name)).toEqual([`shed ${mac(1)}`, `shed ${mac(2)}`]);
  expect(questions.map((q) => q.text).join()).toContain('2 devices call themselves shed');
});

test('a device that was not read is drawn from what its neighbours report, and end devices are not', () => {
  const shed = observed('shed', 1, {
    neighbours: [neighbour('1', 'yard', '7', { mac: mac(9) }), neighbour('2', 'camera', 'eth0', { bridge: false })],
  });
  const { switches, links, questions } = unite([shed]);
  expect(switches.map((s) => [s.name, s.mac, s.source.length])).toEqual([
    ['shed', mac(1), 1],
    ['yard', mac(9), 0],
  ]);
  expect(links).toEqual([{ a: { switch: 'shed', port: '1' }, b: { switch: 'yard', port: '7' }, certainty: 'lldp' }]);
  expect(questions.map((q) => q.text).join()).toContain('Switch yard was not read');
});

test('three that hear each other are on one shared LAN', () => {
  const all = ['a', 'b', 'c'].map((name, i) =>
    observed(name, i + 1, {
      neighbours: ['a', 'b', 'c'].filter((n) => n !== name).map((n) => neighbour('1', n, '1')),
    }),
  );
  const { links, segments } = unite(all);
  expect(links).toEqual([]);
  expect(segments).toHaveLength(1);
  expect(segments[0]!.ports.map((p) => p.switch)).toEqual(['a', 'b', 'c']);
});

const designated = (last: number, port: string, number: number) => ({
  port,
  role: 'designated' as const,
  state: 'forwarding' as const,
  designated: { bridge: { priority: 32768, mac: macToNumber(mac(last)) }, port: 0x8000 | number },
});

test('two designated ports on one link are a deviation, before everything else', () => {
  const port = (name: string, number: number) => known({ name, number, up: true });
  const all = [
    observed('a', 1, {
      ports: [port('1', 1)],
      trees: [tree(1, [designated(1, '1', 1)])],
      neighbours: [neighbour('1', 'b', '1')],
    }),
    observed('b', 2, { ports: [port('1', 1)], trees: [tree(2, [designated(2, '1', 1)])] }),
  ];
  const { network } = asBuilt(all, 'read');
  expect(network.questions[0]).toMatchObject({ kind: 'deviates' });
  expect(network.questions[0]!.text).toContain('a 1 and b 1 are designated on one LAN');
  expect(network.questions.some((q) => q.text.includes('decides otherwise than the standard'))).toBe(true);
});

test('a link that one end alone reports, while the other one reports neighbours too, is a deviation', () => {
  const all = [
    observed('a', 1, { neighbours: [neighbour('1', 'b', '1'), neighbour('2', 'b', '2')] }),
    observed('b', 2, { neighbours: [neighbour('1', 'a', '1')] }),
  ];
  const texts = unite(all).questions.flatMap((q) => (q.kind === 'deviates' ? [q.text] : []));
  expect(texts).toHaveLength(1);
  expect(texts[0]).toMatch(/^LLDP of b 2 arrives at a 2, and none of a 2 arrives at b 2/);
});

test('unlike digests of one region are a deviation that names the switch', () => {
  const region = (digest: string) => ({ name: 'harbour', revision: 1, digest, map: null });
  const all = [1, 2, 3].map((n) => observed(`s${n}`, n, { protocol: 'mstp', region: region(n === 3 ? 'FF' : 'AA') }));
  const { network } = asBuilt(all, 'read');
  expect(network.questions[0]!.text).toMatch(/^Switch s3 is in region harbour, revision 1 by name and not by digest/);
});

/** The design after everything in which it differs from what was observed is accepted. */
function accepted(design: Design, network: ReturnType<typeof unite>): Design {
  let n = 0;
  return asObserved(design, network, (prefix) => `${prefix}-new-${n++}`);
}

test('what differs can be accepted until nothing does: priorities, costs, cables, bundles of cables that were there', () => {
  const there = asMeant();
  const network = unite(observedOf(there));
  const uncabled = there.links.find((l) => 'port' in l.a && 'port' in l.b && l.id.includes('gate'))!;
  const edited = applyEdits(there, [
    setField('switch', 'gate', 'vlanPriority', { 110: 4096 }),
    setField('switch', 'quay-a', 'maxAge', 25),
    setField('port', there.ports.find((p) => p.switch === 'ticket-hall')!.id, 'cost', 17),
    { type: 'remove', kind: 'link', id: uncabled.id },
  ]);
  if (!edited.ok) throw new Error('The edits do not apply.');
  expect(compareWithDesign(edited.design, network).length).toBeGreaterThan(3);
  expect(compareWithDesign(accepted(edited.design, network), network)).toEqual([]);
});

test('between two readings, roots, roles, members and cables that changed are noted', () => {
  const before = unite(observedOf(asMeant()));
  const lost = asMeant();
  const after = unite(
    observedOf({
      ...lost,
      switches: lost.switches.map((s) => (s.id === 'core-east' ? { ...s, off: true } : s)),
    }),
  );
  const texts = changesBetween(before, after).map((c) => c.text);
  expect(texts).toContain('Switch core-east does not answer any more.');
  expect(texts).toContain('The root of VLANs 110, 120, 130 is core-west in place of core-east.');
  expect(texts.some((t) => t.startsWith('The link core-east 3 – quay-a 1 is gone'))).toBe(true);
  expect(texts.some((t) => /^Port quay-a 2 is root forwarding in VLANs 110, 120, 130; it was /.test(t))).toBe(true);
  expect(changesBetween(before, before)).toEqual([]);
});

test('a port that reports no neighbour and has learned many addresses leads to a switch that was not read', () => {
  const at = { ...nothingOf({ kind: 'linux', name: 'shed', at: null }), name: 'shed', mac: '00:00:5e:00:53:01' };
  const learned = (port: string, n: number) =>
    Array.from({ length: n }, (_, i) => ({ mac: `00:00:5e:00:54:0${i}`, port, vlan: 10 }));
  const ports = ['1', '2', '3'].map((name) => ({ name, up: name !== '3', edge: true }));
  const { questions } = unite([
    { ...at, ports, learned: [...learned('1', 5), ...learned('2', 2), ...learned('3', 5)] },
  ]);
  expect(questions.map((q) => [q.kind, q.port])).toEqual([['inferred', '1']]);
  expect(questions[0]!.text).toContain('5 addresses are learned there');
});

test('links that only LACP or BPDUs tell of are inferred in whatever design has them', () => {
  const design = asMeant();
  const network = unite(observedOf(design));
  expect(inferredLinks(design, network).size).toBe(0);
  const [one] = network.links;
  const guessed = {
    ...network,
    links: network.links.map((l) => (l === one ? { ...l, certainty: 'bpdu' as const } : l)),
  };
  const [id] = [...inferredLinks(design, guessed)];
  const link = design.links.find((l) => l.id === id)!;
  const words = [link.a, link.b].map((e) => ('port' in e ? portLabel(design, e.port) : ''));
  expect(words.sort()).toEqual([one!.a, one!.b].map((e) => `'${e.port}' of ${e.switch}`).sort());
});
