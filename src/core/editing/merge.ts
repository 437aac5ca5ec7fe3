/** Another design merged into one by names: what is called the same is the same thing, and becomes as the other has it. */
import { differenceBetween, portById, switchById } from '../design';
import type { Bundle, Design, Edit, Link, LinkEnd } from '../design';
import type { NewId } from './wiring';

type Kind = 'switch' | 'port' | 'host' | 'segment' | 'vlan' | 'region' | 'bundle' | 'link' | 'pair';
const PREFIX: Record<Kind, string> = {
  switch: 's',
  port: 'p',
  host: 'h',
  segment: 'g',
  vlan: 'v',
  region: 'r',
  bundle: 'b',
  link: 'l',
  pair: 'pair',
};

const nameOf = (design: Design, id: string) => switchById(design, id)?.name ?? id;
const endKey = (design: Design, end: LinkEnd) => {
  if ('host' in end) return `host ${design.hosts.find((h) => h.id === end.host)?.name} ${end.card ?? ''}`;
  const port = portById(design, end.port);
  return port ? `${nameOf(design, port.switch)} ${port.name}` : end.port;
};
const linkKey = (design: Design, { a, b }: Link) => [endKey(design, a), endKey(design, b)].sort().join('\n');
const bundleKey = (design: Design, b: Bundle) => `${nameOf(design, b.switch)} ${b.name}`;

/** By kind, what names each element of a design, and its id. */
function named(design: Design): Record<Kind, Map<string, string>> {
  const by = <T extends { readonly id: string }>(list: readonly T[], key: (item: T) => string) => {
    const seen = new Map<string, number>();
    // Regions may share a name: the first is the first.
    return new Map(
      list.map((item) => {
        const name = key(item);
        const nth = seen.get(name) ?? 0;
        seen.set(name, nth + 1);
        return [`${name} ${nth}`, item.id];
      }),
    );
  };
  return {
    switch: by(design.switches, (s) => s.name),
    port: by(design.ports, (p) => `${nameOf(design, p.switch)} ${p.name}`),
    host: by(design.hosts, (h) => h.name),
    segment: by(design.segments, (s) => s.name),
    vlan: by(design.vlans, (v) => String(v.number)),
    region: by(design.regions, (r) => r.name),
    bundle: by(design.bundles, (b) => bundleKey(design, b)),
    link: by(design.links, (l) => linkKey(design, l)),
    pair: by(design.pairs, (p) =>
      p.switches
        .map((id) => nameOf(design, id))
        .sort()
        .join('\n'),
    ),
  };
}

/** The id here of what has an id there, by kind: that of the thing with the same name, else a new one. */
function renaming(design: Design, other: Design, newId: NewId): (kind: Kind, id: string) => string {
  const [own, theirs] = [named(design), named(other)];
  const ids = new Map<string, string>();
  for (const kind of Object.keys(own) as Kind[])
    for (const [name, id] of theirs[kind]) ids.set(`${kind} ${id}`, own[kind].get(name) ?? newId(PREFIX[kind]));
  return (kind, id) => ids.get(`${kind} ${id}`) ?? id;
}

/** Where things stand on the sheet stays as it is here. */
const placed = <T extends { readonly id: string }>(list: readonly T[], item: T): T => {
  const here = list.find((x) => x.id === item.id) as { x?: number; y?: number } | undefined;
  if (!here) return item;
  const moved = { ...item } as { x?: number; y?: number };
  delete moved.x;
  delete moved.y;
  if (here.x !== undefined) moved.x = here.x;
  if (here.y !== undefined) moved.y = here.y;
  return moved as unknown as T;
};

/** The elements here, those of the other in place of their namesakes, and its further ones. */
function joined<T extends { readonly id: string }>(here: readonly T[], theirs: readonly T[]): T[] {
  const byId = new Map(theirs.map((item) => [item.id, item]));
  const known = new Set(here.map((item) => item.id));
  return [...here.map((item) => byId.get(item.id) ?? item), ...theirs.filter((item) => !known.has(item.id))];
}

/** Lists of elements of the other design under the ids of this one. */
function underOwnIds(design: Design, other: Design, of: (kind: Kind, id: string) => string) {
  const end = (e: LinkEnd): LinkEnd =>
    'port' in e ? { port: of('port', e.port) } : { ...e, host: of('host', e.host) };
  const ports = (ids: readonly string[]) => ids.map((id) => of('port', id));
  return {
    vlans: other.vlans.map((v) => ({ ...v, id: of('vlan', v.id) })),
    regions: other.regions.map((r) => ({ ...r, id: of('region', r.id) })),
    switches: other.switches.map((s) => {
      const region = s.region === undefined ? {} : { region: of('region', s.region) };
      return placed(design.switches, { ...s, id: of('switch', s.id), ...region });
    }),
    ports: other.ports.map((p) => ({ ...p, id: of('port', p.id), switch: of('switch', p.switch) })),
    hosts: other.hosts.map((h) => placed(design.hosts, { ...h, id: of('host', h.id) })),
    links: other.links.map((l) => ({ ...l, id: of('link', l.id), a: end(l.a), b: end(l.b) })),
    segments: other.segments.map((s) =>
      placed(design.segments, { ...s, id: of('segment', s.id), ports: ports(s.ports) }),
    ),
    bundles: other.bundles.map((b) => ({
      ...b,
      id: of('bundle', b.id),
      switch: of('switch', b.switch),
      members: ports(b.members),
    })),
    pairs: other.pairs.map((p) => ({
      ...p,
      id: of('pair', p.id),
      switches: [of('switch', p.switches[0]), of('switch', p.switches[1])] as [string, string],
      peer: p.peer.map((id) => of('link', id)),
      ...(p.keepalive === undefined ? {} : { keepalive: of('link', p.keepalive) }),
    })),
  };
}

/**
 * Edits that merge another design in by names: switches, hosts, segments and regions by name, ports and bundles by switch
 * and name, VLANs by number, links by their ends, pairs by their switches. What both have becomes as the other has it, but
 * for its place on the sheet; nothing is removed. Mode and scale of the design, scripts, goals and traffic stay as they are.
 */
export function mergeByName(design: Design, other: Design, newId: NewId): Edit[] {
  const theirs = underOwnIds(design, other, renaming(design, other, newId));
  const merged: Design = {
    ...design,
    vlans: joined(design.vlans, theirs.vlans),
    regions: joined(design.regions, theirs.regions),
    switches: joined(design.switches, theirs.switches),
    ports: joined(design.ports, theirs.ports),
    hosts: joined(design.hosts, theirs.hosts),
    links: joined(design.links, theirs.links),
    segments: joined(design.segments, theirs.segments),
    bundles: joined(design.bundles, theirs.bundles),
    pairs: joined(design.pairs, theirs.pairs),
  };
  return differenceBetween(design, merged).filter((e) => !isTurned(design, e));
}

/** A cable drawn from its other end is the same cable. */
const isTurned = (design: Design, edit: Edit): boolean =>
  edit.type === 'set' &&
  edit.kind === 'link' &&
  (edit.field === 'a' || edit.field === 'b') &&
  design.links.some((l) => l.id === edit.id);
