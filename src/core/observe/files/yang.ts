/** JSON after RFC 8345 and the OpenConfig models, as our own export writes them. */
import { parseVlanRanges, formatVlanRanges, instanceTreeId, vlanTreeId, canonicalMac } from '../../standard';
import { known, nothingOf } from '../model';
import type { Observation, ObservedAggregate, ObservedNeighbour, ObservedPort, ObservedTree, Source } from '../model';
import { isPlain, list, number, plain, plains, text, truth } from './json';
import type { Plain } from './json';

export const isTopologyJson = (value: unknown): boolean => isPlain(value) && 'ietf-network:networks' in value;
export const isOpenConfigJson = (value: unknown): boolean =>
  isPlain(value) && (isPlain(value.devices) || Object.keys(value).some((k) => k.startsWith('openconfig-')));

const SEGMENT = /^segment /;
const CARD = /^card \d+$/;

/** Nodes with their links; a node that is a shared segment passes on, and one whose points are cards is a host. */
export function readTopology(value: unknown, source: Source): Observation[] {
  const networks = plains(plain(plain(value)['ietf-network:networks']).network);
  const nodes = networks.flatMap((n) => plains(n.node));
  const links = networks.flatMap((n) => plains(n['ietf-network-topology:link']));
  const pointsOf = (node: Plain) =>
    plains(node['ietf-network-topology:termination-point']).flatMap((p) => text(p['tp-id']) ?? []);
  const hosts = new Set(
    nodes
      .filter((n) => pointsOf(n).length > 0 && pointsOf(n).every((p) => CARD.test(p)))
      .map((n) => text(n['node-id'])),
  );
  const far = new Map<string, { node: string; tp: string }[]>();
  const key = (node: string, tp: string) => `${node}\n${tp}`;
  for (const link of links) {
    const [a, b] = [plain(link.source), plain(link.destination)];
    const [from, to] = [
      { node: text(a['source-node']) ?? '', tp: text(a['source-tp']) ?? '' },
      { node: text(b['dest-node']) ?? '', tp: text(b['dest-tp']) ?? '' },
    ];
    far.set(key(from.node, from.tp), [...(far.get(key(from.node, from.tp)) ?? []), to]);
  }
  const onSegment = (segment: string): { node: string; tp: string }[] =>
    nodes
      .filter((n) => text(n['node-id']) === segment)
      .flatMap((n) => pointsOf(n).flatMap((tp) => far.get(key(segment, tp)) ?? []));
  return nodes.flatMap((node): Observation[] => {
    const name = text(node['node-id']);
    if (name === undefined || SEGMENT.test(name) || hosts.has(name)) return [];
    const neighbours = pointsOf(node).flatMap((tp): ObservedNeighbour[] =>
      (far.get(key(name, tp)) ?? [])
        .flatMap((end) =>
          SEGMENT.test(end.node) ? onSegment(end.node).filter((e) => e.node !== name || e.tp !== tp) : [end],
        )
        .map((end) => ({
          port: tp,
          by: 'lldp',
          name: end.node,
          mac: null,
          farPort: end.tp,
          farMac: null,
          farDescription: null,
          bridge: !hosts.has(end.node),
          management: [],
        })),
    );
    return [{ ...nothingOf(source), name, ports: pointsOf(node).map((p): ObservedPort => ({ name: p })), neighbours }];
  });
}

const SPEEDS: Readonly<Record<string, number>> = { MB: 1, GB: 1000 };

/** `SPEED_10GB`, `SPEED_2500MB`. */
function speedOf(value: unknown): number | undefined {
  const match = /SPEED_(\d+)(MB|GB)$/.exec(text(value) ?? '');
  return match ? Number(match[1]) * SPEEDS[match[2]!]! : undefined;
}

/** VLANs as numbers and as ranges `110..120`. */
function vlansOf(config: Plain): Pick<ObservedPort, 'vlans' | 'native'> {
  const access = number(config['access-vlan']);
  if (access !== undefined) return { vlans: String(access), native: access };
  const trunk = list(config['trunk-vlans']).map((v) => String(v).replace('..', '-'));
  const parsed = parseVlanRanges(trunk.join(','));
  return known<Pick<ObservedPort, 'vlans' | 'native'>>({
    vlans: trunk.length > 0 && parsed.ok ? formatVlanRanges(parsed.vlans) : undefined,
    native: number(config['native-vlan']),
  });
}

function portsOf(device: Plain): { ports: ObservedPort[]; aggregates: ObservedAggregate[] } {
  const interfaces = plains(plain(device['openconfig-interfaces:interfaces']).interface);
  const lacp = new Map(
    plains(plain(plain(device['openconfig-lacp:lacp']).interfaces).interface).map(
      (i) => [text(i.name) ?? '', plain(i.config)] as const,
    ),
  );
  const priority = number(plain(plain(device['openconfig-lacp:lacp']).config)['system-priority']);
  const edges = new Map(
    plains(plain(plain(device['openconfig-spanning-tree:stp']).interfaces).interface).map(
      (i) => [text(i.name) ?? '', plain(i.config)] as const,
    ),
  );
  const memberOf = new Map<string, string>();
  const aggregates: ObservedAggregate[] = [];
  const ports = interfaces.map((i): ObservedPort => {
    const name = text(i.name) ?? '?';
    const config = plain(i.config);
    const ethernet = plain(i['openconfig-if-ethernet:ethernet']);
    const bundle = plain(i['openconfig-if-aggregate:aggregation']);
    const own = plain(ethernet.config);
    const holder = text(own['openconfig-if-aggregate:aggregate-id']);
    if (holder !== undefined) memberOf.set(name, holder);
    const stp = edges.get(name) ?? {};
    const link = text(stp['link-type']);
    return known<ObservedPort>({
      name,
      enabled: truth(config.enabled),
      speed: speedOf(own['port-speed']),
      duplex: own['duplex-mode'] === 'HALF' ? 'half' : undefined,
      description: text(config.description),
      adminEdge: /EDGE_ENABLE$/.test(text(stp['edge-port']) ?? '') || undefined,
      linkType: link === 'SHARED' ? 'shared' : link === 'P2P' ? 'point-to-point' : undefined,
      bpduGuard: truth(stp['bpdu-guard']),
      rootGuard: stp.guard === 'ROOT' || undefined,
      ...vlansOf(
        plain(plain((Object.keys(bundle).length > 0 ? bundle : ethernet)['openconfig-vlan:switched-vlan']).config),
      ),
    });
  });
  for (const i of interfaces) {
    const bundle = plain(plain(i['openconfig-if-aggregate:aggregation']).config);
    if (Object.keys(bundle).length === 0) continue;
    const name = text(i.name) ?? '?';
    const own = lacp.get(name);
    aggregates.push(
      known<ObservedAggregate>({
        name,
        mode: bundle['lag-type'] === 'LACP' ? 'lacp' : 'static',
        activity: own ? (own['lacp-mode'] === 'PASSIVE' ? 'passive' : 'active') : undefined,
        timeout: own ? (own.interval === 'FAST' ? 'short' : 'long') : undefined,
        minActive: number(bundle['min-links']),
        system: canonicalMac(text(own?.['system-id-mac']) ?? '') ?? undefined,
        systemPriority: own ? (number(own['system-priority']) ?? priority) : undefined,
        members: [...memberOf].filter(([, holder]) => holder === name).map(([port]) => ({ port })),
      }),
    );
  }
  return { ports, aggregates };
}

/** Settings of a tree: a bridge priority, and costs and priorities that are set. */
function treeOf(id: string, config: Plain, interfaces: unknown, mac: number): ObservedTree | null {
  const priority = number(config['bridge-priority']);
  if (priority === undefined) return null;
  const ports = plains(plain(interfaces).interface).map((i) => {
    const own = plain(i.config);
    return known<ObservedTree['ports'][number]>({
      port: text(i.name) ?? '?',
      role: null,
      state: null,
      cost: number(own.cost),
      priority: number(own['port-priority']),
    });
  });
  return { id, bridge: { priority, mac }, root: null, ports };
}

function treesOf(stp: Plain): ObservedTree[] {
  const NONE = 0;
  const one = plain(stp.rstp);
  const mst = plain(stp.mstp);
  const single = treeOf('single', plain(one.config), one.interfaces, NONE);
  const instances = plains(plain(mst['mst-instances'])['mst-instance']).flatMap(
    (i) => treeOf(instanceTreeId(number(i['mst-id']) ?? 0), plain(i.config), i.interfaces, NONE) ?? [],
  );
  const vlans = plains(plain(stp['rapid-pvst']).vlan).flatMap(
    (v) => treeOf(vlanTreeId(number(v['vlan-id']) ?? 0), plain(v.config), v.interfaces, NONE) ?? [],
  );
  return [...(single ? [single] : []), ...instances, ...vlans];
}

function timersOf(config: Plain): Observation['timers'] {
  return known<Observation['timers']>({
    helloTime: number(config['hello-time']),
    maxAge: number(config['max-age']),
    forwardDelay: number(config['forwarding-delay']),
    holdCount: number(config['hold-count']),
  });
}

function deviceOf(name: string | null, device: Plain, source: Source): Observation {
  const stp = plain(device['openconfig-spanning-tree:stp']);
  const protocol = list(plain(plain(stp.global).config)['enabled-protocol'])
    .map(String)
    .join();
  const mst = plain(stp.mstp);
  const config = plain(mst.config);
  const instances = plains(plain(mst['mst-instances'])['mst-instance']);
  const [firstVlan] = plains(plain(stp['rapid-pvst']).vlan);
  return {
    ...nothingOf(source),
    name,
    protocol: /MSTP$/.test(protocol) ? 'mstp' : /RSTP$|RAPID/.test(protocol) ? 'rstp' : null,
    timers: timersOf('mstp' in stp ? config : plain(firstVlan?.config ?? plain(stp.rstp).config)),
    region:
      text(config.name) === undefined
        ? null
        : {
            name: text(config.name)!,
            revision: number(config.revision) ?? 0,
            digest: null,
            map: Object.fromEntries(
              instances.map((i) => [
                String(number(i['mst-id'])),
                list(plain(i.config).vlan)
                  .map((v) => String(v).replace('..', '-'))
                  .join(','),
              ]),
            ),
          },
    maxHops: number(config['max-hop']) ?? null,
    ...portsOf(device),
    trees: treesOf(stp),
  };
}

/** One device, or an object of several by their names. */
export function readOpenConfig(value: unknown, source: Source, name: string | null): Observation[] {
  const devices = plain(value).devices;
  if (isPlain(devices)) return Object.entries(devices).map(([own, device]) => deviceOf(own, plain(device), source));
  return [deviceOf(name, plain(value), source)];
}
