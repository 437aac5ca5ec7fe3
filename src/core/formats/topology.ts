/** The topology as RFC 8345 JSON (ietf-network, ietf-network-topology), encoded as RFC 7951 says. */
import { hostById, portById, portsOf, switchById } from '../design';
import type { Design, LinkEnd } from '../design';

interface EndRef {
  readonly node: string;
  readonly tp: string;
}

/** Node and termination point of a link's end; a host's card is one of its termination points. */
function endRef(design: Design, end: LinkEnd): EndRef {
  if ('port' in end) {
    const port = portById(design, end.port)!;
    return { node: switchById(design, port.switch)!.name, tp: port.name };
  }
  return { node: hostById(design, end.host)!.name, tp: end.card ?? 'card 1' };
}

/** Links there have a direction (RFC 8345 4.2), so that each cable is two of them. */
function both(id: string, a: EndRef, b: EndRef) {
  const link = (name: string, from: EndRef, to: EndRef) => ({
    'link-id': name,
    source: { 'source-node': from.node, 'source-tp': from.tp },
    destination: { 'dest-node': to.node, 'dest-tp': to.tp },
  });
  return [link(`${id} >`, a, b), link(`${id} <`, b, a)];
}

/** One network; switches, hosts and shared segments are nodes, ports are termination points. */
export function exportTopology(design: Design): string {
  const hostPoints = new Map<string, Set<string>>();
  for (const { a, b } of design.links)
    for (const end of [a, b])
      if ('host' in end) {
        const points = hostPoints.get(end.host) ?? new Set();
        hostPoints.set(end.host, points.add(endRef(design, end).tp));
      }
  const node = (id: string, points: Iterable<string>) => ({
    'node-id': id,
    'ietf-network-topology:termination-point': [...points].map((tp) => ({ 'tp-id': tp })),
  });
  const segmentName = (name: string) => `segment ${name}`;
  const nodes = [
    ...design.switches.map((s) =>
      node(
        s.name,
        portsOf(design, s.id).map((p) => p.name),
      ),
    ),
    ...design.hosts.map((h) => node(h.name, hostPoints.get(h.id) ?? [])),
    ...design.segments.map((s) =>
      node(
        segmentName(s.name),
        s.ports.map((_, i) => String(i + 1)),
      ),
    ),
  ];
  const links = [
    ...design.links.flatMap((l) => {
      const [a, b] = [endRef(design, l.a), endRef(design, l.b)];
      return both(`${a.node} ${a.tp} – ${b.node} ${b.tp}`, a, b);
    }),
    ...design.segments.flatMap((s) =>
      s.ports.flatMap((port, i) => {
        const [a, b] = [endRef(design, { port }), { node: segmentName(s.name), tp: String(i + 1) }];
        return both(`${a.node} ${a.tp} – ${b.node}`, a, b);
      }),
    ),
  ];
  const network = { 'network-id': design.name, node: nodes, 'ietf-network-topology:link': links };
  return `${JSON.stringify({ 'ietf-network:networks': { network: [network] } }, null, 2)}\n`;
}
