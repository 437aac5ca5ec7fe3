/** Trees of a bridge: BRIDGE-MIB and RSTP-MIB for one tree, the modules of 802.1Q for the CIST and instances. */
import { formatVlanRanges, instanceTreeId, vlanTreeId } from '../../standard';
import type { BridgeId } from '../../standard';
import { known } from '../model';
import type {
  ObservedProtocol,
  ObservedRegion,
  ObservedRole,
  ObservedState,
  ObservedTimers,
  ObservedTree,
  ObservedTreePort,
} from '../model';
import type { PortNames } from './interfaces';
import { bitsOf } from './tree';
import type { SnmpTree } from './tree';

/** dot1dStpPortState: disabled, blocking, listening, learning, forwarding, broken. */
const STATE: Readonly<Record<number, ObservedState>> = {
  1: 'disabled',
  2: 'discarding',
  3: 'discarding',
  4: 'learning',
  5: 'forwarding',
  6: 'discarding',
};
/** ieee8021MstpPortState: disabled, listening, learning, forwarding, blocking. */
const MST_STATE: Readonly<Record<number, ObservedState>> = {
  1: 'disabled',
  2: 'discarding',
  3: 'learning',
  4: 'forwarding',
  5: 'discarding',
};
const MST_ROLE: Readonly<Record<number, ObservedRole>> = { 1: 'root', 2: 'alternate', 3: 'designated', 4: 'backup' };

/** The component that a plain bridge is. */
const COMPONENT = '1';

/** A root port by its bridge port number; some agents give the interface index. */
function rootPortName(names: PortNames, number: number | undefined): string | null | undefined {
  if (number === undefined) return undefined;
  if (number === 0) return null;
  return names.byNumber.get(number) ?? names.byIndex.get(number) ?? `#${number}`;
}

/** A role that no object tells, from what the port holds of its LAN (802.1D-2004 17.3). */
function roleOf(
  own: number,
  number: number,
  port: Pick<ObservedTreePort, 'state' | 'designated'>,
  isRootPort: boolean,
): ObservedRole | null {
  if (port.state === 'disabled') return 'disabled';
  if (isRootPort) return 'root';
  if (!port.designated) return null;
  if (port.designated.bridge.mac !== own) return 'alternate';
  return (port.designated.port & 0xfff) === (number & 0xfff) ? 'designated' : 'backup';
}

interface Base {
  readonly mac: number;
  readonly names: PortNames;
}

function basicPorts(tree: SnmpTree, { mac, names }: Base, rootPort: string | null | undefined): ObservedTreePort[] {
  return tree.rows('dot1dStpPortState').map((index) => {
    const wide = `${COMPONENT}.${index}`;
    const number = Number(index);
    const name = names.byNumber.get(number) ?? `#${index}`;
    const bridge = tree.bridgeId('dot1dStpPortDesignatedBridge', index);
    const port = tree.portId('dot1dStpPortDesignatedPort', index);
    const state = STATE[tree.number('dot1dStpPortState', index) ?? 0] ?? null;
    const designated = bridge && port !== undefined ? { bridge, port } : undefined;
    const told = MST_ROLE[tree.number('ieee8021MstpCistPortRole', wide) ?? 0];
    const at = known<ObservedTreePort>({
      port: name,
      role: null,
      state,
      cost:
        tree.number('ieee8021SpanningTreePortPathCost', wide) ??
        tree.number('dot1dStpPortPathCost32', index) ??
        tree.number('dot1dStpPortPathCost', index),
      priority: tree.number('dot1dStpPortPriority', index),
      designated,
    });
    const role = state === 'disabled' ? 'disabled' : (told ?? roleOf(mac, number, at, name === rootPort));
    return { ...at, role };
  });
}

/** The bridge's own identifier: as it signs what it says as designated bridge, else its priority and address. */
function ownIdentifier(ports: readonly ObservedTreePort[], mac: number, priority: number): BridgeId {
  return (
    ports.find((p) => p.designated?.bridge.mac === mac && p.state !== 'disabled')?.designated?.bridge ?? {
      priority,
      mac,
    }
  );
}

/** The one tree of BRIDGE-MIB: the CIST, the tree of all VLANs, or that of the VLAN in its identifiers. */
function basicTree(tree: SnmpTree, base: Base, mst: boolean): ObservedTree | null {
  const priority = tree.number('dot1dStpPriority') ?? tree.number('ieee8021SpanningTreePriority', COMPONENT);
  const root =
    tree.bridgeId('dot1dStpDesignatedRoot') ?? tree.bridgeId('ieee8021SpanningTreeDesignatedRoot', COMPONENT);
  if (priority === undefined && !root) return null;
  const rootPort = rootPortName(base.names, tree.number('dot1dStpRootPort'));
  const ports = basicPorts(tree, base, rootPort);
  const bridge = ownIdentifier(ports, base.mac, priority ?? 0);
  // Some agents leave the system id extension out of the priority, and none leaves it out of what is sent.
  const extension = Math.max(bridge.priority & 0xfff, (priority ?? 0) & 0xfff);
  return known<ObservedTree>({
    id: mst ? instanceTreeId(0) : extension > 0 ? vlanTreeId(extension) : 'single',
    bridge: { ...bridge, priority: (bridge.priority & 0xf000) | extension },
    root: root ?? null,
    rootCost: tree.number('dot1dStpRootCost'),
    rootPort,
    ports,
  });
}

function instancePorts(
  tree: SnmpTree,
  { mac, names }: Base,
  msti: string,
  rootPort: string | null | undefined,
): ObservedTreePort[] {
  const mine = `${COMPONENT}.${msti}.`;
  return tree
    .rows('ieee8021MstpPortState')
    .filter((index) => index.startsWith(mine))
    .map((index) => {
      const number = Number(index.slice(mine.length));
      const name = names.byNumber.get(number) ?? `#${number}`;
      const bridge = tree.bridgeId('ieee8021MstpPortDesignatedBridge', index);
      const port = tree.portId('ieee8021MstpPortDesignatedPort', index);
      const state = MST_STATE[tree.number('ieee8021MstpPortState', index) ?? 0] ?? null;
      const at = known<ObservedTreePort>({
        port: name,
        role: null,
        state,
        cost: tree.number('ieee8021MstpPortPathCost', index),
        priority: tree.number('ieee8021MstpPortPriority', index),
        designated: bridge && port !== undefined ? { bridge, port } : undefined,
      });
      const told = MST_ROLE[tree.number('ieee8021MstpPortRole', index) ?? 0];
      return { ...at, role: state === 'disabled' ? 'disabled' : (told ?? roleOf(mac, number, at, name === rootPort)) };
    });
}

function instanceTrees(tree: SnmpTree, base: Base): ObservedTree[] {
  return tree.rows('ieee8021MstpBridgeId').map((index) => {
    const msti = index.split('.')[1]!;
    const rootPort = rootPortName(base.names, tree.number('ieee8021MstpRootPort', index));
    const set = tree.number('ieee8021MstpBridgePriority', index) ?? 0;
    return known<ObservedTree>({
      id: instanceTreeId(Number(msti)),
      bridge: tree.bridgeId('ieee8021MstpBridgeId', index) ?? { priority: set | Number(msti), mac: base.mac },
      root: tree.bridgeId('ieee8021MstpDesignatedRoot', index) ?? null,
      rootCost: tree.number('ieee8021MstpRootPathCost', index),
      rootPort,
      ports: instancePorts(tree, base, msti, rootPort),
    });
  });
}

/** Every tree in the answers. */
export function treesOf(tree: SnmpTree, base: Base): ObservedTree[] {
  const mst = tree.rows('ieee8021MstpConfigurationDigest').length > 0;
  const first = basicTree(tree, base, mst);
  return [...(first ? [first] : []), ...(mst ? instanceTrees(tree, base) : [])];
}

/** Instances as a string of bits a thousand VLANs, the first bit VLAN 0. */
function mapOf(tree: SnmpTree): Record<string, string> {
  const map: Record<string, string> = {};
  for (const index of tree.rows('ieee8021MstpBridgeId')) {
    const vlans = (
      ['ieee8021MstpVids0', 'ieee8021MstpVids1', 'ieee8021MstpVids2', 'ieee8021MstpVids3'] as const
    ).flatMap((name, quarter) =>
      bitsOf(tree.octets(name, index) ?? new Uint8Array()).map((bit) => quarter * 1024 + bit - 1),
    );
    map[index.split('.')[1]!] = formatVlanRanges(vlans);
  }
  return map;
}

export function regionIn(tree: SnmpTree): ObservedRegion | null {
  const [index] = tree.rows('ieee8021MstpConfigurationDigest');
  if (index === undefined) return null;
  const digest = tree.octets('ieee8021MstpConfigurationDigest', index);
  return {
    name: tree.text('ieee8021MstpConfigurationName', index) ?? '',
    revision: tree.number('ieee8021MstpRevisionLevel', index) ?? 0,
    digest:
      digest?.length === 16
        ? [...digest]
            .map((o) => o.toString(16).padStart(2, '0'))
            .join('')
            .toUpperCase()
        : null,
    map: tree.rows('ieee8021MstpVids0').length > 0 ? mapOf(tree) : null,
  };
}

export const maxHopsIn = (tree: SnmpTree): number | null => {
  const [index] = tree.rows('ieee8021MstpCistMaxHops');
  return index === undefined ? null : (tree.number('ieee8021MstpCistMaxHops', index) ?? null);
};

/** stpCompatible(0), rstp(2), mstp(3); a bridge that tells of a region runs the last one. */
export function protocolIn(tree: SnmpTree): ObservedProtocol | null {
  if (tree.rows('ieee8021MstpConfigurationDigest').length > 0) return 'mstp';
  const version = tree.number('ieee8021SpanningTreeVersion', COMPONENT) ?? tree.number('dot1dStpVersion');
  if (version === 3) return 'mstp';
  if (version === 2) return 'rstp';
  if (version === 0) return 'stp';
  return tree.number('dot1dStpProtocolSpecification') === 3 ? 'stp' : null;
}

/** Hundredths of a second, as the bridge would say as root. */
export function timersIn(tree: SnmpTree): ObservedTimers {
  const seconds = (value: number | undefined) => (value === undefined ? undefined : value / 100);
  return known<ObservedTimers>({
    helloTime: seconds(tree.number('dot1dStpBridgeHelloTime')),
    maxAge: seconds(tree.number('dot1dStpBridgeMaxAge')),
    forwardDelay: seconds(tree.number('dot1dStpBridgeForwardDelay')),
    ageingTime: tree.number('dot1dTpAgingTime'),
    holdCount: tree.number('dot1dStpTxHoldCount'),
  });
}
