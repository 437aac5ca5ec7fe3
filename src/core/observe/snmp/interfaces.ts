/** Interfaces, bridge ports and what VLANs they carry. */
import { formatVlanRanges, numberToMac } from '../../standard';
import { known } from '../model';
import type { ObservedPort } from '../model';
import { bitsOf } from './tree';
import type { SnmpTree } from './tree';

/** A port of the bridge with the interface behind it. */
export interface PortNames {
  /** Name by bridge port number, and by interface index. */
  readonly byNumber: ReadonlyMap<number, string>;
  readonly byIndex: ReadonlyMap<number, string>;
}

const TRUTH = 1;
const UP = 1;
const LAG = 161;
/** ifType of interfaces that are links: ethernetCsmacd, its obsolete fellows, and ieee8023adLag. */
const LINKS = new Set([6, 62, 69, 117, LAG]);

const nameOf = (tree: SnmpTree, index: string): string =>
  tree.text('ifName', index) || tree.text('ifDescr', index) || `if ${index}`;

export function portNames(tree: SnmpTree): PortNames {
  const byIndex = new Map<number, string>();
  for (const index of new Set([...tree.rows('ifName'), ...tree.rows('ifDescr')]))
    byIndex.set(Number(index), nameOf(tree, index));
  const byNumber = new Map<number, string>();
  for (const port of tree.rows('dot1dBasePortIfIndex')) {
    const ifIndex = tree.number('dot1dBasePortIfIndex', port);
    byNumber.set(Number(port), (ifIndex !== undefined && byIndex.get(ifIndex)) || `#${port}`);
  }
  for (const port of tree.rows('dot1dStpPortState'))
    if (!byNumber.has(Number(port))) byNumber.set(Number(port), `#${port}`);
  return { byNumber, byIndex };
}

/** VLANs that each bridge port carries and its untagged one, from the bit strings of each VLAN. */
function vlansByPort(tree: SnmpTree): { carried: Map<number, Set<number>>; untagged: Map<number, Set<number>> } {
  const carried = new Map<number, Set<number>>();
  const untagged = new Map<number, Set<number>>();
  const note = (into: Map<number, Set<number>>, octets: Uint8Array | undefined, vlan: number) => {
    for (const port of octets ? bitsOf(octets) : []) into.set(port, (into.get(port) ?? new Set()).add(vlan));
  };
  // The current tables tell what holds; the index has a time mark before the VLAN.
  const current = tree.rows('dot1qVlanCurrentEgressPorts');
  if (current.length > 0)
    for (const index of current) {
      const vlan = Number(index.split('.').at(-1));
      note(carried, tree.octets('dot1qVlanCurrentEgressPorts', index), vlan);
      note(untagged, tree.octets('dot1qVlanCurrentUntaggedPorts', index), vlan);
    }
  else
    for (const index of tree.rows('dot1qVlanStaticEgressPorts')) {
      note(carried, tree.octets('dot1qVlanStaticEgressPorts', index), Number(index));
      note(untagged, tree.octets('dot1qVlanStaticUntaggedPorts', index), Number(index));
    }
  return { carried, untagged };
}

/** VLANs that the device has, with names. */
export function vlansOf(tree: SnmpTree): { number: number; name: string | null }[] {
  const numbers = new Set([
    ...tree.rows('dot1qVlanStaticName').map(Number),
    ...tree.rows('dot1qVlanCurrentEgressPorts').map((i) => Number(i.split('.').at(-1))),
  ]);
  return [...numbers]
    .sort((a, b) => a - b)
    .map((number) => ({ number, name: tree.text('dot1qVlanStaticName', String(number)) || null }));
}

const DUPLEX: Record<number, 'half' | 'full'> = { 2: 'half', 3: 'full' };

function interfaceOf(tree: SnmpTree, index: string, name: string): ObservedPort {
  const high = tree.number('ifHighSpeed', index);
  const bits = tree.number('ifSpeed', index);
  const speed = high ? high : bits ? Math.round(bits / 1_000_000) : undefined;
  const admin = tree.number('ifAdminStatus', index);
  const oper = tree.number('ifOperStatus', index);
  const address = tree.octets('ifPhysAddress', index);
  return known<ObservedPort>({
    name,
    mac: address?.length === 6 ? numberToMac(address.reduce((sum, o) => sum * 256 + o, 0)) : undefined,
    enabled: admin === undefined ? undefined : admin === UP,
    up: oper === undefined ? undefined : oper === UP,
    speed: speed || undefined,
    duplex: DUPLEX[tree.number('dot3StatsDuplexStatus', index) ?? 0],
    description: tree.text('ifAlias', index) || undefined,
  });
}

/** Edge, link type and cost of a bridge port as set and as they are; the tables of 802.1Q before those of the RFCs. */
function stpSettings(tree: SnmpTree, port: string): Partial<ObservedPort> {
  const wide = `1.${port}`;
  const truth = (value: number | undefined) => (value === undefined ? undefined : value === TRUTH);
  const link = tree.number('dot1dStpPortAdminPointToPoint', port);
  const cost =
    tree.number('ieee8021SpanningTreeRstpPortAdminPathCost', wide) ?? tree.number('dot1dStpPortAdminPathCost', port);
  return {
    adminEdge: truth(
      tree.number('ieee8021MstpCistPortAdminEdgePort', wide) ?? tree.number('dot1dStpPortAdminEdgePort', port),
    ),
    edge: truth(tree.number('ieee8021MstpCistPortOperEdgePort', wide) ?? tree.number('dot1dStpPortOperEdgePort', port)),
    linkType: link === 0 ? 'point-to-point' : link === 1 ? 'shared' : undefined,
    adminCost: cost,
  };
}

/** Every port of the bridge, and every other interface that a link can be plugged into. */
export function portsOf(tree: SnmpTree, names: PortNames): ObservedPort[] {
  const { carried, untagged } = vlansByPort(tree);
  const told = tree.rows('dot1qVlanStaticName').length + tree.rows('dot1qVlanCurrentEgressPorts').length > 0;
  const behind = new Map<number, number>();
  for (const port of tree.rows('dot1dBasePortIfIndex'))
    behind.set(Number(port), tree.number('dot1dBasePortIfIndex', port) ?? 0);
  const ports: ObservedPort[] = [];
  for (const [number, name] of names.byNumber) {
    const index = behind.get(number);
    const set = carried.get(number);
    const bare = untagged.get(number);
    const pvid = tree.number('dot1qPvid', String(number));
    // What arrives untagged belongs to the PVID; it leaves untagged where the bit is set.
    const native = pvid !== undefined && bare?.has(pvid) ? pvid : bare && [...bare][0];
    ports.push(
      known<ObservedPort>({
        ...(index === undefined ? { name } : interfaceOf(tree, String(index), name)),
        number,
        ...stpSettings(tree, String(number)),
        vlans: told && set ? formatVlanRanges([...set].sort((a, b) => a - b)) : undefined,
        native: told && set ? (native ?? null) : undefined,
      }),
    );
  }
  const bridged = new Set(behind.values());
  for (const [index, name] of names.byIndex) {
    const type = tree.number('ifType', String(index));
    if (bridged.has(index) || (type !== undefined && !LINKS.has(type))) continue;
    ports.push(interfaceOf(tree, String(index), name));
  }
  return ports;
}
