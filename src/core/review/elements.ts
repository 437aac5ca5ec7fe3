/** What can fail: cables, members of bundles, whole bundles, shared segments, switches, and risk groups that fail together. */
import { bundleAt, bundleById, hostById, linkAt, linkById, linksOfHost, portById, switchById } from '../design';
import type { Bundle, Design, Link, LinkEnd } from '../design';
import { verdictOf } from '../network';

/** An element by its ids: the links that go dark with it, the segments, and the switches that go off. */
export interface Element {
  readonly kind: 'link' | 'member' | 'bundle' | 'segment' | 'switch' | 'group';
  /** Of the link, bundle, segment, switch or risk group. */
  readonly id: string;
  readonly links: readonly string[];
  readonly segments: readonly string[];
  readonly switches: readonly string[];
}

/** One end of a cable, by names. */
export type EndName =
  | { readonly switch: string; readonly port: string }
  | { readonly switch: string; readonly bundle: string }
  | { readonly host: string; readonly port?: string };

/** An element by names, as reports and programs read it. */
export type ElementName =
  | { readonly kind: 'link' | 'member' | 'bundle'; readonly a: EndName; readonly b: EndName | null }
  | { readonly kind: 'switch' | 'group' | 'segment'; readonly name: string };

const plain = (kind: Element['kind'], id: string, more: Partial<Element>): Element => ({
  kind,
  id,
  links: [],
  segments: [],
  switches: [],
  ...more,
});

/** Ports at the ends of a link; none of one that is gone. */
export const portsOfLink = (link: Link | undefined): string[] =>
  link ? [link.a, link.b].flatMap((e) => ('port' in e ? [e.port] : [])) : [];

/** Whether a link carries anything today: not dark, with both its ports and switches on. */
function works(design: Design, link: Link): boolean {
  if (link.down) return false;
  return portsOfLink(link).every((id) => {
    const port = portById(design, id);
    return port !== undefined && !port.down && !switchById(design, port.switch)?.off;
  });
}

/** Whether a cable is a member of a bundle at one end at least. */
const isMember = (design: Design, link: Link): boolean => portsOfLink(link).some((id) => bundleAt(design, id));

/** Links that the members of a bundle are in. */
const linksOf = (design: Design, { members }: Bundle): Link[] => members.flatMap((m) => linkAt(design, m) ?? []);

/** Bundles once each, by the end that comes first; both ends of a pair have one bundle each, and fail one by one. */
function bundlesOnce(design: Design): Bundle[] {
  const done = new Set<string>();
  return design.bundles.filter((b) => {
    const partner = verdictOf(design, b.id)?.partner;
    if (done.has(b.id)) return false;
    if (partner?.kind === 'bundle') done.add(partner.id);
    return true;
  });
}

/** Everything that works today and can fail alone, in the order of the design: links and members, bundles, segments, switches, groups. */
export function elementsOf(design: Design): Element[] {
  const links = design.links.filter((l) => works(design, l));
  const up = new Set(links.map((l) => l.id));
  return [
    ...links.map((l) => plain(isMember(design, l) ? 'member' : 'link', l.id, { links: [l.id] })),
    ...bundlesOnce(design).flatMap((b) => {
      const own = linksOf(design, b).flatMap((l) => (up.has(l.id) ? [l.id] : []));
      return own.length > 0 ? [plain('bundle', b.id, { links: own })] : [];
    }),
    ...design.segments.flatMap((s) =>
      s.down || s.ports.length < 2 ? [] : [plain('segment', s.id, { segments: [s.id] })],
    ),
    ...design.switches.flatMap((s) => (s.off ? [] : [plain('switch', s.id, { switches: [s.id] })])),
    ...design.risks.map((r) => plain('group', r.id, { links: r.links, switches: r.switches })),
  ];
}

/** The design with some elements failed. What a group names and is gone is passed over. */
export function withFailed(design: Design, failed: readonly Element[]): Design {
  const links = new Set(failed.flatMap((e) => e.links));
  const segments = new Set(failed.flatMap((e) => e.segments));
  const switches = new Set(failed.flatMap((e) => e.switches));
  return {
    ...design,
    ...(links.size > 0 ? { links: design.links.map((l) => (links.has(l.id) ? { ...l, down: true } : l)) } : {}),
    ...(segments.size > 0
      ? { segments: design.segments.map((s) => (segments.has(s.id) ? { ...s, down: true } : s)) }
      : {}),
    ...(switches.size > 0
      ? { switches: design.switches.map((s) => (switches.has(s.id) ? { ...s, off: true } : s)) }
      : {}),
  };
}

function endName(design: Design, link: Link, end: LinkEnd): EndName {
  if ('port' in end) {
    const port = portById(design, end.port);
    return { switch: switchById(design, port?.switch ?? '')?.name ?? '', port: port?.name ?? end.port };
  }
  // Cards without a name are counted.
  const place = 1 + linksOfHost(design, end.host).findIndex((l) => l.id === link.id);
  return { host: hostById(design, end.host)?.name ?? end.host, port: end.card ?? String(place) };
}

/** The ends of a link by names, a host last. */
export function linkEnds(design: Design, link: Link): readonly [EndName, EndName] {
  const [a, b] = 'host' in link.a ? [link.b, link.a] : [link.a, link.b];
  return [endName(design, link, a), endName(design, link, b)];
}

function bundleEnds(design: Design, id: string): { a: EndName; b: EndName | null } {
  const bundle = bundleById(design, id)!;
  const of = (b: Bundle) => ({ switch: switchById(design, b.switch)?.name ?? '', bundle: b.name });
  const partner = verdictOf(design, id)?.partner;
  const far = partner?.kind === 'bundle' ? bundleById(design, partner.id) : undefined;
  const host = partner?.kind === 'host' ? hostById(design, partner.id) : undefined;
  return { a: of(bundle), b: far ? of(far) : host ? { host: host.name } : null };
}

/** An element as it is called. */
export function elementName(design: Design, { kind, id }: Element): ElementName {
  switch (kind) {
    case 'link':
    case 'member': {
      const [a, b] = linkEnds(design, linkById(design, id)!);
      return { kind, a, b };
    }
    case 'bundle':
      return { kind, ...bundleEnds(design, id) };
    case 'segment':
      return { kind, name: design.segments.find((s) => s.id === id)!.name };
    case 'switch':
      return { kind, name: switchById(design, id)!.name };
    case 'group':
      return { kind, name: design.risks.find((r) => r.id === id)!.name };
  }
}

const endWords = (end: EndName | null): string => {
  if (end === null) return 'nothing';
  if ('bundle' in end) return `${end.switch} ${end.bundle}`;
  return 'switch' in end ? `${end.switch} ${end.port}` : end.host;
};

/** What fails, in words: of a pair both. */
export const failingWords = (design: Design, elements: readonly Element[]): string =>
  elements.map((e) => elementWords(elementName(design, e))).join(' and ');

/** `quay-a 3 – gate 1`, `switch gate`, `risk group east duct`. */
export function elementWords(name: ElementName): string {
  switch (name.kind) {
    case 'link':
      return `link ${endWords(name.a)} – ${endWords(name.b)}`;
    case 'member':
      return `member ${endWords(name.a)} – ${endWords(name.b)}`;
    case 'bundle':
      return `bundle ${endWords(name.a)} – ${endWords(name.b)}`;
    case 'segment':
      return `segment ${name.name}`;
    case 'switch':
      return `switch ${name.name}`;
    case 'group':
      return `risk group ${name.name}`;
  }
}
