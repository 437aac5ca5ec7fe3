/** What the review finds, by the row of a table or the bundle that it is about. */
import type { Design, Link } from '../../core/design';
import type { Finding } from '../../core/review';

export interface RowMark {
  readonly severity: 'fault' | 'risk';
  readonly sentences: readonly string[];
}

/** The keys of rows that a finding is about, `port gate:1`: a cable and its two ports are meant together. */
function keysOf(design: Design, { subjects }: Finding): readonly string[] {
  const meant = new Set(subjects.flatMap((s) => (s.kind === 'port' ? [s.id] : [])));
  const links = new Set(subjects.flatMap((s) => (s.kind === 'link' ? [s.id] : [])));
  const cables = meant.size + links.size === 0 ? [] : design.links.map((l) => ({ id: l.id, ports: portsOf(l) }));
  return [
    ...subjects.map((s) => `${s.kind} ${s.id}`),
    ...cables.flatMap(({ id, ports }) =>
      links.has(id)
        ? ports.map((p) => `port ${p}`)
        : ports.length === 2 && ports.every((p) => meant.has(p))
          ? [`link ${id}`]
          : [],
    ),
  ];
}

const portsOf = ({ a, b }: Link): string[] => [a, b].flatMap((end) => ('port' in end ? [end.port] : []));

/** Open faults and risks by what they are about; the worst first. Remarks are not marked. */
export function rowMarks(design: Design, findings: readonly Finding[]): ReadonlyMap<string, RowMark> {
  const marks = new Map<string, RowMark>();
  for (const severity of ['fault', 'risk'] as const)
    for (const found of findings)
      if (found.severity === severity && found.accepted === null)
        for (const key of keysOf(design, found)) {
          const known = marks.get(key);
          marks.set(key, {
            severity: known?.severity ?? severity,
            sentences: [...(known?.sentences ?? []), found.sentence],
          });
        }
  return marks;
}
