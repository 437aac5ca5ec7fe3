/** Which VLAN is where: carried by a link, unreachable from the rest, told differently by the two ends. */
import { bundleAt, groupBy, hostById, portById, setField, vlansAt } from '../design';
import type { Design, Edit, Link, Port } from '../design';
import { formatVlanRanges, parseVlanRanges, vlanMembership } from '../standard';

/** Whether a port carries a VLAN, tagged or untagged. */
export const carries = (design: Design, portId: string, vlan: number): boolean =>
  vlanMembership(vlansAt(design, portId).vlans)[vlan] === 1;

/** How a VLAN leaves a port. */
export function tagging(design: Design, portId: string, vlan: number): 'tagged' | 'untagged' | 'not carried' {
  if (!carries(design, portId, vlan)) return 'not carried';
  return vlansAt(design, portId).native === vlan ? 'untagged' : 'tagged';
}

/** In what the two ends of a link do not agree; null when they do, or when one end is a host. */
export interface Disagreement {
  /** VLANs that only end a, only end b carries. */
  readonly onlyA: readonly number[];
  readonly onlyB: readonly number[];
  /** Untagged VLAN of each end, when they differ. */
  readonly native: readonly [number | null, number | null] | null;
  readonly speed: readonly [number, number] | null;
  readonly duplex: boolean;
}

export function disagreement(design: Design, link: Link): Disagreement | null {
  if (!('port' in link.a) || !('port' in link.b)) return null;
  const [p, q] = [portById(design, link.a.port)!, portById(design, link.b.port)!];
  const [a, b] = [vlansAt(design, p.id), vlansAt(design, q.id)];
  const [setA, setB] = [vlanMembership(a.vlans), vlanMembership(b.vlans)];
  const only = (own: Uint8Array, far: Uint8Array) =>
    own === far ? [] : design.vlans.flatMap(({ number: n }) => (own[n] && !far[n] ? [n] : []));
  const found: Disagreement = {
    onlyA: only(setA, setB),
    onlyB: only(setB, setA),
    native: a.native === b.native ? null : [a.native, b.native],
    speed: p.speed === q.speed ? null : [p.speed, q.speed],
    duplex: (p.duplex ?? 'full') !== (q.duplex ?? 'full'),
  };
  const agrees = found.onlyA.length + found.onlyB.length === 0 && !found.native && !found.speed && !found.duplex;
  return agrees ? null : found;
}

/** The disagreement as a sentence: what differs, and at which end. */
export function disagreementSentence(found: Disagreement, [a, b]: readonly [string, string]): string {
  const native = (vlan: number | null) => (vlan === null ? 'none' : `VLAN ${vlan}`);
  const vlans = (list: readonly number[]) => `VLAN${list.length === 1 ? '' : 's'} ${formatVlanRanges(list)}`;
  return [
    found.onlyA.length > 0 && `only ${a} carries ${vlans(found.onlyA)}`,
    found.onlyB.length > 0 && `only ${b} carries ${vlans(found.onlyB)}`,
    found.native && `untagged is ${native(found.native[0])} at ${a} and ${native(found.native[1])} at ${b}`,
    found.speed && `${a} runs at ${found.speed[0]} Mb/s, ${b} at ${found.speed[1]} Mb/s`,
    found.duplex && 'one end is full duplex, the other half',
  ]
    .filter(Boolean)
    .join('; ');
}

/** Where a VLAN is. */
export interface Presence {
  /** Links that carry it at both ends. */
  readonly links: ReadonlySet<string>;
  /** Links that carry it at one end only. */
  readonly half: ReadonlySet<string>;
  readonly segments: ReadonlySet<string>;
  /** Part of the VLAN by switch: 0 for the largest part; several parts cannot reach each other. */
  readonly part: ReadonlyMap<string, number>;
  readonly parts: readonly (readonly string[])[];
  /** Hosts of the VLAN that stand in another part than the largest, or in none. */
  readonly cutOff: ReadonlySet<string>;
  readonly hosts: ReadonlySet<string>;
}

/** Switches that a VLAN reaches through links and segments that are up, part by part. */
export function presence(design: Design, vlan: number): Presence {
  const links = new Set<string>();
  const half = new Set<string>();
  const segments = new Set<string>();
  const off = new Set(design.switches.filter((s) => s.off).map((s) => s.id));
  const parent = new Map<string, string>();
  const find = (id: string): string => {
    const up = parent.get(id);
    if (up === undefined || up === id) return id;
    const top = find(up);
    parent.set(id, top);
    return top;
  };
  const stand = (id: string) => !parent.has(id) && parent.set(id, id);
  const join = (a: string, b: string) => parent.set(find(a), find(b));
  const up = (port: Port) => !port.down && !off.has(port.switch);
  const hosts = new Set<string>();
  const seat = new Map<string, string>();

  for (const link of design.links) {
    const ends = [link.a, link.b].flatMap((e) => ('port' in e ? [portById(design, e.port)!] : []));
    const host = [link.a, link.b].flatMap((e) => ('host' in e ? [e.host] : []))[0];
    const carrying = ends.filter((p) => carries(design, p.id, vlan));
    if (host !== undefined) {
      const own = hostById(design, host)?.vlan ?? vlansAt(design, ends[0]!.id).native;
      if (own !== vlan) continue;
      hosts.add(host);
      if (carrying.length === 1 && up(ends[0]!) && !link.down) {
        stand(ends[0]!.switch);
        seat.set(host, ends[0]!.switch);
        links.add(link.id);
      }
      continue;
    }
    if (carrying.length === 2) links.add(link.id);
    else if (carrying.length === 1) half.add(link.id);
    for (const port of carrying) if (!off.has(port.switch)) stand(port.switch);
    if (carrying.length === 2 && ends.every(up) && !link.down) join(ends[0]!.switch, ends[1]!.switch);
  }
  for (const segment of design.segments) {
    const on = segment.ports.map((id) => portById(design, id)!).filter((p) => carries(design, p.id, vlan));
    for (const port of on) if (!off.has(port.switch)) stand(port.switch);
    if (on.length > 0) segments.add(segment.id);
    if (segment.down) continue;
    const alive = on.filter(up);
    for (const port of alive) join(alive[0]!.switch, port.switch);
  }
  const parts = [...groupBy(parent.keys(), find).values()].sort((a, b) => b.length - a.length);
  const part = new Map(parts.flatMap((members, i) => members.map((id) => [id, i] as const)));
  const cutOff = new Set([...hosts].filter((h) => (part.get(seat.get(h) ?? '') ?? -1) !== 0));
  return { links, half, segments, part, parts, cutOff, hosts };
}

/** Numbers of a set that the design holds, and which can therefore be read. */
function listed(set: string): readonly number[] {
  const parsed = parseVlanRanges(set);
  return parsed.ok ? parsed.vlans : [];
}

/** The text of a set with a VLAN put in or taken out; of `all` those of the design are written out. */
function withVlan(design: Design, set: string, vlan: number, present: boolean): string {
  const vlans = set === 'all' ? design.vlans.map((v) => v.number) : listed(set);
  return formatVlanRanges(present ? [...vlans, vlan] : vlans.filter((v) => v !== vlan));
}

/** The port itself, or the bundle it is a member of: where its VLANs are set. */
const setAt = (design: Design, portId: string) => {
  const bundle = bundleAt(design, portId);
  return bundle
    ? { kind: 'bundle' as const, element: bundle }
    : { kind: 'port' as const, element: portById(design, portId)! };
};

/** Edits that have ports carry a VLAN, or no longer. What already does is left alone; a port's untagged VLAN goes with it. */
export function paintVlan(design: Design, portIds: Iterable<string>, vlan: number, present: boolean): Edit[] {
  const done = new Set<string>();
  return [...portIds].flatMap((portId) => {
    const { kind, element } = setAt(design, portId);
    if (done.has(element.id) || carries(design, portId, vlan) === present) return [];
    done.add(element.id);
    const edits = [setField(kind, element.id, 'vlans', withVlan(design, element.vlans ?? 'all', vlan, present))];
    if (!present && element.native === vlan) edits.push(setField(kind, element.id, 'native', null));
    return edits;
  });
}

/** Ports at the ends of links and segments. */
export function portsOnWires(design: Design, linkIds: Iterable<string>): string[] {
  const wanted = new Set(linkIds);
  const onLinks = design.links.filter((l) => wanted.has(l.id)).flatMap((l) => [l.a, l.b]);
  const onSegments = design.segments.filter((s) => wanted.has(s.id)).flatMap((s) => s.ports);
  return [...onLinks.flatMap((e) => ('port' in e ? [e.port] : [])), ...onSegments];
}

/** Edits that set the VLANs of a port, or of the bundle it is a member of; `all` is what a port has when nothing is said. */
export function setVlans(design: Design, portId: string, text: string): Edit[] {
  const { kind, element } = setAt(design, portId);
  const parsed = parseVlanRanges(text);
  const next =
    /^all$/i.test(text.trim()) || text.trim() === '' ? null : parsed.ok ? formatVlanRanges(parsed.vlans) : text;
  return (element.vlans ?? null) === next ? [] : [setField(kind, element.id, 'vlans', next)];
}

/** Edits that name the untagged VLAN of a port or its bundle; null for none. A VLAN that was not carried is from now on. */
export function setNative(design: Design, portId: string, vlan: number | null): Edit[] {
  const { kind, element } = setAt(design, portId);
  if ((element.native ?? null) === vlan) return [];
  const legal = vlan !== null && Number.isInteger(vlan) && vlan >= 1 && vlan <= 4094;
  return [...(legal ? paintVlan(design, [portId], vlan, true) : []), setField(kind, element.id, 'native', vlan)];
}

/** Edits that give a VLAN another number wherever it is named: lists, untagged VLANs, hosts, settings of its tree. */
export function renumberVlan(design: Design, from: number, to: number): Edit[] {
  const edits: Edit[] = design.vlans.filter((v) => v.number === from).map((v) => setField('vlan', v.id, 'number', to));
  const moved = (set: string | undefined) => {
    if (set === undefined || set === 'all' || !vlanMembership(set)[from]) return null;
    return formatVlanRanges(listed(set).map((v) => (v === from ? to : v)));
  };
  const table = (
    kind: 'switch' | 'port' | 'bundle',
    element: object & { id: string },
    field: 'vlanPriority' | 'vlanCost',
  ) => {
    const value = (element as Record<string, Record<string, number> | undefined>)[field]?.[String(from)];
    if (value !== undefined)
      edits.push(
        setField(kind, element.id, `${field}.${from}`, null),
        setField(kind, element.id, `${field}.${to}`, value),
      );
  };
  for (const s of design.switches) table('switch', s, 'vlanPriority');
  for (const [kind, list] of [
    ['port', design.ports],
    ['bundle', design.bundles],
  ] as const)
    for (const at of list) {
      const vlans = moved(at.vlans);
      if (vlans !== null) edits.push(setField(kind, at.id, 'vlans', vlans));
      if (at.native === from) edits.push(setField(kind, at.id, 'native', to));
      table(kind, at, 'vlanCost');
      table(kind, at, 'vlanPriority');
    }
  for (const host of design.hosts) if (host.vlan === from) edits.push(setField('host', host.id, 'vlan', to));
  return edits;
}
