/** Edits that take an element out together with everything that cannot stand without it. */
import type { Edit } from './edits';
import { setField } from './edits';
import { bundleAt, bundlesOf, linkAt, portsOf, segmentAt } from './look-ups';
import type { Design, Link } from './schema';

const remove = (kind: Extract<Edit, { type: 'remove' }>['kind'], id: string): Edit => ({ type: 'remove', kind, id });

/** A switch with its ports, its bundles and the links that end on it. */
export function removeSwitch(design: Design, id: string): Edit[] {
  const ports = portsOf(design, id);
  const links = new Set<Link>();
  const segments = new Map<string, readonly string[]>();
  for (const port of ports) {
    const link = linkAt(design, port.id);
    if (link) links.add(link);
    const segment = segmentAt(design, port.id);
    if (segment)
      segments.set(
        segment.id,
        (segments.get(segment.id) ?? segment.ports).filter((p) => p !== port.id),
      );
  }
  return [
    ...[...links].map((link) => remove('link', link.id)),
    ...[...segments].map(([segment, left]) => setField('segment', segment, 'ports', left)),
    ...bundlesOf(design, id).map((bundle) => remove('bundle', bundle.id)),
    ...ports.map((port) => remove('port', port.id)),
    remove('switch', id),
  ];
}

/** A link; its ports stay, free for another cable, and stay members of their bundles. */
export function removeLink(id: string): Edit[] {
  return [remove('link', id)];
}

/** A port with its cable and its membership. */
export function removePort(design: Design, id: string): Edit[] {
  const link = linkAt(design, id);
  const segment = segmentAt(design, id);
  const bundle = bundleAt(design, id);
  return [
    ...(link ? [remove('link', link.id)] : []),
    ...(segment
      ? [
          setField(
            'segment',
            segment.id,
            'ports',
            segment.ports.filter((p) => p !== id),
          ),
        ]
      : []),
    ...(bundle
      ? [
          setField(
            'bundle',
            bundle.id,
            'members',
            bundle.members.filter((p) => p !== id),
          ),
        ]
      : []),
    remove('port', id),
  ];
}
