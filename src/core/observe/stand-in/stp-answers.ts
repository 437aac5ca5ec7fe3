/** What an agent says of spanning tree: BRIDGE-MIB and RSTP-MIB always, the modules of 802.1Q for a bridge with instances. */
import { regionOf, mstConfigOf } from '../../network';
import { isClassicMode, timersOf } from '../../design';
import type { Bundle, Design, Port, Switch } from '../../design';
import { MAX_HOPS, TIMERS, splitPortId } from '../../standard';
import type { SwitchSnapshot, TreePortSnapshot, TreeSnapshot } from '../../simulation';
import type { ColumnName } from '../snmp/objects';
import { bitString } from '../snmp/tree';
import { bridgeOctets, octetsOf, textOctets } from './answers';
import type { Answers } from './answers';

const CENTI = 100;
const TRUE = 1;
const FALSE = 2;
const truth = (is: boolean): number => (is ? TRUE : FALSE);
const STATE: Readonly<Record<string, number>> = { disabled: 1, listening: 3, learning: 4, forwarding: 5 };
const MST_STATE: Readonly<Record<string, number>> = { disabled: 1, listening: 2, learning: 3, forwarding: 4 };
const BLOCKING = { basic: 2, mst: 5 } as const;
/** A port that is root port of the region is called root where there is no word for it. */
const ROLE: Readonly<Record<string, number>> = { root: 1, master: 1, alternate: 2, designated: 3, backup: 4 };
const VLANS_A_STRING = 1024;

export interface Told {
  readonly design: Design;
  readonly of: Switch;
  readonly snapshot: SwitchSnapshot;
  readonly element: (id: string) => Port | Bundle;
}

const priorityOf = (p: TreePortSnapshot): number => splitPortId(p.portId).priority;

function basicPorts(out: Answers, { element, snapshot }: Told, tree: TreeSnapshot): void {
  for (const p of tree.ports) {
    const e = element(p.id);
    const { designated } = p;
    const standing = snapshot.elements.find((x) => x.id === p.id);
    out.column('dot1dStpPortPriority', p.number, priorityOf(p));
    out.column('dot1dStpPortState', p.number, STATE[p.state] ?? BLOCKING.basic);
    out.column('dot1dStpPortEnable', p.number, 1);
    // RFC 4188: where the cost does not fit the older object, it says the most that fits.
    out.column('dot1dStpPortPathCost', p.number, Math.min(p.cost, 65_535));
    out.column('dot1dStpPortPathCost32', p.number, p.cost);
    out.column('dot1dStpPortDesignatedRoot', p.number, bridgeOctets(designated.root));
    out.column('dot1dStpPortDesignatedCost', p.number, designated.cost);
    out.column('dot1dStpPortDesignatedBridge', p.number, bridgeOctets(designated.bridge));
    out.column('dot1dStpPortDesignatedPort', p.number, octetsOf(designated.port, 2));
    out.column('dot1dStpPortAdminEdgePort', p.number, truth(e.edge === true));
    out.column('dot1dStpPortOperEdgePort', p.number, truth(standing?.edge ?? false));
    const link = 'linkType' in e ? e.linkType : undefined;
    out.column('dot1dStpPortAdminPointToPoint', p.number, link === 'point-to-point' ? 0 : link === 'shared' ? 1 : 2);
    out.column('dot1dStpPortOperPointToPoint', p.number, truth(standing?.pointToPoint ?? true));
    out.column('dot1dStpPortAdminPathCost', p.number, e.cost ?? 0);
  }
}

/** Numbers of bridge ports, not interface indices; 0 at the root. */
const rootPortNumber = (tree: TreeSnapshot): number => tree.ports.find((p) => p.id === tree.rootPort)?.number ?? 0;

function basicTree(out: Answers, told: Told, tree: TreeSnapshot): void {
  const timers = timersOf(told.of);
  out.scalar('dot1dStpProtocolSpecification', 3);
  out.scalar('dot1dStpPriority', tree.bridge.priority);
  out.scalar('dot1dStpDesignatedRoot', bridgeOctets(tree.root));
  out.scalar('dot1dStpRootCost', tree.cost);
  out.scalar('dot1dStpRootPort', rootPortNumber(tree));
  out.scalar('dot1dStpMaxAge', tree.times.maxAge * CENTI);
  out.scalar('dot1dStpHelloTime', tree.times.helloTime * CENTI);
  out.scalar('dot1dStpForwardDelay', tree.times.forwardDelay * CENTI);
  out.scalar('dot1dStpBridgeMaxAge', timers.maxAge * CENTI);
  out.scalar('dot1dStpBridgeHelloTime', timers.helloTime * CENTI);
  out.scalar('dot1dStpBridgeForwardDelay', timers.forwardDelay * CENTI);
  out.scalar('dot1dStpVersion', isClassicMode(told.snapshot.mode) ? 0 : 2);
  out.scalar('dot1dStpTxHoldCount', told.of.holdCount ?? TIMERS.holdCount.default);
  basicPorts(out, told, tree);
}

function instance(out: Answers, tree: TreeSnapshot, vlans: readonly number[]): void {
  const at = `1.${tree.instance}`;
  out.column('ieee8021MstpBridgeId', at, bridgeOctets(tree.bridge));
  out.column('ieee8021MstpDesignatedRoot', at, bridgeOctets(tree.root));
  out.column('ieee8021MstpRootPathCost', at, tree.cost);
  out.column('ieee8021MstpRootPort', at, rootPortNumber(tree), 'gauge');
  out.column('ieee8021MstpBridgePriority', at, tree.bridge.priority & 0xf000);
  (['ieee8021MstpVids0', 'ieee8021MstpVids1', 'ieee8021MstpVids2', 'ieee8021MstpVids3'] satisfies ColumnName[]).forEach(
    (name, quarter) => {
      const from = quarter * VLANS_A_STRING;
      const own = vlans.filter((v) => v >= from && v < from + VLANS_A_STRING).map((v) => v - from + 1);
      out.column(name, at, bitString(own, VLANS_A_STRING));
    },
  );
  for (const p of tree.ports) {
    const port = `${at}.${p.number}`;
    out.column('ieee8021MstpPortState', port, MST_STATE[p.state] ?? BLOCKING.mst);
    out.column('ieee8021MstpPortPriority', port, priorityOf(p));
    out.column('ieee8021MstpPortPathCost', port, p.internalCost);
    out.column('ieee8021MstpPortDesignatedRoot', port, bridgeOctets(p.designated.root));
    out.column('ieee8021MstpPortDesignatedCost', port, p.designated.cost);
    out.column('ieee8021MstpPortDesignatedBridge', port, bridgeOctets(p.designated.bridge));
    out.column('ieee8021MstpPortDesignatedPort', port, p.designated.port, 'gauge');
    out.column('ieee8021MstpPortRole', port, ROLE[p.role] ?? ROLE.alternate!);
  }
}

function cist(out: Answers, { design, of, snapshot }: Told, tree: TreeSnapshot): void {
  const config = mstConfigOf(design, of);
  out.column('ieee8021SpanningTreeVersion', 1, 3);
  out.column('ieee8021MstpCistBridgeIdentifier', 1, bridgeOctets(tree.bridge));
  out.column('ieee8021MstpCistRegionalRootIdentifier', 1, bridgeOctets(tree.regionalRoot));
  out.column('ieee8021MstpCistPathCost', 1, tree.internalCost, 'gauge');
  out.column('ieee8021MstpCistMaxHops', 1, regionOf(design, of)?.maxHops ?? MAX_HOPS.default);
  for (const p of tree.ports) {
    const at = `1.${p.number}`;
    const standing = snapshot.elements.find((x) => x.id === p.id);
    out.column('ieee8021SpanningTreePortPathCost', at, p.cost);
    out.column('ieee8021MstpCistPortOperEdgePort', at, truth(standing?.edge ?? false));
    out.column('ieee8021MstpCistPortRole', at, ROLE[p.role] ?? ROLE.alternate!);
    out.column('ieee8021MstpCistPortCistRegionalRootId', at, bridgeOctets(p.designated.regionalRoot));
    out.column('ieee8021MstpCistPortCistPathCost', at, p.designated.internalCost, 'gauge');
  }
  out.column('ieee8021MstpConfigurationName', 1, textOctets(config.name));
  out.column('ieee8021MstpRevisionLevel', 1, config.revision, 'gauge');
  const digest = config.digest.match(/../g)!.map((pair) => parseInt(pair, 16));
  out.column('ieee8021MstpConfigurationDigest', 1, Uint8Array.from(digest));
}

/** One bridge of several in a device: the ports of its tree, and what spanning tree says of it. */
export function logicalAnswers(out: Answers, told: Told, tree: TreeSnapshot, indexOf: (id: string) => number): void {
  out.scalar('dot1dBaseBridgeAddress', octetsOf(tree.bridge.mac, 6));
  out.scalar('dot1dBaseNumPorts', tree.ports.length);
  out.scalar('dot1dBaseType', 2);
  for (const p of tree.ports) out.column('dot1dBasePortIfIndex', p.number, indexOf(p.id));
  basicTree(out, told, tree);
}

/** Trees that the definitions have room for: one, and the instances of a region. */
export function spanningTreeAnswers(out: Answers, told: Told): void {
  const { trees, mode } = told.snapshot;
  const [first] = [...trees].sort((a, b) => a.instance - b.instance || (a.vlan ?? 0) - (b.vlan ?? 0));
  if (!first) return;
  basicTree(out, told, first);
  if (mode !== 'mstp') return;
  cist(out, told, first);
  const { map } = mstConfigOf(told.design, told.of);
  for (const tree of trees)
    if (tree.instance > 0)
      instance(
        out,
        tree,
        [...map.keys()].filter((v) => v > 0 && v < 4095 && map[v] === tree.instance),
      );
}
