/** Reading GraphML: our own, field by field, and nodes and edges of graphs that other programs wrote. */
import { fileMessages as say } from '../messages';
import { XMLParser } from 'fast-xml-parser';
import { Macs, Names, Wiring } from '../editing';
import { COLLECTIONS, DESIGN_FORMAT, DESIGN_VERSION, emptyDesign, readDesign } from '../design';
import type { Design, Kind, Port } from '../design';
import { OF_GRAPH } from './graphml-export';
import type { TableFault } from './table';
import { elementsOf, shortened, recordOf, xmlFault } from './xml';
import type { XmlElement } from './xml';

export type ReadGraphml =
  { readonly ok: true; readonly design: Design } | { readonly ok: false; readonly faults: readonly TableFault[] };

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

/** GraphML as a design. Of a file that was not written here, nodes are switches, edges are links, and ports come into being. */
export function readGraphml(file: string, text: string): ReadGraphml {
  const fault = (sentence: string, row: number | null = null): ReadGraphml => ({
    ok: false,
    faults: [{ file, row, column: null, sentence }],
  });
  const clean = text.replace(/^\uFEFF/, '');
  if (/<!(DOCTYPE|ENTITY)/i.test(clean)) return fault(say['xml-entities']());
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
    return fault(say.xml({ reason: shortened(error instanceof Error ? error.message : String(error)) }));
  }
  const root = recordOf(recordOf(parsed)?.graphml);
  const graph: (XmlElement & { node?: unknown; edge?: unknown }) | undefined = elementsOf(root?.graph)[0];
  if (!root || !graph) return fault(say['no-graph']());
  const keys = new Map(
    elementsOf(root.key).map((k) => [
      k['@_id'] ?? '',
      { name: k['@_attr.name'] ?? k['@_id'] ?? '', type: k['@_attr.type'] ?? 'string' },
    ]),
  );
  const nameless = elementsOf(graph.node).findIndex((n) => (n['@_id'] ?? '') === '');
  if (nameless >= 0) return fault(say['node-without-id']({ number: nameless + 1 }));
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
