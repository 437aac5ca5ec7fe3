import fc from 'fast-check';
import { networks } from '../../../tests/support/networks';
import { asCabled, asMeant } from '../../demo/brackwater';
import { emptyDesign } from '../design';
import type { Design } from '../design';
import { exportGraphml } from './graphml-export';
import { exportTopology } from './topology';
import { readGraphml } from './graphml';

const read = (text: string) => readGraphml('net.graphml', text);
const again = (design: Design) => {
  const result = read(exportGraphml(design));
  if (!result.ok) throw new Error(result.faults.map((f) => `${f.column}: ${f.sentence}`).join('\n'));
  return result.design;
};
/** Order within a list is not kept where the ports stand under their switch. */
const sorted = (design: Design) => ({ ...design, ports: [...design.ports].sort((a, b) => a.id.localeCompare(b.id)) });

describe('GraphML', () => {
  test.each([
    ['as cabled', asCabled()],
    ['as meant', asMeant()],
    ['empty', emptyDesign('x')],
  ])('what goes out comes in again: %s', (_, design) => expect(sorted(again(design))).toEqual(sorted(design)));
  test('what goes out comes in again, for any network', () => {
    fc.assert(
      fc.property(networks, (design) => expect(sorted(again(design))).toEqual(sorted(design))),
      { numRuns: 60 },
    );
  });
  test('names with signs of XML come through', () => {
    const design = asCabled();
    design.switches[0]!.name = `<core> & "east"`;
    design.hosts[0]!.name = ' server]]>';
    expect(again(design).switches[0]!.name).toBe(`<core> & "east"`);
  });
  test('keys have types', () => {
    expect(exportGraphml(asCabled())).toMatch(/<key id="port.speed" for="port" attr.name="speed" attr.type="long"/);
  });
  test('a graph from elsewhere: nodes are switches, edges are links, ports and addresses come into being', () => {
    const result = read(`<?xml version="1.0"?>
      <graphml xmlns="http://graphml.graphdrawing.org/xmlns"><key id="d0" for="node" attr.name="label" attr.type="string"/>
      <graph edgedefault="undirected"><node id="n0"><data key="d0">north</data></node><node id="n1"/><node id="n2"/>
      <edge source="n0" target="n1"/><edge source="n1" target="n2"/><edge source="n1" target="n2"/></graph></graphml>`);
    if (!result.ok) throw new Error(result.faults[0]!.sentence);
    expect(result.design.switches.map((s) => s.name)).toEqual(['north', 'n1', 'n2']);
    expect(result.design.links).toHaveLength(3);
    expect(result.design.ports).toHaveLength(6);
  });
  test.each([
    ['no XML', 'switch,mac', /./],
    ['XML cut short', '<graphml><graph>', /not complete XML/],
    ['another XML', '<a/>', /holds no graph/],
    ['entities', '<!DOCTYPE x [<!ENTITY a "b">]><graphml/>', /document type or entities/],
    [
      'an edge to nowhere',
      '<graphml><graph><node id="a"/><edge source="a" target="b"/></graph></graphml>',
      /no switch 'b'/,
    ],
  ])('%s is refused with a sentence', (_, text, sentence) => {
    const result = read(text);
    expect(result.ok ? '' : result.faults[0]!.sentence).toMatch(sentence);
  });
});

describe('RFC 8345', () => {
  interface Exported {
    'ietf-network:networks': {
      network: {
        node: { 'node-id': string; 'ietf-network-topology:termination-point': { 'tp-id': string }[] }[];
        'ietf-network-topology:link': {
          'link-id': string;
          source: { 'source-node': string; 'source-tp': string };
          destination: { 'dest-node': string; 'dest-tp': string };
        }[];
      }[];
    };
  }
  test('every end of every link is a termination point of a node, and every link has its way back', () => {
    fc.assert(
      fc.property(fc.oneof(networks, fc.constant(asCabled())), (design) => {
        const [network] = (JSON.parse(exportTopology(design)) as Exported)['ietf-network:networks'].network;
        const points = new Set(
          network!.node.flatMap((n) =>
            n['ietf-network-topology:termination-point'].map((t) => `${n['node-id']}\n${t['tp-id']}`),
          ),
        );
        const links = network!['ietf-network-topology:link'];
        const ends = links.map(({ source: s, destination: d }) => [
          `${s['source-node']}\n${s['source-tp']}`,
          `${d['dest-node']}\n${d['dest-tp']}`,
        ]);
        for (const end of ends.flat()) expect(points).toContain(end);
        expect(new Set(links.map((l) => l['link-id'])).size).toBe(links.length);
        const there = new Set(ends.map((e) => e.join('|')));
        for (const [a, b] of ends) expect(there).toContain(`${b}|${a}`);
        expect(links.length).toBe(
          2 * (design.links.length + design.segments.reduce((sum, s) => sum + s.ports.length, 0)),
        );
      }),
      { numRuns: 40 },
    );
  });
});
