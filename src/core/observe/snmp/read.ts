/** Answers of one agent as an observation. */
import { canonicalMac, macToNumber, numberToMac } from '../../standard';
import { LACP_STATE } from '../../protocols/frames';
import { observeMessages as say } from '../../messages';
import { known, nothingOf } from '../model';
import type {
  LearnedAddress,
  Observation,
  ObservedAggregate,
  ObservedMember,
  ObservedNeighbour,
  ObservedTree,
  Source,
} from '../model';
import { portNames, portsOf, vlansOf } from './interfaces';
import type { PortNames } from './interfaces';
import { maxHopsIn, protocolIn, regionIn, timersIn, treesOf } from './spanning-tree';
import { SnmpTree, toNumber } from './tree';
import type { SnmpRow } from './tree';

function memberOf(tree: SnmpTree, names: PortNames, index: string): ObservedMember {
  const partner = tree.mac('dot3adAggPortPartnerOperSystemID', index);
  const state = (name: 'dot3adAggPortActorOperState' | 'dot3adAggPortPartnerOperState') => {
    const octets = tree.octets(name, index);
    return octets && reversed(octets[0] ?? 0);
  };
  const actorState = state('dot3adAggPortActorOperState');
  return known<ObservedMember>({
    port: names.byIndex.get(Number(index)) ?? `if ${index}`,
    number: tree.number('dot3adAggPortActorPort', index),
    priority: tree.number('dot3adAggPortActorPortPriority', index),
    // A port that goes alone distributes too, and is attached to no aggregator of others.
    active:
      actorState === undefined
        ? undefined
        : (actorState & LACP_STATE.distributing) !== 0 && tree.number('dot3adAggPortAttachedAggID', index) !== 0,
    actorState,
    partnerState: state('dot3adAggPortPartnerOperState'),
    partner: partner
      ? {
          systemPriority: tree.number('dot3adAggPortPartnerOperSystemPriority', index) ?? 0,
          system: partner,
          key: tree.number('dot3adAggPortPartnerOperKey', index) ?? 0,
          port: tree.number('dot3adAggPortPartnerOperPort', index) ?? 0,
        }
      : null,
  });
}

/** The state object is a bit string: LACP_Activity, the lowest bit of the octet in a frame, is its first, most significant one. */
export function reversed(octet: number): number {
  let value = 0;
  for (let bit = 0; bit < 8; bit++) if (octet & (0x80 >> bit)) value |= 1 << bit;
  return value;
}

function aggregatesOf(tree: SnmpTree, names: PortNames): ObservedAggregate[] {
  const members = new Map<string, ObservedMember[]>();
  for (const index of tree.rows('dot3adAggPortActorPort')) {
    const attached = tree.number('dot3adAggPortAttachedAggID', index);
    const aggregator = attached || tree.number('dot3adAggPortSelectedAggID', index);
    if (!aggregator || !tree.rows('dot3adAggMACAddress').includes(String(aggregator))) continue;
    const list = members.get(String(aggregator)) ?? [];
    members.set(String(aggregator), [...list, memberOf(tree, names, index)]);
  }
  return tree.rows('dot3adAggMACAddress').map((index): ObservedAggregate => {
    const own = members.get(index) ?? [];
    const state = own.find((m) => m.actorState !== undefined)?.actorState;
    return known<ObservedAggregate>({
      name: names.byIndex.get(Number(index)) ?? `if ${index}`,
      mode: state === undefined ? null : 'lacp',
      activity: state === undefined ? undefined : state & LACP_STATE.activity ? 'active' : 'passive',
      timeout: state === undefined ? undefined : state & LACP_STATE.timeout ? 'short' : 'long',
      key: tree.number('dot3adAggActorOperKey', index),
      system: tree.mac('dot3adAggActorSystemID', index),
      systemPriority: tree.number('dot3adAggActorSystemPriority', index),
      members: own,
    });
  });
}

/** Aggregates that do not negotiate have no LACP; the interface stack tells what lies below them (RFC 2863 3.1.1). */
function stacked(tree: SnmpTree, names: PortNames, told: ReadonlySet<string>): ObservedAggregate[] {
  const LAG = 161;
  const below = new Map<string, string[]>();
  for (const index of tree.rows('ifStackStatus')) {
    const [higher, lower] = index.split('.') as [string, string];
    if (higher !== '0' && lower !== '0' && tree.number('ifType', higher) === LAG)
      below.set(higher, [...(below.get(higher) ?? []), lower]);
  }
  return [...below].flatMap(([higher, lowers]): ObservedAggregate[] => {
    const name = names.byIndex.get(Number(higher)) ?? `if ${higher}`;
    if (told.has(name)) return [];
    const members = lowers.map((l) => ({
      port: names.byIndex.get(Number(l)) ?? `if ${l}`,
      active: tree.number('ifOperStatus', l) === 1,
    }));
    return [{ name, mode: 'static', members }];
  });
}

const SUBTYPE_CHASSIS = { mac: 4 } as const;
const SUBTYPE_PORT = { alias: 1, mac: 3, name: 5, local: 7 } as const;
const CAPABILITY_BRIDGE = 2;

const asMac = (octets: Uint8Array | undefined): string | null =>
  octets?.length === 6 ? numberToMac(toNumber(octets, 0, 6)) : null;

/** Management address of a row of lldpRemManAddrTable: it is in the index, with its length. */
function managementIn(index: string): { remote: string; address: string } | null {
  const parts = index.split('.').map(Number);
  const [mark, port, remote, family, length, ...address] = parts as [number, number, number, number, number];
  if (family !== 1 || length !== 4 || address.length < 4) return null;
  return { remote: `${mark}.${port}.${remote}`, address: address.slice(0, 4).join('.') };
}

function neighboursOf(tree: SnmpTree, names: PortNames): ObservedNeighbour[] {
  const management = new Map<string, string[]>();
  for (const index of tree.rows('lldpRemManAddrIfSubtype')) {
    const found = managementIn(index);
    if (found) management.set(found.remote, [...(management.get(found.remote) ?? []), found.address]);
  }
  return tree.rows('lldpRemPortId').flatMap((index): ObservedNeighbour[] => {
    const local = index.split('.')[1]!;
    const port = localPort(tree, names, local);
    if (port === null) return [];
    const byMac = tree.number('lldpRemChassisIdSubtype', index) === SUBTYPE_CHASSIS.mac;
    const kind = tree.number('lldpRemPortIdSubtype', index);
    const id = tree.octets('lldpRemPortId', index);
    const capabilities = tree.octets('lldpRemSysCapEnabled', index);
    return [
      {
        port,
        by: 'lldp',
        name: tree.text('lldpRemSysName', index) || (byMac ? null : tree.text('lldpRemChassisId', index) || null),
        mac: byMac ? asMac(tree.octets('lldpRemChassisId', index)) : null,
        farPort: kind === SUBTYPE_PORT.mac ? null : tree.text('lldpRemPortId', index) || null,
        farMac: kind === SUBTYPE_PORT.mac ? asMac(id) : null,
        farDescription: tree.text('lldpRemPortDesc', index) || null,
        bridge: capabilities ? ((capabilities[0] ?? 0) & (0x80 >> CAPABILITY_BRIDGE)) !== 0 : null,
        management: management.get(index.split('.').slice(0, 3).join('.')) ?? [],
      },
    ];
  });
}

/** A local port of LLDP: by its identifier, which is a name or an address; its number is often, not always, the interface index. */
function localPort(tree: SnmpTree, names: PortNames, number: string): string | null {
  const known = new Set([...names.byIndex.values(), ...names.byNumber.values()]);
  const kind = tree.number('lldpLocPortIdSubtype', number);
  const id = tree.text('lldpLocPortId', number);
  if (kind !== SUBTYPE_PORT.mac && id && known.has(id)) return id;
  const description = tree.text('lldpLocPortDesc', number);
  if (description && known.has(description)) return description;
  return names.byIndex.get(Number(number)) ?? (kind !== SUBTYPE_PORT.mac && id ? id : description || null);
}

/** Address in the index of a row of a forwarding table, with the numbers before it. */
function learnedOf(tree: SnmpTree, names: PortNames): LearnedAddress[] {
  const learned: LearnedAddress[] = [];
  const take = (name: 'dot1dTpFdbPort' | 'dot1qTpFdbPort') => {
    for (const index of tree.rows(name)) {
      const parts = index.split('.').map(Number);
      const port = names.byNumber.get(tree.number(name, index) ?? 0);
      if (port === undefined || parts.length < 6) continue;
      learned.push({
        mac: numberToMac(parts.slice(-6).reduce((sum, o) => sum * 256 + o, 0)),
        port,
        vlan: parts.length > 6 ? parts[0]! : null,
      });
    }
  };
  take('dot1qTpFdbPort');
  if (learned.length === 0) take('dot1dTpFdbPort');
  return learned;
}

/** The name that the device has: of itself, of LLDP, or of its chassis. */
function nameIn(tree: SnmpTree): string | null {
  const CHASSIS = 3;
  const own = tree.text('sysName') || tree.text('lldpLocSysName');
  const chassis = tree.rows('entPhysicalClass').find((i) => tree.number('entPhysicalClass', i) === CHASSIS);
  return own || (chassis === undefined ? '' : tree.text('entPhysicalName', chassis)) || null;
}

const BRIDGE = '1.3.6.1.2.1.17.';

/** Trees of the further bridges of a device; what they say of ports goes over what the first one says. */
function logicalTrees(rows: readonly SnmpRow[], logical: readonly (readonly SnmpRow[])[], mac: number): ObservedTree[] {
  if (logical.length === 0) return [];
  const shared = rows.filter(({ oid }) => !oid.startsWith(BRIDGE));
  return logical.flatMap((own) => {
    const tree = new SnmpTree([...shared, ...own]);
    return treesOf(tree, { mac, names: portNames(tree) });
  });
}

/** What one agent answered; `logical`: what it answered for each of the bridges that it lists. */
export function readSnmp(
  answers: Iterable<SnmpRow>,
  source: Source,
  logical: readonly (readonly SnmpRow[])[] = [],
): Observation {
  const rows = [...answers];
  const tree = new SnmpTree(rows);
  const names = portNames(tree);
  const mac = tree.mac('dot1dBaseBridgeAddress') ?? null;
  const chassis =
    tree.number('lldpLocChassisIdSubtype') === SUBTYPE_CHASSIS.mac ? tree.mac('lldpLocChassisId') : undefined;
  const own = mac ? macToNumber(mac) : -1;
  const further = logicalTrees(rows, logical, own);
  const aggregates = aggregatesOf(tree, names);
  const ports = portsOf(tree, names);
  const priorities = new Map(aggregates.flatMap((a) => a.members.map((m) => [m.port, m.priority] as const)));
  const observation: Observation = {
    ...nothingOf(source),
    name: nameIn(tree),
    mac,
    addresses: [...(chassis ? [chassis] : []), ...ports.flatMap((p) => (p.mac ? [canonicalMac(p.mac)!] : []))],
    protocol: protocolIn(tree),
    timers: timersIn(tree),
    region: regionIn(tree),
    maxHops: maxHopsIn(tree),
    vlans: vlansOf(tree),
    ports: ports.map((p) => known({ ...p, lacpPriority: priorities.get(p.name) })),
    aggregates: [...aggregates, ...stacked(tree, names, new Set(aggregates.map((a) => a.name)))],
    trees: [...new Map([...further, ...treesOf(tree, { mac: own, names })].map((t) => [t.id, t])).values()],
    neighbours: neighboursOf(tree, names),
    learned: learnedOf(tree, names),
  };
  return { ...observation, unread: tree.count === 0 ? [say['no-objects']({ source: source.name })] : tree.unread };
}
