/** The other ends of a port, for labels and for panels that show both sides. */
import { farEnd, hostById, linkAt, portById, segmentAt, switchById } from '../../../core/design';
import { peersOf } from '../../../core/network';
import type { SolvedDesign } from '../../../core/trees';

export type FarEnd =
  | { readonly kind: 'port'; readonly index: number }
  | { readonly kind: 'host'; readonly id: string }
  | { readonly kind: 'segment'; readonly id: string }
  | null;

/** What a logical port leads to, up or down. */
export function farOf({ topology }: SolvedDesign, index: number): FarEnd {
  const { element, kind } = topology.ports[index]!;
  const { design } = topology;
  if (kind === 'bundle') {
    const [far] = peersOf(topology, index);
    return far === undefined ? null : { kind: 'port', index: far };
  }
  const segment = segmentAt(design, element.id);
  if (segment) return { kind: 'segment', id: segment.id };
  const link = linkAt(design, element.id);
  if (!link) return null;
  const far = farEnd(link, element.id);
  return 'host' in far ? { kind: 'host', id: far.host } : { kind: 'port', index: topology.portIndex.get(far.port)! };
}

/** `quay-a 3`, a host's or a segment's name, or a dash. */
export function farLabel(solved: SolvedDesign, index: number): string {
  const { topology } = solved;
  const { design } = topology;
  const far = farOf(solved, index);
  if (!far) return '–';
  if (far.kind === 'host') return hostById(design, far.id)?.name ?? '–';
  if (far.kind === 'segment') return design.segments.find((s) => s.id === far.id)?.name ?? '–';
  const { element } = topology.ports[far.index]!;
  return `${switchById(design, element.switch)?.name} ${element.name}`;
}

/** Speed of a logical port in Mb/s: of the link, or of a bundle's members together. */
export const rateOf = ({ topology }: SolvedDesign, index: number): number => topology.ports[index]!.rate;

export const memberPorts = ({ topology }: SolvedDesign, index: number): readonly string[] => {
  const { element } = topology.ports[index]!;
  return 'members' in element ? element.members.map((m) => portById(topology.design, m)?.name ?? m) : [];
};
