/** The chart of the cabling itself: every cable as one wire, ports by name, no tree; or one VLAN laid over it. */
import { endOwner, farEnd, linkAt, linkSpeed, portById, segmentAt, switchById } from '../../core/design';
import type { Design, Host, Link, LinkEnd, Note, Segment, Switch } from '../../core/design';
import { disagreement } from '../../core/editing';
import type { Presence } from '../../core/editing';
import { PLATE } from './geometry';
import type { Point } from './geometry';
import { notesIn } from './notes';
import { labelPlaces } from './labels';
import { attachPegs } from './pegs';
import type { Attachment, AttachmentEnd } from './pegs';
import { routed } from './routing';
import { speedLabel } from './ends';
import type { PegItem, PlateItem, Scene, SpotItem, WireItem } from './scene-items';

/** Places by id: where the drawing has things, whether the design says so or an arrangement. */
export interface Places {
  readonly switches: ReadonlyMap<string, Point>;
  readonly hosts: ReadonlyMap<string, Point>;
  readonly segments: ReadonlyMap<string, Point>;
}

const HOST = { dx: PLATE.width / 2 + 62, dy: 26 } as const;
const mean = (points: readonly Point[], axis: 'x' | 'y') =>
  points.reduce((sum, p) => sum + p[axis], 0) / Math.max(1, points.length);

/** Switch at which a host's first cable ends. */
function seats(design: Design): Map<string, string> {
  const seat = new Map<string, string>();
  for (const { a, b } of design.links)
    for (const [end, far] of [
      [a, b],
      [b, a],
    ] as const)
      if ('host' in end && 'port' in far && !seat.has(end.host)) seat.set(end.host, portById(design, far.port)!.switch);
  return seat;
}

/** Where everything stands: as placed; things without a place stand beside what they are plugged into. */
export function placesOf(design: Design, at: readonly Point[]): Places {
  const switches = new Map(design.switches.map((s, i) => [s.id, at[i]!]));
  const bottom = Math.max(0, ...at.map((p) => p.y)) + 110;
  const left = at.length > 0 ? Math.min(...at.map((p) => p.x)) : 0;
  const beside = new Map<string, number>();
  const seat = seats(design);
  let loose = 0;
  const hostAt = (host: Host): Point => {
    if (host.x !== undefined && host.y !== undefined) return { x: host.x, y: host.y };
    const home = switches.get(seat.get(host.id) ?? '');
    if (!home) return { x: left + 130 * loose++, y: bottom };
    const n = beside.get(seat.get(host.id)!) ?? 0;
    beside.set(seat.get(host.id)!, n + 1);
    return { x: home.x + HOST.dx, y: home.y + n * HOST.dy };
  };
  const segmentAt = (segment: Segment): Point => {
    if (segment.x !== undefined && segment.y !== undefined) return { x: segment.x, y: segment.y };
    const around = segment.ports.map((id) => switches.get(portById(design, id)!.switch)!);
    if (around.length === 0) return { x: left + 130 * loose++, y: bottom };
    return { x: mean(around, 'x'), y: mean(around, 'y') + (around.length < 2 ? 80 : 0) };
  };
  return {
    switches,
    hosts: new Map(design.hosts.map((h) => [h.id, hostAt(h)])),
    segments: new Map(design.segments.map((s) => [s.id, segmentAt(s)])),
  };
}

/** Weight of a line: a step for each tenfold of the rate. */
const weightOf = (speed: number) => (speed < 1000 ? 1 : speed < 10_000 ? 2 : speed < 40_000 ? 3 : 4);

/** What the plate notes: the MAC address's last three octets decide ties and tell switches apart. */
function plateOf(s: Switch, at: Point, width: number, lens: Lens | null): PlateItem {
  const part = lens?.presence.part.get(s.id);
  const outside = lens !== null && part === undefined;
  const apart = part !== undefined && part > 0;
  const tag = s.off ? 'off' : apart ? `part ${part + 1}` : (s.tier ?? '');
  return {
    id: s.id,
    name: s.name,
    x: at.x,
    y: at.y,
    width,
    second: s.mac.slice(9),
    tag: tag === 'distribution' ? 'dist' : tag,
    spoken: [s.name, tag, `MAC ${s.mac}`, outside && `without VLAN ${lens.vlan}`].filter(Boolean).join(', '),
    standing: s.off ? 'off' : outside ? 'outside' : apart ? 'apart' : 'plain',
  };
}

/** A VLAN laid over the cabling. */
export interface Lens {
  readonly vlan: number;
  readonly presence: Presence;
}

function wireLook(
  design: Design,
  link: Link,
  lens: Lens | null,
): Pick<WireItem, 'state' | 'blockedA' | 'blockedB' | 'label' | 'alarm' | 'weight'> {
  const speed = linkSpeed(design, link);
  const ports = [link.a, link.b].flatMap((e) => ('port' in e ? [portById(design, e.port)!] : []));
  const down = link.down || ports.some((p) => p.down || switchById(design, p.switch)?.off);
  const odd = disagreement(design, link) !== null;
  const label = ports.length === 2 ? (odd ? `${speedLabel(speed)} ≠` : speedLabel(speed)) : null;
  const base = { blockedA: false, blockedB: false, label, alarm: odd, weight: weightOf(speed) };
  if (down) return { ...base, state: 'down' };
  if (!lens) return { ...base, state: 'open' };
  if (lens.presence.links.has(link.id)) return { ...base, state: 'open' };
  if (lens.presence.half.has(link.id)) return { ...base, state: 'half' };
  return { ...base, state: 'outside', label: null, alarm: false };
}

type Bare = Omit<WireItem, 'a' | 'b'>;

/** An end of a wire: a port on a plate, or the middle of a host or segment. */
type BareEnd =
  | { readonly bridge: number; readonly port: number }
  | { readonly list: 'switches' | 'hosts' | 'segments'; readonly id: string };

/** Where the labels of parallel cables stand, so that none hides another: the first in the middle, the next beside it. */
const LABELS_AT = [0.5, 0.38, 0.62, 0.3, 0.7] as const;

/** Everything of the scene that does not depend on where things stand; made once while something is dragged. */
export interface Looks {
  readonly design: Design;
  readonly lens: Lens | null;
  readonly wires: readonly { readonly wire: Bare; readonly a: BareEnd; readonly b: BareEnd }[];
}

/** Words on cables, and cables that are not in the design: what a check found. */
export interface Marks {
  readonly links: ReadonlyMap<string, string>;
  readonly ghosts: readonly { readonly key: string; readonly a: string; readonly b: string; readonly label: string }[];
}

export function looksOf(design: Design, lens: Lens | null, marks: Marks | null = null): Looks {
  const index = new Map(design.switches.map((s, i) => [s.id, i]));
  const portIndex = new Map(design.ports.map((p, i) => [p.id, i]));
  const portEnd = (id: string): BareEnd => ({
    bridge: index.get(portById(design, id)!.switch)!,
    port: portIndex.get(id)!,
  });
  const end = (e: LinkEnd): BareEnd => ('port' in e ? portEnd(e.port) : { list: 'hosts', id: e.host });
  const idOf = (e: LinkEnd) => ('port' in e ? e.port : null);
  const segmentState = (segment: Segment) =>
    segment.down ? 'down' : !lens || lens.presence.segments.has(segment.id) ? 'open' : 'outside';
  const parallel = new Map<string, number>();
  const labelAt = (link: Link) => {
    const ends = [link.a, link.b].map((e) => endOwner(design, e)?.id ?? '').sort();
    const n = parallel.get(ends.join('\n')) ?? 0;
    parallel.set(ends.join('\n'), n + 1);
    return { labelAt: LABELS_AT[n % LABELS_AT.length]! };
  };
  const links = design.links.map((link) => {
    const kind: Bare['kind'] = 'host' in link.a || 'host' in link.b ? 'host' : 'link';
    const ends = { portA: idOf(link.a), portB: idOf(link.b) };
    const mark = marks?.links.get(link.id);
    const look = { ...wireLook(design, link, lens), ...(mark ? { label: mark, alarm: true } : {}) };
    const wire: Bare = { key: `link ${link.id}`, id: link.id, kind, ...ends, ...look, ...labelAt(link) };
    return { wire, a: end(link.a), b: end(link.b) };
  });
  const attached = design.segments.flatMap((segment) =>
    segment.ports.map((port) => {
      const wire: Bare = {
        key: `segment ${port}`,
        id: segment.id,
        kind: 'segment',
        portA: port,
        portB: null,
        state: segmentState(segment),
        blockedA: false,
        blockedB: false,
        label: null,
        weight: weightOf(portById(design, port)!.speed),
      };
      return { wire, a: portEnd(port), b: { list: 'segments', id: segment.id } as const };
    }),
  );
  const ghosts = (marks?.ghosts ?? []).map(({ key, a, b, label }) => {
    const ends = { portA: null, portB: null, blockedA: false, blockedB: false };
    const wire: Bare = { key: `ghost ${key}`, id: key, kind: 'ghost', state: 'half', label, alarm: true, ...ends };
    return { wire, a: { list: 'switches', id: a } as const, b: { list: 'switches', id: b } as const };
  });
  return { design, lens, wires: [...links, ...attached, ...ghosts] };
}

/** The scene with everything in its place; `notes`: those that are shown instead of the design's. */
export function layOut({ design, lens, wires: bare }: Looks, places: Places, notes?: Note[]): Scene {
  const at = design.switches.map((s) => places.switches.get(s.id)!);
  const placed = (end: BareEnd): AttachmentEnd =>
    'bridge' in end
      ? { bridge: end.bridge, port: end.port, at: at[end.bridge]! }
      : { bridge: null, port: -1, at: places[end.list].get(end.id)! };
  const attachments = bare.map(({ a, b }): Attachment => ({ a: placed(a), b: placed(b) }));
  const { anchors, width, crowded } = attachPegs(at, attachments);
  const pegs: PegItem[] = [];
  const ways = routed(
    at.map((p, i) => ({ ...p, width: width[i]! })),
    attachments.map(({ a, b }, i) => ({ a: anchors[i]![0], b: anchors[i]![1], from: a.bridge, to: b.bridge })),
  );
  const hosts = design.hosts.map((h): SpotItem => ({
    ...places.hosts.get(h.id)!,
    id: h.id,
    kind: 'host',
    name: h.name,
    ...(lens?.presence.cutOff.has(h.id) ? { alarm: true } : {}),
  }));
  const segments = design.segments.map((s): SpotItem => ({
    ...places.segments.get(s.id)!,
    id: s.id,
    kind: 'segment',
    name: s.name,
  }));
  const spots = [...hosts, ...segments];
  const labels = labelPlaces(
    bare.map(({ wire }, i) => {
      const [a, b] = anchors[i]!;
      return { a, b, via: ways[i]!, label: wire.label, usual: wire.labelAt ?? 0.5, kept: wire.alarm === true };
    }),
    at.map((p, i) => ({ ...p, width: width[i]! })),
    spots,
  );
  const wires = bare.map(({ wire, a: endA, b: endB }, i): WireItem => {
    const [a, b] = anchors[i]!;
    for (const [id, anchor, end] of [
      [wire.portA, a, endA],
      [wire.portB, b, endB],
    ] as const)
      if (id !== null && 'bridge' in end)
        pegs.push({
          ...anchor,
          key: id,
          id,
          role: 'port',
          name: portById(design, id)!.name,
          crowded: crowded[end.bridge]!,
        });
    const { share, free } = labels[i]!;
    // Of cables that lie close some go without their rate: the weight of the line shows it too.
    const label = free || wire.alarm ? wire.label : null;
    return { ...wire, a, b, label, labelAt: share, ...(ways[i]!.length > 0 ? { via: ways[i]! } : {}) };
  });
  const plates = design.switches.map((s, i) => plateOf(s, at[i]!, width[i]!, lens));
  const written = notesIn(notes ? { ...design, notes } : design, { plates, wires, spots }, true);
  return { plates, pegs, wires, spots, notes: written, ruler: [], outside: null };
}

/** What is plugged in at the other end of a port, in words; null when nothing is. */
export function pluggedInto(design: Design, portId: string): string | null {
  const segment = segmentAt(design, portId);
  if (segment) return `segment ${segment.name}`;
  const link = linkAt(design, portId);
  if (!link) return null;
  const far = farEnd(link, portId);
  const owner = endOwner(design, far)?.name ?? '';
  return 'port' in far ? `${owner} ${portById(design, far.port)!.name}` : owner;
}
