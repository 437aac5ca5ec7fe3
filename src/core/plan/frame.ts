/**
 * Two designs brought to a form in which every difference between them is a setting of one device, a cable, or a host: what
 * stands once for all switches in a document (mode, cost scales, MST regions) is set switch by switch in a network.
 */
import { addElement, emptyLists, modeOf, setField, switchById } from '../design';
import type { Design, Edit, Kind, Region, Switch, Vlan } from '../design';
import { regionOf } from '../network';

export interface Frame {
  /** The design as it is, with the new regions ready for their switches: nothing in it moves by that. */
  readonly start: Design;
  /** What the steps lead to: the target, written like the start. */
  readonly goal: Design;
}

/** Fields that stand in the drawing and are set on no device. */
const DRAWN: Partial<Record<Kind, readonly string[]>> = {
  vlan: ['id', 'name', 'hue'],
  switch: ['name', 'tier', 'group', 'maxTrees', 'x', 'y'],
  port: ['name', 'description'],
  segment: ['name', 'x', 'y'],
  host: ['name', 'x', 'y'],
  bundle: ['name'],
};

type Plain = Record<string, unknown>;

/** An element of the target with what is only drawn taken from what it is now. */
function asDrawn<T extends object>(kind: Kind, target: T, now: T | undefined): T {
  if (!now) return target;
  const next: Plain = { ...(target as Plain) };
  for (const field of DRAWN[kind] ?? []) {
    const value = (now as Plain)[field];
    if (value === undefined) delete next[field];
    else next[field] = value;
  }
  return next as T;
}

const byId = <T extends { readonly id: string }>(list: readonly T[]) => new Map(list.map((e) => [e.id, e]));

/** Target elements as they are drawn now, in the order of the target. */
function listAsDrawn<T extends { readonly id: string }>(kind: Kind, target: readonly T[], now: readonly T[]): T[] {
  const known = byId(now);
  return target.map((e) => asDrawn(kind, e, known.get(e.id)));
}

/** VLANs are the same by number; a new one whose id is taken by another number gets an id of its own. */
function vlansAsDrawn(target: readonly Vlan[], now: readonly Vlan[]): Vlan[] {
  const numbers = new Map(now.map((v) => [v.number, v]));
  const taken = new Set(now.map((v) => v.id));
  return target.map(
    (v) => numbers.get(v.number) ?? (taken.has(v.id) ? { ...v, id: freeId(`vlan-${v.number}`, taken) } : v),
  );
}

function freeId(wanted: string, taken: ReadonlySet<string>): string {
  let id = wanted;
  for (let n = 2; taken.has(id); n++) id = `${wanted}-${n}`;
  return id;
}

const sameRegion = (a: Region, b: Region): boolean => JSON.stringify(content(a)) === JSON.stringify(content(b));
const content = ({ name, revision, map, maxHops }: Region) => [name, revision, Object.entries(map).sort(), maxHops];

/** The regions of both designs side by side, and where each region of the target is found among them. */
function regionsOf(from: Design, to: Design): { regions: Region[]; place: Map<string, string> } {
  const regions = [...from.regions];
  const place = new Map<string, string>();
  for (const region of to.regions) {
    const now = regions.find((r) => r.id === region.id);
    const id = now === undefined || sameRegion(now, region) ? region.id : freeId(`${region.id}-next`, idsOf(regions));
    if (!regions.some((r) => r.id === id)) regions.push({ ...region, id });
    place.set(region.id, id);
  }
  return { regions, place };
}
const idsOf = (list: readonly { readonly id: string }[]) => new Set(list.map((e) => e.id));

/** A setting that a design has for all and a switch for itself: kept as it is written where it stays the same. */
function ownSetting<T>(now: T | undefined, own: T | undefined, wanted: T, common: T): T | undefined {
  if (now === wanted) return own;
  return wanted === common ? undefined : wanted;
}

/** A switch of the target with its own mode, cost scales and region. */
function switchInFrame(s: Switch, from: Design, to: Design, start: Design, place: ReadonlyMap<string, string>): Switch {
  const now = switchById(from, s.id);
  const next: Switch = { ...asDrawn('switch', s, now) };
  const set = <K extends keyof Switch>(key: K, value: Switch[K] | undefined) => {
    if (value === undefined) delete next[key];
    else next[key] = value;
  };
  const wide = <T>(key: 'protocol' | 'costScale' | 'bundleCost', of: (d: Design, s: Switch) => T, common: T) =>
    set(key, ownSetting(now && of(from, now), now?.[key] as T, of(to, s), common) as never);
  wide('protocol', modeOf, from.mode);
  wide('costScale', (d, at) => at.costScale ?? d.costScale, from.costScale);
  wide('bundleCost', (d, at) => at.bundleCost ?? d.bundleCost, from.bundleCost);
  set('region', regionInFrame(s, to, start, place));
  return next;
}

/** The region that a switch of the target is to be in: where it runs none, the one that it is in anyway. */
function regionInFrame(s: Switch, to: Design, start: Design, place: ReadonlyMap<string, string>): string | undefined {
  const began = switchById(start, s.id);
  const wanted = regionOf(to, s);
  if (modeOf(to, s) !== 'mstp' && s.region === undefined) return began?.region;
  const id = wanted ? place.get(wanted.id) : start.regions.length > 0 ? NO_REGION + s.id : undefined;
  return id === (began && regionOf(start, began)?.id) ? began?.region : id;
}
const NO_REGION = 'region-of-';

/** Switches of a design without regions: each names its region after itself (802.1Q-2018 13.8). */
function loneRegions({ regions, switches }: Design, known: readonly Region[]): Region[] {
  if (known.length === 0 || regions.length > 0) return [];
  return switches.map((s) => ({ id: NO_REGION + s.id, name: s.mac, revision: 0, map: {} }));
}

/** The switches of the design as it is, each in a region of its own where the target brings the first ones. */
const switchesAtStart = ({ regions, switches }: Design, inFrame: readonly Region[]): Switch[] =>
  regions.length > 0 || inFrame.length === 0
    ? [...switches]
    : switches.map((s) => (s.region === undefined ? { ...s, region: NO_REGION + s.id } : s));

/** Ports that one of two designs draws and the other does not, on switches that both have; their place must not be another's. */
function portsOnlyIn(one: Design, other: Design): Design['ports'] {
  const known = byId(other.ports);
  const places = ({ switch: at, number, name }: { switch: string; number: number; name: string }) => [
    `${at} ${number}`,
    `${at} ${name}`,
  ];
  const taken = new Set([...other.ports, ...other.bundles].flatMap(places));
  return one.ports.filter(
    (p) =>
      !known.has(p.id) && switchById(other, p.switch) !== undefined && !places(p).some((place) => taken.has(place)),
  );
}

/** Lists that no device knows of. */
const UNDRAWN = [
  'scripts',
  'goals',
  'demands',
  'risks',
  'accepted',
  'workplaces',
  'readings',
  'notes',
  'cableCosts',
] as const;

export function frameOf(from: Design, to: Design): Frame {
  const { regions: both, place } = regionsOf(from, to);
  const lone = byId([...loneRegions(from, both), ...loneRegions(to, both)]);
  const regions = [...both, ...lone.values()];
  // A port is there whether it is drawn or not: only what is plugged into it is work.
  const start: Design = {
    ...from,
    ...emptyLists(UNDRAWN),
    regions,
    switches: switchesAtStart(from, both),
    ports: [...from.ports, ...portsOnlyIn(to, from)],
  };
  const goal: Design = {
    ...start,
    vlans: vlansAsDrawn(to.vlans, from.vlans),
    switches: to.switches.map((s) => switchInFrame(s, from, to, start, place)),
    ports: [...listAsDrawn('port', to.ports, start.ports), ...portsOnlyIn(from, to)],
    links: to.links,
    segments: listAsDrawn('segment', to.segments, from.segments),
    bundles: listAsDrawn('bundle', to.bundles, from.bundles),
    hosts: listAsDrawn('host', to.hosts, from.hosts),
    pairs: to.pairs,
  };
  return { start, goal };
}

/** What the start of a frame has ready and its design has not: regions, ports that the target draws, and whose region is whose. */
export function readyEdits({ regions, ports, switches }: Design, start: Design): Edit[] {
  const [hasRegion, hasPort, own] = [byId(regions), byId(ports), byId(switches)];
  return [
    ...start.regions.flatMap((r) => (hasRegion.has(r.id) ? [] : [addElement('region', r)])),
    ...start.switches.flatMap((s) =>
      own.get(s.id)?.region === s.region ? [] : [setField('switch', s.id, 'region', s.region)],
    ),
    ...start.ports.flatMap((p) => (hasPort.has(p.id) ? [] : [addElement('port', p)])),
  ];
}
