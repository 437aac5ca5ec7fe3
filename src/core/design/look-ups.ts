/** Finding things in a design. Indices are built once per list and kept as long as the list lives. */
import type { LINK_TYPES, Design, Host, Link, LinkEnd, Port, Segment, Switch } from './schema';
import type { Bundle, SwitchPair } from './bundle-schema';
import type { Note } from './note-schema';
import { remembered } from '../remembered';

const byId = remembered((list: readonly { id: string }[]) => new Map(list.map((e) => [e.id, e])));

export const switchById = (design: Design, id: string) => byId(design.switches).get(id) as Switch | undefined;
export const portById = (design: Design, id: string) => byId(design.ports).get(id) as Port | undefined;
export const linkById = (design: Design, id: string) => byId(design.links).get(id) as Link | undefined;
export const segmentById = (design: Design, id: string) => byId(design.segments).get(id) as Segment | undefined;
export const bundleById = (design: Design, id: string) => byId(design.bundles).get(id) as Bundle | undefined;
export const noteById = (design: Design, id: string) => byId(design.notes).get(id) as Note | undefined;
export const hostById = (design: Design, id: string) => byId(design.hosts).get(id) as Host | undefined;

/** Items by key, in their order. */
export function groupBy<T, K>(items: Iterable<T>, key: (item: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const item of items) {
    const group = groups.get(key(item));
    if (group) group.push(item);
    else groups.set(key(item), [item]);
  }
  return groups;
}

const bySwitch = remembered((ports: readonly { switch: string }[]) => groupBy(ports, (p) => p.switch));

/** Ports of a switch, in the order of the design. */
export const portsOf = (design: Design, switchId: string): readonly Port[] =>
  (bySwitch(design.ports).get(switchId) ?? []) as Port[];
export const bundlesOf = (design: Design, switchId: string): readonly Bundle[] =>
  (bySwitch(design.bundles).get(switchId) ?? []) as Bundle[];

const linkByPort = remembered((links: readonly Link[]) => {
  const map = new Map<string, Link>();
  for (const link of links) for (const end of [link.a, link.b]) if ('port' in end) map.set(end.port, link);
  return map;
});
/** The cable in a port. */
export const linkAt = (design: Design, portId: string): Link | undefined => linkByPort(design.links).get(portId);

const segmentByPort = remembered(
  (segments: readonly Segment[]) => new Map(segments.flatMap((s) => s.ports.map((port) => [port, s] as const))),
);
/** The shared segment that a port is attached to. */
export const segmentAt = (design: Design, portId: string): Segment | undefined =>
  segmentByPort(design.segments).get(portId);

const bundleByPort = remembered(
  (bundles: readonly Bundle[]) => new Map(bundles.flatMap((b) => b.members.map((port) => [port, b] as const))),
);
/** The bundle that a port is a member of. */
export const bundleAt = (design: Design, portId: string): Bundle | undefined =>
  bundleByPort(design.bundles).get(portId);

/** The other end of a link, seen from a port. */
export function farEnd(link: Link, portId: string): LinkEnd {
  return 'port' in link.a && link.a.port === portId ? link.b : link.a;
}

/** Mb/s of a link: the lower of its ends; a host's card follows the switch. */
export function linkSpeed(design: Design, link: Link): number {
  const speed = (end: LinkEnd) => ('port' in end ? (portById(design, end.port)?.speed ?? 0) : Infinity);
  return Math.min(speed(link.a), speed(link.b));
}

/** State at the end of a link: a port, or a host. */
export const endOwner = (design: Design, end: LinkEnd): Switch | Host | undefined =>
  'port' in end ? switchById(design, portById(design, end.port)?.switch ?? '') : hostById(design, end.host);

/** What a note is about, as it is written in tables: a name, or `gate 1 – quay-a 2` of a link; null where it is gone. */
export function aboutName(design: Design, id: string): string | null {
  const thing = switchById(design, id) ?? hostById(design, id) ?? segmentById(design, id);
  if (thing) return thing.name;
  const link = linkById(design, id);
  const end = (e: LinkEnd) =>
    [endOwner(design, e)?.name, 'port' in e ? portById(design, e.port)?.name : undefined].filter(Boolean).join(' ');
  return link ? `${end(link.a)} – ${end(link.b)}` : null;
}

const linksByHost = remembered((links: readonly Link[]) => {
  const pairs = links.flatMap((link) =>
    [link.a, link.b].flatMap((end) => ('host' in end ? [{ host: end.host, link }] : [])),
  );
  return groupBy(pairs, (p) => p.host);
});
/** The cables of a host, one a card. */
export const linksOfHost = (design: Design, hostId: string): readonly Link[] =>
  (linksByHost(design.links).get(hostId) ?? []).map((p) => p.link);

/**
 * Whether a port counts as point-to-point or shared: what is set, else a shared segment or half duplex makes it shared
 * (IEEE 802.1D-2004 6.4.3, operPointToPointMAC).
 */
export function linkTypeOf(design: Design, port: Port): (typeof LINK_TYPES)[number] {
  if (port.linkType) return port.linkType;
  return port.duplex === 'half' || segmentAt(design, port.id) ? 'shared' : 'point-to-point';
}

/** The VLANs that a port carries, as text; a member of a bundle carries those of the bundle. */
export function vlansAt(design: Design, portId: string): { readonly vlans: string; readonly native: number | null } {
  const at = bundleAt(design, portId) ?? portById(design, portId);
  return { vlans: at?.vlans ?? 'all', native: at?.native ?? null };
}

/** `quay-a port 3`, for sentences. */
export function portLabel(design: Design, portId: string): string {
  const port = portById(design, portId);
  if (!port) return `'${portId}'`;
  return `'${port.name}' of ${switchById(design, port.switch)?.name ?? port.switch}`;
}

/** What a path into the design leads to, by name: `switch gate`, `port '1' of gate`; empty for the design itself. */
export function placeName(design: Design, path: readonly (string | number)[]): string {
  const [list, index] = path;
  if (typeof index !== 'number') return '';
  switch (list) {
    case 'switches':
      return `switch ${design.switches[index]?.name ?? ''}`;
    case 'ports':
      return `port ${portLabel(design, design.ports[index]?.id ?? '')}`;
    case 'bundles':
      return `bundle ${design.bundles[index]?.name ?? ''}`;
    case 'vlans':
      return `VLAN ${design.vlans[index]?.number ?? ''}`;
    default:
      return '';
  }
}

/** The pair that a switch is one of. */
export const pairOf = (design: Design, switchId: string): SwitchPair | undefined =>
  design.pairs.find((p) => p.switches.includes(switchId));
