/** GraphML, plain, with typed keys: every field of a design's elements has its key, so that what goes out comes in again. */
import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';
import { COLLECTIONS, DESIGN_FORMAT, DESIGN_VERSION, clipped, emptyDesign, readDesign } from '../design';
import type { Design, Kind, LinkEnd, Port } from '../design';
import { Macs, Names, Wiring } from '../cabling';
import type { TableFault } from './table';

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
  helloTime: 'long',
  maxAge: 'long',
  forwardDelay: 'long',
  holdCount: 'long',
  guardRecovery: 'long',
};
/** What belongs to the design as a whole and is no node, port or edge. */
const OF_GRAPH = [
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

/** A design as GraphML. Switches, hosts and segments are nodes, ports are ports of their node, links are edges. */
export function exportGraphml(design: Design): string {
  const keys = new Map<string, GraphType>();
  const kindKey = (kind: string) => {
    keys.set('kind', 'string');
    return { '@_key': 'kind', '#text': kind };
  };
  const endpoint = (end: LinkEnd) =>
    'port' in end
      ? { node: design.ports.find((p) => p.id === end.port)!.switch, port: end.port }
      : { node: end.host, port: undefined };
  const nodes = [
    ...design.switches.map((s) => ({
      '@_id': s.id,
      data: [kindKey('switch'), ...dataOf('switch', s, ['id'], keys)],
      port: design.ports
        .filter((p) => p.switch === s.id)
        .map((p) => ({ '@_name': p.id, data: dataOf('port', p, ['id', 'switch'], keys) })),
    })),
    ...design.hosts.map((h) => ({ '@_id': h.id, data: [kindKey('host'), ...dataOf('host', h, ['id'], keys)] })),
    ...design.segments.map((s) => ({
      '@_id': s.id,
      data: [kindKey('segment'), ...dataOf('segment', s, ['id', 'ports'], keys)],
    })),
  ];
  const edges = [
    ...design.links.map((l) => {
      const [a, b] = [endpoint(l.a), endpoint(l.b)];
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
        '@_source': endpoint({ port }).node,
        '@_target': s.id,
        '@_sourceport': port,
      })),
    ),
  ];
  const graph = dataOf(
    'graph',
    Object.fromEntries(['name', ...OF_GRAPH].map((f) => [f, design[f as 'name']])),
    [],
    keys,
  );
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
      graph: { '@_id': 'design', '@_edgedefault': 'undirected', data: graph, node: nodes, edge: edges },
    },
  }) as string;
}

export type ReadGraphml =
  { readonly ok: true; readonly design: Design } | { readonly ok: false; readonly faults: readonly TableFault[] };

interface XmlElement {
  data?: unknown;
  port?: unknown;
  [attribute: `@_${string}`]: string | undefined;
}
interface Key {
  readonly name: string;
  readonly type: string;
}

const LISTS = new Set(['key', 'node', 'edge', 'data', 'port', 'graph']);

/** Data of an element by attribute name, in the type that its key declares. */
function fieldsOf({ data }: XmlElement, keys: ReadonlyMap<string, Key>): Record<string, unknown> {
  return Object.fromEntries(
    elementsOf(data).map((element) => {
      const id = element['@_key'] ?? '';
      const text = String((element as { '#text'?: unknown })['#text'] ?? '');
      const { name, type } = keys.get(id) ?? { name: id, type: 'string' };
      // A text that is no number stays one, so that it is named when it is refused.
      if (['int', 'long', 'float', 'double'].includes(type))
        return [name, text.trim() !== '' && Number.isFinite(Number(text)) ? Number(text) : text];
      if (type === 'boolean') return [name, text === 'true' || text === '1'];
      if (/^[[{]/.test(text)) {
        try {
          return [name, JSON.parse(text)];
        } catch {
          return [name, text];
        }
      }
      return [name, text];
    }),
  );
}

const pick = (fields: Record<string, unknown>, kind: Exclude<Kind, 'goal'>, leave: readonly string[] = []) => {
  const known = Object.keys(COLLECTIONS[kind].schema.shape);
  return Object.fromEntries(
    Object.entries(fields).filter(([field]) => known.includes(field) && !leave.includes(field)),
  );
};

/** The first of several usual keys under which other programs write a thing. */
const first = (fields: Record<string, unknown>, names: readonly string[]): string | undefined => {
  const key = Object.keys(fields).find((k) => names.includes(k.toLowerCase()));
  const value = key === undefined ? undefined : fields[key];
  return value === undefined || value === '' ? undefined : String(value);
};

const recordOf = (value: unknown): Record<string, unknown> | null =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Record<string, unknown>) : null;

/** Elements of one name, whatever the parser has made of them: one, many, or text where elements belong. */
const elementsOf = (value: unknown): XmlElement[] =>
  (Array.isArray(value) ? value : [value]).flatMap((v) => {
    if (typeof v === 'string') return { '#text': v } as XmlElement;
    return (recordOf(v) as XmlElement | null) ?? [];
  });

/** A sentence with its full stop, and not longer than can be read. */
const ended = (text: string): string => `${clipped(text, 200).replace(/[.]$/, '')}.`;

/** Levels of elements that are read: a graph has six. */
const DEEPEST = 60;

/** What is wrong with a text as XML, before a parser sees it that takes time or memory for it; null when nothing is. */
function xmlFault(text: string): { sentence: string; row: number | null } | null {
  if (/<\?[^?]*$/.test(text.slice(-2000)) || /<\?(?![\s\S]*\?>)/.test(text.slice(-2000)))
    return { sentence: 'The file is not complete XML: it ends within <? … ?>.', row: null };
  const open = text.lastIndexOf('<![CDATA[');
  if (open >= 0 && text.indexOf(']]>', open) < 0)
    return { sentence: 'The file is not complete XML: it ends within <![CDATA[ … ]]>.', row: null };
  if (/<\/?\s*(__proto__|constructor|prototype)\b/.test(text))
    return { sentence: 'The file holds an element with a name that no graph has.', row: null };
  let depth = 0;
  for (const [tag] of text.matchAll(/<(?:\/[^>]*|[^!?/][^>]*)>/g)) {
    if (tag.startsWith('</')) depth--;
    else if (!tag.endsWith('/>')) depth++;
    if (depth > DEEPEST) return { sentence: `The elements are nested more than ${DEEPEST} deep.`, row: null };
  }
  try {
    const valid = XMLValidator.validate(text);
    return valid === true
      ? null
      : { sentence: `The file is not complete XML: ${ended(valid.err.msg)}`, row: valid.err.line };
  } catch {
    return { sentence: 'The file is not complete XML.', row: null };
  }
}

/** GraphML as a design. Of a file that was not written here, nodes are switches, edges are links, and ports come into being. */
export function readGraphml(file: string, text: string): ReadGraphml {
  const fault = (sentence: string, row: number | null = null): ReadGraphml => ({
    ok: false,
    faults: [{ file, row, column: null, sentence }],
  });
  const clean = text.replace(/^\uFEFF/, '');
  if (/<!(DOCTYPE|ENTITY)/i.test(clean))
    return fault('The file declares a document type or entities, which are not read.');
  const broken = xmlFault(clean);
  if (broken) return fault(broken.sentence, broken.row);
  const parser = new XMLParser({
    ignoreAttributes: false,
    parseTagValue: false,
    parseAttributeValue: false,
    trimValues: false,
    isArray: (name) => LISTS.has(name),
  });
  let parsed: unknown;
  try {
    parsed = parser.parse(clean);
  } catch (error) {
    return fault(`The file is not complete XML: ${ended(error instanceof Error ? error.message : String(error))}`);
  }
  const root = recordOf(recordOf(parsed)?.graphml);
  const graph = elementsOf(root?.graph)[0] as (XmlElement & { node?: unknown; edge?: unknown }) | undefined;
  if (!root || !graph) return fault('The file holds no graph: GraphML starts with <graphml> and a <graph> in it.');
  const keys = new Map(
    elementsOf(root.key).map((k) => [
      k['@_id'] ?? '',
      { name: k['@_attr.name'] ?? k['@_id'] ?? '', type: k['@_attr.type'] ?? 'string' },
    ]),
  );
  const nameless = elementsOf(graph.node).findIndex((n) => (n['@_id'] ?? '') === '');
  if (nameless >= 0) return fault(`Node ${nameless + 1} has no id: every node of a graph needs one.`);
  const document = documentOf(file, graph, keys);
  const read = readDesign(document);
  return read.ok
    ? read
    : {
        ok: false,
        faults: read.faults.map((f) => ({ file, row: null, column: f.path.join('.'), sentence: f.sentence })),
      };
}

function documentOf(
  file: string,
  graph: XmlElement & { node?: unknown; edge?: unknown },
  keys: ReadonlyMap<string, Key>,
): unknown {
  const own = fieldsOf(graph, keys);
  const name = typeof own.name === 'string' && own.name ? own.name : file.replace(/\.[^.]*$/, '') || 'Imported';
  const base = emptyDesign(name.slice(0, 100));
  const [macs, names] = [new Macs({ switches: [] }), new Names([])];
  const ports: unknown[] = [];
  const switches: { id: string }[] = [];
  const hosts: { id: string }[] = [];
  const segments: { id: string; ports: string[] }[] = [];
  for (const node of elementsOf(graph.node)) {
    const fields = fieldsOf(node, keys);
    const id = (node['@_id'] ?? '').replace(/\s/g, '_');
    const called = first(fields, ['name', 'label', 'hostname']) ?? id;
    if (fields.kind === 'host') hosts.push({ ...pick(fields, 'host'), id, name: called } as never);
    else if (fields.kind === 'segment')
      segments.push({ ...pick(fields, 'segment'), id, name: called, ports: [] } as never);
    else {
      const mac = first(fields, ['mac', 'mac_address', 'base_mac']);
      switches.push({
        ...pick(fields, 'switch'),
        id,
        name: names.claim(called),
        mac: mac ? Macs.read(mac) : macs.next(),
      } as never);
    }
    for (const port of elementsOf(node.port)) {
      const settings = fieldsOf(port, keys);
      ports.push({ name: port['@_name'], speed: 1000, ...pick(settings, 'port'), id: port['@_name'], switch: id });
    }
  }
  const wiring = new Wiring({ ...base, ports: ports as Port[], switches: switches as never }, counter());
  const links = edgesOf(elementsOf(graph.edge), keys, {
    wiring,
    segments: new Map(segments.map((s) => [s.id, s])),
    hosts: new Set(hosts.map((h) => h.id)),
  });
  const made = wiring.edits.flatMap((e) => (e.type === 'add' && e.kind === 'port' ? [e.value] : []));
  return {
    ...base,
    ...Object.fromEntries(Object.entries(own).filter(([k]) => (OF_GRAPH as readonly string[]).includes(k))),
    format: DESIGN_FORMAT,
    version: DESIGN_VERSION,
    switches,
    ports: [...ports, ...made],
    links,
    hosts,
    segments,
  };
}

function counter() {
  let n = 0;
  return (prefix: string) => `${prefix}${++n}`;
}

interface Seats {
  readonly wiring: Wiring;
  readonly segments: ReadonlyMap<string, { id: string; ports: string[] }>;
  readonly hosts: ReadonlySet<string>;
}

function edgesOf(
  edges: readonly XmlElement[],
  keys: ReadonlyMap<string, Key>,
  { wiring, segments, hosts }: Seats,
): unknown[] {
  const links: unknown[] = [];
  edges.forEach((edge, i) => {
    const fields = fieldsOf(edge, keys);
    const speed = Number(first(fields, ['speed', 'speed_mbps', 'bandwidth'])) || 1000;
    const [from, to] = [edge['@_source'], edge['@_target']].map((n) => String(n ?? '').replace(/\s/g, '_')) as [
      string,
      string,
    ];
    const card = typeof fields.card === 'string' ? { card: fields.card } : {};
    const end = (node: string, port: string | undefined) =>
      hosts.has(node) ? { host: node, ...card } : { port: port ?? wiring.newPort(node, { speed }) };
    const segment = segments.get(to) ?? segments.get(from);
    if (segment) {
      const other = segment.id === to ? end(from, edge['@_sourceport']) : end(to, edge['@_targetport']);
      if ('port' in other) segment.ports.push(other.port!);
      return;
    }
    const id = (edge['@_id'] ?? `l${i + 1}`).replace(/\s/g, '_');
    links.push({
      ...pick(fields, 'link', ['a', 'b']),
      id,
      a: end(from, edge['@_sourceport']),
      b: end(to, edge['@_targetport']),
    });
  });
  return links;
}
