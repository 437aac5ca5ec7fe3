'use client';
import { useCallback, useMemo } from 'react';
import { acceptFinding, checkNeighbours } from '../../core/editing';
import type { Finding, Reception } from '../../core/editing';
import type { Design, Edit } from '../../core/design';
import { applyEdits } from '../../core/design';
import { inferredLinks, receptionsOf, withReceptions } from '../../core/observe';
import { count } from '../../core/standard';
import type { Marks } from '../chart/cabling-scene';
import { useKeepReading, useKeptReading } from '../controls/useKeptReading';
import { newId } from '../session/new-id';

export interface NeighbourCheck {
  readonly receptions: readonly Reception[] | null;
  readonly findings: readonly Finding[] | null;
  /** When it was read, in milliseconds since 1970. */
  readonly at: number | null;
  /** Links that no neighbour reports, by their ids: known by LACP or BPDUs alone. */
  readonly inferred: ReadonlySet<string>;
  readonly take: (receptions: readonly Reception[]) => void;
  readonly forget: () => void;
  /** Edits that make the drawing as these were heard. */
  readonly accept: (findings: readonly Finding[]) => readonly Edit[];
}

const NOTHING: ReadonlySet<string> = new Set();

/** What was read of neighbours, kept in the design, against the design as it is. */
export function useNeighbours(design: Design): NeighbourCheck {
  const kept = useKeptReading();
  const keep = useKeepReading();
  const network = kept?.network ?? null;
  const receptions = useMemo(() => {
    const told = network ? receptionsOf(network) : [];
    return told.length > 0 ? told : null;
  }, [network]);
  const inferred = useMemo(() => (network ? inferredLinks(design, network) : NOTHING), [design, network]);
  const findings = useMemo(() => (receptions ? checkNeighbours(design, receptions) : null), [design, receptions]);
  const take = useCallback(
    (more: readonly Reception[]) => {
      const telling = new Set(more.map((r) => r.from)).size;
      const source = { kind: 'lldp', name: 'LLDP neighbours', at: new Date().toISOString() } as const;
      void keep(
        `Read the neighbours of ${count(telling, 'switch', 'switches')}`,
        withReceptions(network, more, source),
      );
    },
    [keep, network],
  );
  const accept = useCallback(
    (list: readonly Finding[]) => {
      // One after another, since re-plugging one cable can change what the next one finds.
      let now = design;
      const edits: Edit[] = [];
      for (const { verdict, a, b } of list) {
        const same = (f: Finding) =>
          f.verdict === verdict && f.a.name === a.name && f.a.port === a.port && f.b.port === b.port;
        const open = checkNeighbours(now, receptions ?? []).find(same);
        if (!open) continue;
        const wanted = acceptFinding(now, open, receptions ?? [], newId);
        const applied = applyEdits(now, wanted);
        if (!applied.ok) continue;
        now = applied.design;
        edits.push(...wanted);
      }
      return edits;
    },
    [design, receptions],
  );
  const forget = useCallback(() => void keep('Clear what was read of the network', null), [keep]);
  return { receptions, findings, at: kept?.at ?? null, inferred, take, forget, accept };
}

const WORD: Record<Finding['verdict'], string> = {
  'as drawn': '',
  missing: 'not received',
  'other port': 'other port',
  unexpected: 'not drawn',
};

/** What a check found, for the drawing: words on cables, and the cables that are heard but not drawn. */
export function marksOf(design: Design, { findings, inferred }: Pick<NeighbourCheck, 'findings' | 'inferred'>): Marks {
  const open = (findings ?? []).filter((f) => f.verdict !== 'as drawn');
  const id = (name: string) => design.switches.find((s) => s.name === name)?.id;
  return {
    links: new Map([
      ...[...inferred].map((link) => [link, 'inferred'] as const),
      ...open.flatMap((f) => (f.link === null ? [] : [[f.link, WORD[f.verdict]] as const])),
    ]),
    ghosts: open.flatMap((f) => {
      const [a, b] = [id(f.a.name), id(f.b.name)];
      return f.verdict === 'unexpected' && a && b && a !== b ? [{ key: f.key, a, b, label: WORD[f.verdict] }] : [];
    }),
  };
}
