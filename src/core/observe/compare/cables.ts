/** Cables as they are plugged in against cables as they are drawn. */
import { endOwner, farEnd, linkAt, portById, segmentAt, switchById } from '../../design';
import type { Design, Link, ObservedEnd, ObservedNetwork, Port } from '../../design';
import type { SolvedDesign } from '../../trees';
import { elementCalled, endWords, switchCalled } from '../draw/names';
import type { Difference } from './difference';

type Known = (end: ObservedEnd) => Port | undefined;

function knownPorts(design: Design, observed: ObservedNetwork): Known {
  const macs = new Map(observed.switches.map((s) => [s.name, s.mac]));
  return (end) => {
    const s = switchCalled(design, end.switch, macs.get(end.switch) ?? null);
    const e = s && elementCalled(design, s, end.port);
    return e && !('members' in e) ? e : undefined;
  };
}

const between = (a: string, b: string): string => `${a} – ${b}`;

function linkWords(design: Design, { a, b }: Link): string {
  const words = [a, b].map((end) => {
    const port = 'port' in end ? portById(design, end.port)?.name : undefined;
    return [endOwner(design, end)?.name ?? '?', port].filter(Boolean).join(' ');
  });
  return between(words[0]!, words[1]!);
}

/** Where a port of the design leads, in words. */
function drawnAt(design: Design, port: Port | undefined): string | null {
  const link = port && linkAt(design, port.id);
  if (link) return linkWords(design, link);
  const segment = port && segmentAt(design, port.id);
  return segment ? segment.name : null;
}

/** Whether an observed link runs as one is drawn; ports on one shared segment hear each other like over a cable. */
function isDrawn(design: Design, p: Port | undefined, q: Port | undefined): Link | true | null {
  if (!p || !q) return null;
  const link = linkAt(design, p.id);
  const far = link && farEnd(link, p.id);
  if (link && far && 'port' in far && far.port === q.id) return link;
  const segment = segmentAt(design, p.id);
  return segment !== undefined && segmentAt(design, q.id) === segment ? true : null;
}

/** Links that are not plugged in as drawn. */
export function compareCables(solved: SolvedDesign, observed: ObservedNetwork): Difference[] {
  const { design } = solved.topology;
  const portOf = knownPorts(design, observed);
  const found: Difference[] = [];
  const explained = new Set<string>();
  const heard = [
    ...observed.links,
    ...observed.segments.flatMap(({ ports }) => ports.slice(1).map((b) => ({ a: ports[0]!, b }))),
  ];
  const open: { words: string; p: Port | undefined; q: Port | undefined }[] = [];
  for (const { a, b } of heard) {
    const [p, q] = [portOf(a), portOf(b)];
    const drawn = isDrawn(design, p, q);
    if (drawn === null) open.push({ words: between(endWords(a), endWords(b)), p, q });
    else if (drawn !== true) explained.add(drawn.id);
  }
  for (const { words, p, q } of open) {
    const link = [p, q].map((e) => e && linkAt(design, e.id)).find((l) => l !== undefined && !explained.has(l.id));
    if (link) explained.add(link.id);
    const designed = drawnAt(design, p) ?? drawnAt(design, q);
    found.push({
      device: words,
      field: 'link',
      designed: link ? linkWords(design, link) : designed,
      observed: words,
      verdict: link ? 'differs' : 'unexpected',
      switch: p?.switch ?? q?.switch ?? null,
      element: link?.id ?? null,
      kind: 'link',
    });
  }
  return [...found, ...missingLinks(solved, observed, explained)];
}

/** Drawn links of which a switch that tells of its neighbours hears nothing. */
function missingLinks(
  { topology: { design, shut, portIndex } }: SolvedDesign,
  observed: ObservedNetwork,
  explained: ReadonlySet<string>,
): Difference[] {
  const telling = new Set(
    observed.switches.flatMap((o) => (o.hears ? (switchCalled(design, o.name, o.mac)?.id ?? []) : [])),
  );
  return design.links.flatMap((link): Difference[] => {
    if (explained.has(link.id) || link.down || !('port' in link.a) || !('port' in link.b)) return [];
    const ends = [portById(design, link.a.port)!, portById(design, link.b.port)!];
    // Nor does anybody hear anything over a port that a guard of the design shuts.
    const dark = ends.some((p) => p.down || switchById(design, p.switch)?.off || shut?.has(portIndex.get(p.id)!));
    if (dark || !ends.some((p) => telling.has(p.switch))) return [];
    const words = linkWords(design, link);
    return [
      {
        device: words,
        field: 'link',
        designed: words,
        observed: null,
        verdict: 'missing',
        switch: ends[0]!.switch,
        element: link.id,
        kind: 'link',
      },
    ];
  });
}
