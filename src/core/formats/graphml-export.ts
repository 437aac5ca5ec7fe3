/** GraphML, plain, with typed keys: every field of a design's elements has its key, so that what goes out comes in again. */
import { XMLBuilder } from 'fast-xml-parser';
import type { Design, LinkEnd } from '../design';

type Value = string | number | boolean | object | undefined;
type GraphType = 'string' | 'long' | 'double' | 'boolean';

/** Fields with a type of their own; the others are text, and what is no text is JSON text. */
const TYPES: Readonly<Record<string, GraphType>> = {
  x: 'double',
  y: 'double',
  number: 'long',
  priority: 'long',
  speed: 'long',
  cost: 'long',
  native: 'long',
  vlan: 'long',
  off: 'boolean',
  down: 'boolean',
  edge: 'boolean',
  autoEdge: 'boolean',
  bpduGuard: 'boolean',
  bpduFilter: 'boolean',
  rootGuard: 'boolean',
  loopGuard: 'boolean',
  tcGuard: 'boolean',
  helloTime: 'long',
  maxAge: 'long',
  forwardDelay: 'long',
  holdCount: 'long',
  ageingTime: 'long',
  maxTrees: 'long',
  guardRecovery: 'long',
  oneWayRecovery: 'long',
  stormRecovery: 'long',
  edgeGuard: 'boolean',
  edgeFilter: 'boolean',
  filterYields: 'boolean',
  silenceGuard: 'boolean',
  oneWayInterval: 'long',
  stormLimit: 'long',
};
/** What belongs to the design as a whole and is no node, port or edge. */
export const OF_GRAPH = [
  'mode',
  'costScale',
  'bundleCost',
  'vlans',
  'bundles',
  'regions',
  'pairs',
  'scripts',
  'goals',
  'demands',
  'risks',
  'accepted',
  'workplaces',
  'readings',
  'notes',
  'cableCosts',
] as const;
const typeOf = (field: string): GraphType => TYPES[field] ?? 'string';
const shown = (value: Value): string => (typeof value === 'object' ? JSON.stringify(value) : String(value));

interface XmlData {
  '@_key': string;
  '#text': string;
}

/** Fields of an element as data, by keys of the form `switch.mac`. */
function dataOf(scope: string, element: object, leave: readonly string[], keys: Map<string, GraphType>): XmlData[] {
  return Object.entries(element as Record<string, Value>)
    .filter(([field, value]) => value !== undefined && !leave.includes(field))
    .map(([field, value]) => {
      keys.set(`${scope}.${field}`, typeOf(field));
      return { '@_key': `${scope}.${field}`, '#text': shown(value) };
    });
}

const FOR: Readonly<Record<string, string>> = { graph: 'graph', link: 'edge', port: 'port' };

type Keys = Map<string, GraphType>;

const kindKey = (keys: Keys, kind: string) => {
  keys.set('kind', 'string');
  return { '@_key': 'kind', '#text': kind };
};

const endpoint = (design: Design, end: LinkEnd) =>
  'port' in end
    ? { node: design.ports.find((p) => p.id === end.port)!.switch, port: end.port }
    : { node: end.host, port: undefined };

const nodesOf = (design: Design, keys: Keys) => [
  ...design.switches.map((s) => ({
    '@_id': s.id,
    data: [kindKey(keys, 'switch'), ...dataOf('switch', s, ['id'], keys)],
    port: design.ports
      .filter((p) => p.switch === s.id)
      .map((p) => ({ '@_name': p.id, data: dataOf('port', p, ['id', 'switch'], keys) })),
  })),
  ...design.hosts.map((h) => ({ '@_id': h.id, data: [kindKey(keys, 'host'), ...dataOf('host', h, ['id'], keys)] })),
  ...design.segments.map((s) => ({
    '@_id': s.id,
    data: [kindKey(keys, 'segment'), ...dataOf('segment', s, ['id', 'ports'], keys)],
  })),
];

const edgesOf = (design: Design, keys: Keys) => [
  ...design.links.map((l) => {
    const [a, b] = [endpoint(design, l.a), endpoint(design, l.b)];
    const cards = [l.a, l.b].flatMap((e) => ('host' in e && e.card ? [e.card] : []));
    return {
      '@_id': l.id,
      '@_source': a.node,
      '@_target': b.node,
      ...(a.port === undefined ? {} : { '@_sourceport': a.port }),
      ...(b.port === undefined ? {} : { '@_targetport': b.port }),
      data: dataOf('link', { ...l, card: cards[0] }, ['id', 'a', 'b'], keys),
    };
  }),
  ...design.segments.flatMap((s) =>
    s.ports.map((port, i) => ({
      '@_id': `${s.id} ${i + 1}`,
      '@_source': endpoint(design, { port }).node,
      '@_target': s.id,
      '@_sourceport': port,
    })),
  ),
];

/** A design as GraphML. Switches, hosts and segments are nodes, ports are ports of their node, links are edges. */
export function exportGraphml(design: Design): string {
  // Filled by whatever is written; declared ahead of it in the file.
  const keys: Keys = new Map();
  const node = nodesOf(design, keys);
  const edge = edgesOf(design, keys);
  const fields = Object.fromEntries(['name', ...OF_GRAPH].map((f) => [f, design[f as 'name']]));
  const data = dataOf('graph', fields, [], keys);
  const key = [...keys].map(([id, type]) => ({
    '@_id': id,
    '@_for': id === 'kind' ? 'node' : (FOR[id.split('.')[0]!] ?? 'node'),
    '@_attr.name': id.replace(/^.*\./, ''),
    '@_attr.type': type,
  }));
  const builder = new XMLBuilder({ ignoreAttributes: false, format: true, suppressEmptyNode: true });
  return builder.build({
    '?xml': { '@_version': '1.0', '@_encoding': 'UTF-8' },
    graphml: {
      '@_xmlns': 'http://graphml.graphdrawing.org/xmlns',
      key,
      graph: { '@_id': 'design', '@_edgedefault': 'undirected', data, node, edge },
    },
  });
}
