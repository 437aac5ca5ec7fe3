/** Everything that the agent of a switch answers: the switch of a design as it runs at this moment. */
import { bundlesOf, farEnd, linkAt, linkSpeed, portById, portsOf, segmentAt, switchById } from '../../design';
import type { Bundle, Design, Port, Switch } from '../../design';
import { LACP_PRIORITY, macToNumber, vlanMembership } from '../../standard';
import { reversed } from '../snmp/read';
import { bitString } from '../snmp/tree';
import type { MemberSnapshot, SwitchSnapshot } from '../../simulation';
import { answeringDesign } from '../acting';
import { Answers, octetsOf, textOctets } from './answers';
import type { Answer } from './answers';
import { LOGICAL_BRIDGE } from '../snmp/objects';
import { logicalAnswers, spanningTreeAnswers } from './stp-answers';

/** Interface indices are other numbers than those of bridge ports, as in devices. */
const FIRST_PORT = 100;
const FIRST_BUNDLE = 5000;
const indexOf = (e: Port | Bundle): number => ('members' in e ? FIRST_BUNDLE : FIRST_PORT) + e.number;

const UP = 1;
const DOWN = 2;
const ETHERNET = 6;
const LAG = 161;

export interface AgentPlace {
  /** Management address by the id of the switch, as LLDP tells it: where its agent answers. */
  readonly addresses: ReadonlyMap<string, string>;
  /** Hundredths of a second that it runs. */
  readonly uptime: number;
}

/** Address of a port, locally administered: the end of that of its switch, and its number. */
const portMac = (s: Switch, e: Port | Bundle): number =>
  0x02_00_00_00_00_00 + (macToNumber(s.mac) % 0x1_0000_0000) * 0x100 + (e.number % 0x100);

interface Device {
  readonly design: Design;
  readonly s: Switch;
  readonly snapshot: SwitchSnapshot;
  readonly ports: readonly Port[];
  readonly bundles: readonly Bundle[];
}

function systemGroup(out: Answers, { s }: Device, uptime: number): void {
  out.scalar('sysDescr', textOctets('stand-in of a switch'));
  out.scalar('sysUpTime', uptime, 'ticks');
  out.scalar('sysName', textOctets(s.name));
}

function interfaces(out: Answers, { design, s, snapshot, ports, bundles }: Device): void {
  const one = (e: Port | Bundle, type: number, speed: number, up: boolean, enabled: boolean) => {
    const index = indexOf(e);
    out.column('ifDescr', index, textOctets(e.name));
    out.column('ifType', index, type);
    out.column('ifSpeed', index, Math.min(speed * 1_000_000, 0xffff_ffff), 'gauge');
    out.column('ifPhysAddress', index, octetsOf(portMac(s, e), 6));
    out.column('ifAdminStatus', index, enabled ? UP : DOWN);
    out.column('ifOperStatus', index, up ? UP : DOWN);
    out.column('ifName', index, textOctets(e.name));
    out.column('ifHighSpeed', index, speed, 'gauge');
  };
  for (const p of ports) {
    const link = linkAt(design, p.id);
    const lit = snapshot.lit.has(p.id);
    one(p, ETHERNET, lit && link ? linkSpeed(design, link) : p.speed, lit, !p.down);
    out.column('ifAlias', indexOf(p), textOctets(p.description ?? ''));
    out.column('dot3StatsDuplexStatus', indexOf(p), p.duplex === 'half' ? 2 : 3);
  }
  for (const b of bundles) {
    const active = snapshot.elements.find((e) => e.id === b.id)?.active ?? [];
    const speed = active.reduce((sum, id) => sum + (portById(design, id)?.speed ?? 0), 0);
    one(b, LAG, speed, active.length > 0, true);
    for (const m of b.members) {
      const member = portById(design, m);
      if (member) out.column('ifStackStatus', `${indexOf(b)}.${indexOf(member)}`, 1);
    }
  }
}

/** Ports that spanning tree sees: bundles, and ports of none; a member is one as long as it goes alone. */
function bridgePorts({ snapshot, ports, bundles }: Device): (Port | Bundle)[] {
  const alone = new Set(snapshot.elements.flatMap((e) => (e.up ? [e.id] : [])));
  const configured = new Set(bundles.flatMap((b) => b.members));
  return [...ports.filter((p) => !configured.has(p.id) || alone.has(p.id)), ...bundles].sort(
    (a, b) => a.number - b.number,
  );
}

function bridge(out: Answers, device: Device): void {
  const { design, s } = device;
  const own = bridgePorts(device);
  const most = Math.max(...own.map((e) => e.number), 1);
  out.scalar('dot1dBaseBridgeAddress', octetsOf(macToNumber(s.mac), 6));
  out.scalar('dot1dBaseNumPorts', own.length);
  out.scalar('dot1dBaseType', 2);
  out.scalar('dot1dTpAgingTime', s.ageingTime ?? 300);
  for (const e of own) out.column('dot1dBasePortIfIndex', e.number, indexOf(e));
  const sets = own.map((e) => {
    const carried = vlanMembership(e.vlans ?? 'all');
    return {
      e,
      native: e.native ?? null,
      carried: new Set(design.vlans.map((v) => v.number).filter((v) => carried[v] === 1)),
    };
  });
  for (const { number, name } of design.vlans) {
    const egress = sets.filter(({ carried }) => carried.has(number)).map(({ e }) => e.number);
    const bare = sets
      .filter(({ carried, native }) => native === number && carried.has(number))
      .map(({ e }) => e.number);
    out.column('dot1qVlanCurrentEgressPorts', `0.${number}`, bitString(egress, most));
    out.column('dot1qVlanCurrentUntaggedPorts', `0.${number}`, bitString(bare, most));
    out.column('dot1qVlanStaticName', number, textOctets(name ?? ''));
    out.column('dot1qVlanStaticEgressPorts', number, bitString(egress, most));
    out.column('dot1qVlanStaticUntaggedPorts', number, bitString(bare, most));
  }
  for (const { e, native } of sets) out.column('dot1qPvid', e.number, native ?? 1, 'gauge');
}

/** A member, and whether it carries for its bundle. */
interface Member extends MemberSnapshot {
  readonly attached: boolean;
}

function member(out: Answers, b: Bundle, port: Port, { actor, partner, attached }: Member): void {
  const index = indexOf(port);
  const state = (octet: number) => Uint8Array.of(reversed(octet));
  out.column('dot3adAggPortActorSystemPriority', index, actor.systemPriority);
  out.column('dot3adAggPortActorSystemID', index, octetsOf(actor.system, 6));
  out.column('dot3adAggPortActorAdminKey', index, b.key ?? b.number);
  out.column('dot3adAggPortActorOperKey', index, actor.key);
  out.column('dot3adAggPortPartnerOperSystemPriority', index, partner.systemPriority);
  out.column('dot3adAggPortPartnerOperSystemID', index, octetsOf(partner.system, 6));
  out.column('dot3adAggPortPartnerOperKey', index, partner.key);
  out.column('dot3adAggPortSelectedAggID', index, indexOf(b));
  out.column('dot3adAggPortAttachedAggID', index, attached ? indexOf(b) : 0);
  out.column('dot3adAggPortActorPort', index, actor.port);
  out.column('dot3adAggPortActorPortPriority', index, actor.portPriority);
  out.column('dot3adAggPortPartnerOperPort', index, partner.port);
  out.column('dot3adAggPortActorOperState', index, state(actor.state));
  out.column('dot3adAggPortPartnerOperState', index, state(partner.state));
}

function aggregation(out: Answers, device: Device): void {
  const { design, s, snapshot, bundles } = device;
  for (const b of bundles.filter((x) => x.kind === 'lacp')) {
    const index = indexOf(b);
    const carrying = snapshot.elements.find((e) => e.id === b.id)?.active ?? [];
    const members = (snapshot.members.get(b.id) ?? []).map((m) => ({ ...m, attached: carrying.includes(m.id) }));
    const partner = members.find((m) => m.attached)?.partner;
    out.column('dot3adAggMACAddress', index, octetsOf(portMac(s, b), 6));
    out.column('dot3adAggActorSystemPriority', index, b.systemPriority ?? s.lacpPriority ?? LACP_PRIORITY.default);
    out.column('dot3adAggActorSystemID', index, octetsOf(macToNumber(b.systemMac ?? s.mac), 6));
    out.column('dot3adAggActorOperKey', index, b.key ?? b.number);
    out.column('dot3adAggPartnerSystemID', index, octetsOf(partner?.system ?? 0, 6));
    out.column('dot3adAggPartnerSystemPriority', index, partner?.systemPriority ?? 0);
    out.column('dot3adAggPartnerOperKey', index, partner?.key ?? 0);
    for (const m of members) {
      const port = portById(design, m.id);
      if (port) member(out, b, port, m);
    }
  }
}

const CHASSIS_MAC = 4;
const PORT_NAME = 5;
/** Bridge is the third capability; the first is the most significant bit. */
const BRIDGE_CAPABILITY = Uint8Array.of(0x20, 0);

function local(out: Answers, { s, ports }: Device): void {
  out.scalar('lldpLocChassisIdSubtype', CHASSIS_MAC);
  out.scalar('lldpLocChassisId', octetsOf(macToNumber(s.mac), 6));
  out.scalar('lldpLocSysName', textOctets(s.name));
  for (const p of ports) {
    out.column('lldpLocPortIdSubtype', p.number, PORT_NAME);
    out.column('lldpLocPortId', p.number, textOctets(p.name));
    out.column('lldpLocPortDesc', p.number, textOctets(p.name));
  }
}

/** Ports of other switches that a port hears: at the far end of its link, or all on its segment. */
function heardAt(design: Design, port: Port, live: (id: string) => boolean): Port[] {
  const segment = segmentAt(design, port.id);
  const far = segment
    ? segment.down
      ? []
      : segment.ports.filter((id) => id !== port.id)
    : [linkAt(design, port.id)].flatMap((link) => {
        const end = link && !link.down && farEnd(link, port.id);
        return end && 'port' in end ? [end.port] : [];
      });
  return far.filter(live).flatMap((id) => portById(design, id) ?? []);
}

function neighbours(
  out: Answers,
  { design, ports, snapshot }: Device,
  place: AgentPlace,
  live: (id: string) => boolean,
): void {
  let remote = 0;
  for (const p of ports.filter((x) => snapshot.lit.has(x.id)))
    for (const far of heardAt(design, p, live)) {
      const at = switchById(design, far.switch)!;
      const index = `0.${p.number}.${++remote}`;
      out.column('lldpRemChassisIdSubtype', index, CHASSIS_MAC);
      out.column('lldpRemChassisId', index, octetsOf(macToNumber(at.mac), 6));
      out.column('lldpRemPortIdSubtype', index, PORT_NAME);
      out.column('lldpRemPortId', index, textOctets(far.name));
      out.column('lldpRemPortDesc', index, textOctets(far.name));
      out.column('lldpRemSysName', index, textOctets(at.name));
      out.column('lldpRemSysCapEnabled', index, BRIDGE_CAPABILITY);
      const address = place.addresses.get(at.id);
      if (address) out.column('lldpRemManAddrIfSubtype', `${index}.1.4.${address}`, 2);
    }
}

/** Who asks: by which community, null with a key; and for which of the bridges of a device, null for the first. */
export interface Asker {
  readonly community: string | null;
  readonly logical: string | null;
}

/** Names of the bridges of a switch that runs a tree per VLAN; none where it runs one. */
export const logicalNames = ({ trees }: SwitchSnapshot): string[] =>
  trees.length > 1 ? trees.flatMap((t) => (t.vlan === null ? [] : [t.id])) : [];

/** The community that asks an agent for one of its bridges. */
export const logicalCommunity = (community: string, name: string): string => `${community}/${name}`;

function logicalTable(out: Answers, snapshot: SwitchSnapshot, { community }: Asker): void {
  logicalNames(snapshot).forEach((name, i) => {
    out.column('entLogicalDescr', i + 1, textOctets(`bridge of ${name}`));
    out.column('entLogicalType', i + 1, LOGICAL_BRIDGE);
    // Whoever asks with a key gets no community.
    out.column('entLogicalCommunity', i + 1, textOctets(community === null ? '' : logicalCommunity(community, name)));
    out.column('entLogicalContextName', i + 1, textOctets(name));
  });
}

/** What the agent of a switch answers, in the order of a walk. `live`: whether a port of another switch has a carrier. */
export function agentAnswers(
  running: Design,
  snapshot: SwitchSnapshot,
  place: AgentPlace,
  live: (port: string) => boolean,
  asker: Asker = { community: null, logical: null },
): Answer[] {
  const design = answeringDesign(running);
  const s = switchById(design, snapshot.id)!;
  const device: Device = { design, s, snapshot, ports: portsOf(design, s.id), bundles: bundlesOf(design, s.id) };
  const out = new Answers();
  const element = (id: string) => device.bundles.find((b) => b.id === id) ?? portById(design, id)!;
  const seen = new Set(bridgePorts(device).map((e) => e.id));
  const trees = snapshot.trees.map((t) => ({ ...t, ports: t.ports.filter((p) => seen.has(p.id)) }));
  const told = { design, of: s, snapshot: { ...snapshot, trees }, element };
  if (asker.logical !== null) {
    const tree = trees.find((t) => t.id === asker.logical);
    if (tree) logicalAnswers(out, told, tree, (id) => indexOf(element(id)));
    return out.sorted();
  }
  systemGroup(out, device, place.uptime);
  interfaces(out, device);
  bridge(out, device);
  aggregation(out, device);
  local(out, device);
  neighbours(out, device, place, live);
  logicalTable(out, snapshot, asker);
  spanningTreeAnswers(out, told);
  return out.sorted();
}
