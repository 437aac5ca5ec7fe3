/**
 * What a Linux device prints as JSON: `ip -d -j link`, `bridge -d -j link`, `bridge -j vlan`, `bridge -j fdb`. Port priorities
 * go from 0 to 63 there, a quarter of the standard's, and times are in hundredths of a second.
 */
import {
  canonicalMac,
  formatVlanRanges,
  macToNumber,
  numberToMac,
  portIdentifier,
  vlanMembership,
} from '../../standard';
import type { BridgeId } from '../../standard';
import { known, nothingOf } from '../model';
import type {
  LearnedAddress,
  Observation,
  ObservedAggregate,
  ObservedPort,
  ObservedRole,
  ObservedState,
  ObservedTree,
  ObservedTreePort,
  Source,
} from '../model';
import { list, number, plain, plains, text, truth } from './json';
import type { Plain } from './json';

const CENTI = 100;
const USER_PRIORITY = 4;
const STATE: Readonly<Record<string, ObservedState>> = {
  disabled: 'disabled',
  blocking: 'discarding',
  listening: 'discarding',
  learning: 'learning',
  forwarding: 'forwarding',
};

/** `8000.0:0:5e:0:53:1` */
export function bridgeIdOf(value: unknown): BridgeId | null {
  const match = /^([0-9a-f]{1,4})\.((?:[0-9a-f]{1,2}:){5}[0-9a-f]{1,2})$/i.exec(text(value) ?? '');
  if (!match) return null;
  const mac = match[2]!.split(':').reduce((sum, part) => sum * 256 + parseInt(part, 16), 0);
  return { priority: parseInt(match[1]!, 16), mac };
}

/** Six bits of priority and ten of number, as the standard's four and twelve. */
function portIdOf(kernel: number): number {
  return portIdentifier((kernel >> 10) * USER_PRIORITY, kernel & 0x3ff);
}

const slave = (link: Plain): Plain => plain(plain(link.linkinfo).info_slave_data);
const info = (link: Plain): Plain => plain(plain(link.linkinfo).info_data);
const kindOf = (link: Plain): string => text(plain(link.linkinfo).info_kind) ?? '';
const slaveKind = (link: Plain): string => text(plain(link.linkinfo).info_slave_kind) ?? '';

/** Whether a list is one of links, of a bridge's ports, of VLANs, or of addresses. */
export function linuxListKind(value: unknown): 'links' | 'ports' | 'vlans' | 'addresses' | null {
  const all = plains(value);
  const [first] = all;
  if (!Array.isArray(value) || !first || typeof first.ifname !== 'string') return null;
  if (all.some((x) => typeof x.mac === 'string')) return 'addresses';
  if (all.some((x) => Array.isArray(x.vlans))) return 'vlans';
  if (all.some((x) => 'link_type' in x || 'linkinfo' in x || 'operstate' in x)) return 'links';
  return all.some((x) => 'master' in x && ('state' in x || 'cost' in x)) ? 'ports' : null;
}

/** What a device printed, list by list. */
export interface LinuxLists {
  readonly links: readonly Plain[];
  readonly ports: readonly Plain[];
  readonly vlans: readonly Plain[];
  readonly addresses: readonly Plain[];
}

function portOf(link: Plain): ObservedPort {
  const flags = list(link.flags);
  const own = slave(link);
  const isBridgePort = slaveKind(link) === 'bridge';
  return known<ObservedPort>({
    name: text(link.ifname)!,
    number: isBridgePort ? (number(own.no) ?? undefined) : undefined,
    mac: canonicalMac(text(link.address) ?? '') ?? undefined,
    enabled: flags.length > 0 ? flags.includes('UP') : undefined,
    up: flags.length > 0 ? flags.includes('UP') && flags.includes('LOWER_UP') : undefined,
    bpduGuard: truth(own.guard) || undefined,
    rootGuard: truth(own.root_block) || undefined,
    description: text(link.ifalias),
  });
}

/** Role of a port, which the kernel does not print, from what it prints of the port's LAN. */
function roleOf(
  own: BridgeId,
  at: { state: ObservedState | null; number: number; designated: BridgeId | null; port: number },
  rootPort: number,
): ObservedRole | null {
  if (at.state === 'disabled') return 'disabled';
  if (rootPort !== 0 && at.number === rootPort) return 'root';
  if (!at.designated) return null;
  if (at.designated.mac !== own.mac) return 'alternate';
  return (at.port & 0x3ff) === at.number ? 'designated' : 'backup';
}

function treePort(link: Plain, own: BridgeId, rootPort: number): ObservedTreePort {
  const data = slave(link);
  const designated = bridgeIdOf(data.bridge_id);
  const port = number(data.designated_port) ?? 0;
  const state = STATE[text(data.state) ?? ''] ?? null;
  const priority = number(data.priority);
  return known<ObservedTreePort>({
    port: text(link.ifname)!,
    role: roleOf(own, { state, number: number(data.no) ?? 0, designated, port }, rootPort),
    state,
    cost: number(data.cost),
    priority: priority === undefined ? undefined : priority * USER_PRIORITY,
    designated: designated ? { bridge: designated, port: portIdOf(port) } : undefined,
  });
}

/**
 * The tree of a bridge. Some versions print the bridge's own identifier as its root, so that the root is taken from a port:
 * the root port, or any port of a bridge that has none.
 */
function treeOf(bridge: Plain, ports: readonly Plain[]): ObservedTree | null {
  const data = info(bridge);
  const own = bridgeIdOf(data.bridge_id);
  if (!own || number(data.stp_state) === 0) return null;
  const rootPort = number(data.root_port) ?? 0;
  const at = ports.find((p) => number(slave(p).no) === rootPort);
  const root = rootPort === 0 ? own : (bridgeIdOf(slave(at ?? {}).root_id) ?? bridgeIdOf(data.root_id));
  return known<ObservedTree>({
    id: 'single',
    bridge: own,
    root,
    rootCost: number(data.root_path_cost),
    rootPort: rootPort === 0 ? null : (text(at?.ifname) ?? `#${rootPort}`),
    ports: ports.map((p) => treePort(p, own, rootPort)),
  });
}

function vlansByPort(lists: LinuxLists): Map<string, { vlans: string; native: number | null }> {
  const byPort = new Map<string, { vlans: string; native: number | null }>();
  for (const at of lists.vlans) {
    const numbers: number[] = [];
    let native: number | null = null;
    for (const v of plains(at.vlans)) {
      const from = number(v.vlan) ?? 0;
      for (let n = from; n <= (number(v.vlanEnd) ?? from); n++) numbers.push(n);
      if (list(v.flags).includes('Egress Untagged'))
        native = native === null || list(v.flags).includes('PVID') ? from : native;
    }
    byPort.set(text(at.ifname)!, { vlans: formatVlanRanges(numbers.filter((n) => n > 0)), native });
  }
  return byPort;
}

const BOND_MODE: Readonly<Record<string, 'lacp' | 'static'>> = {
  '802.3ad': 'lacp',
  'balance-xor': 'static',
  'balance-rr': 'static',
};

function aggregateOf(bond: Plain, links: readonly Plain[]): ObservedAggregate {
  const data = info(bond);
  const mode = BOND_MODE[text(data.mode) ?? ''] ?? null;
  const aggregator = number(plain(data.ad_info).aggregator);
  const members = links.filter((l) => text(l.master) === text(bond.ifname) && slaveKind(l) === 'bond');
  return known<ObservedAggregate>({
    name: text(bond.ifname)!,
    mode,
    activity: mode === 'lacp' ? (text(data.ad_lacp_active) === 'off' ? 'passive' : 'active') : undefined,
    timeout: mode === 'lacp' ? (text(data.ad_lacp_rate) === 'fast' ? 'short' : 'long') : undefined,
    minActive: number(data.min_links),
    systemPriority: number(data.ad_actor_sys_prio),
    system: canonicalMac(text(data.ad_actor_system) ?? text(bond.address) ?? '') ?? undefined,
    members: members.map((m) => {
      const own = slave(m);
      const up = text(own.mii_status) === 'UP' || (own.mii_status === undefined && list(m.flags).includes('LOWER_UP'));
      return {
        port: text(m.ifname)!,
        active:
          up &&
          (aggregator === undefined ||
            number(own.ad_aggregator_id) === undefined ||
            number(own.ad_aggregator_id) === aggregator),
      };
    }),
  });
}

/** Current timers are the root's, so that a bridge tells its own only while it is root. */
function timersOf(bridge: Plain, isRoot: boolean): Observation['timers'] {
  const data = info(bridge);
  const seconds = (v: unknown) => {
    const centi = number(v);
    return centi === undefined ? undefined : centi / CENTI;
  };
  return known<Observation['timers']>({
    helloTime: isRoot ? seconds(data.hello_time) : undefined,
    maxAge: isRoot ? seconds(data.max_age) : undefined,
    forwardDelay: isRoot ? seconds(data.forward_delay) : undefined,
    // While the topology changes, tables age in another time.
    ageingTime: number(data.topology_change) === 0 ? seconds(data.ageing_time) : undefined,
  });
}

/** An entry of `bridge link` in the shape of `ip link`, for devices that print only the former. */
const asLink = (port: Plain): Plain => ({ ...port, linkinfo: { info_slave_kind: 'bridge', info_slave_data: port } });

function learnedIn(lists: LinuxLists, bridge: string): LearnedAddress[] {
  return lists.addresses.flatMap((a): LearnedAddress[] => {
    const mac = canonicalMac(text(a.mac) ?? '');
    const own = text(a.state) === 'permanent' || text(a.master) !== bridge;
    if (mac === null || own || (macToNumber(mac) / 2 ** 40) % 2 >= 1) return [];
    return [{ mac, port: text(a.ifname)!, vlan: number(a.vlan) ?? null }];
  });
}

function observationOf(lists: LinuxLists, bridge: Plain | null, source: Source, name: string | null): Observation {
  const bridgeName = text(bridge?.ifname);
  const links = lists.links.length > 0 ? lists.links : lists.ports.map(asLink);
  const ports = links.filter(
    (l) => slaveKind(l) === 'bridge' && (bridgeName === undefined || text(l.master) === bridgeName),
  );
  const bonds = links.filter((l) => kindOf(l) === 'bond');
  const members = new Set(links.filter((l) => slaveKind(l) === 'bond').map((l) => text(l.ifname)));
  const tree = bridge ? treeOf(bridge, ports) : null;
  const vlans = vlansByPort(lists);
  const filters = bridge ? number(info(bridge).vlan_filtering) === 1 : vlans.size > 0;
  const own = tree?.bridge;
  const plugged = links.filter((l) => ports.includes(l) || members.has(text(l.ifname)));
  const all = [...vlans.values()].flatMap((v) =>
    [...vlanMembership(v.vlans || '1').entries()].flatMap(([n, has]) => (has && n > 0 && v.vlans !== '' ? [n] : [])),
  );
  return {
    ...nothingOf(source),
    name,
    mac: own ? numberToMac(own.mac) : (canonicalMac(text(bridge?.address) ?? '') ?? null),
    addresses: plugged.flatMap((l) => canonicalMac(text(l.address) ?? '') ?? []),
    protocol: tree && number(info(bridge!).stp_state) === 1 ? 'stp' : null,
    timers: bridge ? timersOf(bridge, tree?.rootPort === null) : {},
    vlans: filters ? [...new Set(all)].sort((a, b) => a - b).map((n) => ({ number: n, name: null })) : [],
    ports: plugged.map((l) => ({ ...portOf(l), ...(filters ? vlans.get(text(l.ifname)!) : {}) })),
    aggregates: bonds.map((b) => aggregateOf(b, links)),
    trees: tree ? [tree] : [],
    learned: bridgeName === undefined ? [] : learnedIn(lists, bridgeName),
  };
}

/** The bridges of a device; the first bears its name, others their own behind it. */
export function readLinux(lists: LinuxLists, source: Source, name: string | null): Observation[] {
  const bridges = lists.links.filter((l) => kindOf(l) === 'bridge');
  if (bridges.length === 0) return [observationOf(lists, null, source, name)];
  return bridges.map((bridge, i) =>
    observationOf(lists, bridge, source, i === 0 || name === null ? name : `${name} ${text(bridge.ifname)}`),
  );
}
