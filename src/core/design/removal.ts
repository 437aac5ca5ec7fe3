/** Edits that take an element out together with everything that cannot stand without it. */
import type { Edit } from './edits';
import { setField } from './edits';
import { bundleAt, bundlesOf, linkAt, linksOfHost, pairOf, portsOf, segmentAt } from './look-ups';
import type { Design, Kind, Link } from './schema';
import type { SwitchPair } from './bundle-schema';

const remove = (kind: Extract<Edit, { type: 'remove' }>['kind'], id: string): Edit => ({ type: 'remove', kind, id });

/** A pair taken apart: its bundles stay, each with its own switch alone. */
export const dissolvePair = (design: Design, pair: SwitchPair): Edit[] => [
  ...pair.switches.flatMap((s) =>
    bundlesOf(design, s).flatMap((b) => (b.shared === undefined ? [] : [setField('bundle', b.id, 'shared', null)])),
  ),
  remove('pair', pair.id),
];

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
    ...[pairOf(design, id)].flatMap((pair) => (pair ? dissolvePair(design, pair) : [])),
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

/** A host with its cables. */
export function removeHost(design: Design, id: string): Edit[] {
  return [...linksOfHost(design, id).map((link) => remove('link', link.id)), remove('host', id)];
}

/** Something to take out of a design. */
export interface Removable {
  readonly kind: Exclude<Kind, 'region' | 'pair' | 'script'>;
  readonly id: string;
}

function removalOf(design: Design, { kind, id }: Removable): Edit[] {
  switch (kind) {
    case 'switch':
      return removeSwitch(design, id);
    case 'port':
      return removePort(design, id);
    case 'host':
      return removeHost(design, id);
    default:
      return [remove(kind, id)];
  }
}

/** What a note may be about. */
const ABOUT = ['switch', 'host', 'segment', 'link'] as const;

/** Many things at once, each with what cannot stand without it; what two of them take along is taken once. */
export function removeAll(design: Design, things: readonly Removable[]): Edit[] {
  const gone = new Set<string>();
  const removals: Edit[] = [];
  const sets = new Map<string, Extract<Edit, { type: 'set' }>>();
  for (const edit of things.flatMap((thing) => removalOf(design, thing))) {
    if (edit.type === 'remove') {
      const key = `${edit.kind} ${edit.id}`;
      if (!gone.has(key)) removals.push(edit);
      gone.add(key);
    } else if (edit.type === 'set') {
      // Two ports of one segment or bundle each leave a shorter list: what stays is what both leave.
      const key = `${edit.kind} ${edit.id} ${edit.field}`;
      const left = new Set(edit.value as string[]);
      const before = sets.get(key);
      sets.set(key, before ? { ...edit, value: (before.value as string[]).filter((p) => left.has(p)) } : edit);
    }
  }
  // Notes that are about nothing any more go as well.
  for (const { id, about } of design.notes)
    if (
      about.length > 0 &&
      !gone.has(`note ${id}`) &&
      about.every((a) => ABOUT.some((kind) => gone.has(`${kind} ${a}`)))
    )
      removals.push(remove('note', id));
  const shortened = [...sets.values()].filter((s) => !gone.has(`${s.kind} ${s.id}`));
  const order = ['pair', 'link', 'segment', 'bundle', 'port', 'host', 'switch', 'vlan', 'demand', 'goal'];
  const rank = (edit: Edit) => (edit.type === 'remove' ? order.indexOf(edit.kind) : -1);
  return [...shortened, ...removals.sort((a, b) => rank(a) - rank(b))];
}
