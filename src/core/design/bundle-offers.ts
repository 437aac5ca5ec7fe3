/** What can be bundled where the cables that were chosen cannot be: those of them that are alike, or all once they are made so. */
import { bundleLinks } from './bundling';
import { applyEdits, setField } from './edits';
import type { Edit } from './edits';
import { bundleAt, groupBy, linkById, pairOf, portById } from './look-ups';
import type { Design, Link, Port } from './schema';

export interface BundleOffer {
  readonly kind: 'alike' | 'made-alike';
  /** Cables that become members, by id. */
  readonly links: readonly string[];
  readonly edits: readonly Edit[];
}

/** Settings that members have in common; the rate is what the cable and its ends are. */
const SETTINGS = ['duplex', 'vlans', 'native'] as const;

const portsOfLink = (design: Design, { a, b }: Link): readonly Port[] =>
  [a, b].flatMap((end) => ('port' in end ? (portById(design, end.port) ?? []) : []));

/** What must be the same for cables to be members of one bundle; empty for one that is a member already. */
function likeness(design: Design, link: Link): string {
  const ports = portsOfLink(design, link);
  if (ports.some((p) => bundleAt(design, p.id))) return '';
  const hosts = [link.a, link.b].flatMap((end) => ('host' in end ? [`host ${end.host}`] : []));
  // The switches of a pair are one end.
  const of = (p: Port) =>
    [pairOf(design, p.switch)?.id ?? p.switch, p.speed, p.duplex ?? 'full', p.vlans ?? 'all', p.native ?? ''].join(' ');
  return [...ports.map(of), ...hosts].sort().join('\n');
}

/** The most cables that are alike, where they are two at least and not all. */
function alikeOnes(design: Design, links: readonly Link[], newId: (prefix: string) => string): BundleOffer[] {
  const groups = [...groupBy(links, (l) => likeness(design, l))].filter(([key, own]) => key !== '' && own.length > 1);
  const [, largest] = groups.sort((a, b) => b[1].length - a[1].length)[0] ?? [];
  if (!largest || largest.length === links.length) return [];
  const ids = largest.map((l) => l.id);
  const made = bundleLinks(design, ids, newId);
  return made.ok ? [{ kind: 'alike', links: ids, edits: made.edits }] : [];
}

/** All of them, with the settings of the first cable's ends at each end. */
function madeAlike(design: Design, links: readonly Link[], newId: (prefix: string) => string): BundleOffer[] {
  const [first, ...others] = links;
  const models = portsOfLink(design, first!);
  const modelOf = (port: Port) =>
    models.find((m) => m.switch === port.switch) ??
    models.find((m) => pairOf(design, m.switch)?.switches.includes(port.switch));
  const settings = others.flatMap((link) =>
    portsOfLink(design, link).flatMap((port) => {
      const model = modelOf(port);
      return model
        ? SETTINGS.filter((s) => port[s] !== model[s]).map((s) => setField('port', port.id, s, model[s] ?? null))
        : [];
    }),
  );
  if (settings.length === 0) return [];
  const applied = applyEdits(design, settings);
  const made = applied.ok
    ? bundleLinks(
        applied.design,
        links.map((l) => l.id),
        newId,
      )
    : null;
  return made?.ok ? [{ kind: 'made-alike', links: links.map((l) => l.id), edits: [...settings, ...made.edits] }] : [];
}

/** Bundles that can be made of cables which cannot be one as they are; none where they can, or where nothing helps. */
export function bundleOffers(
  design: Design,
  linkIds: readonly string[],
  newId: (prefix: string) => string,
): readonly BundleOffer[] {
  const links = [...new Set(linkIds)].flatMap((id) => linkById(design, id) ?? []);
  if (links.length < 2 || bundleLinks(design, linkIds, newId).ok) return [];
  return [...madeAlike(design, links, newId), ...alikeOnes(design, links, newId)];
}
