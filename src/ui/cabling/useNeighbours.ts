'use client';
import { useCallback, useMemo, useState } from 'react';
import { z } from 'zod';
import { acceptFinding, checkNeighbours } from '../../core/editing';
import type { Finding, Reception } from '../../core/editing';
import type { Design, Edit } from '../../core/design';
import { applyEdits } from '../../core/design';
import type { Marks } from '../chart/cabling-scene';
import { readStored, writeStored } from '../session/browser-store';
import { newId } from '../session/new-id';

export interface NeighbourCheck {
  readonly receptions: readonly Reception[] | null;
  readonly findings: readonly Finding[] | null;
  readonly take: (receptions: readonly Reception[]) => void;
  readonly forget: () => void;
  /** Edits that make the drawing as these were heard. */
  readonly accept: (findings: readonly Finding[]) => readonly Edit[];
}

const key = (variantId: string) => `knot-path.neighbours.${variantId}`;

const hearingsSchema = z.array(
  z.looseObject({ from: z.string(), fromPort: z.string(), to: z.string(), toPort: z.string() }),
);

/** What an earlier page kept; null when there is nothing that can be read. */
const keptHearings = (variantId: string): Reception[] | null =>
  readStored('session', key(variantId), (text) => {
    const value: unknown = JSON.parse(text);
    return hearingsSchema.safeParse(value).success ? (value as Reception[]) : null;
  });

/** What the window was last told of neighbours, kept over a reload, against the design as it is. */
export function useNeighbours(design: Design, variantId: string): NeighbourCheck {
  const [receptions, setHearings] = useState<readonly Reception[] | null>(() => {
    if (typeof window === 'undefined') return null;
    return keptHearings(variantId);
  });
  const findings = useMemo(() => (receptions ? checkNeighbours(design, receptions) : null), [design, receptions]);
  const keep = useCallback(
    (next: readonly Reception[] | null) => {
      setHearings(next);
      writeStored('session', key(variantId), next && JSON.stringify(next));
    },
    [variantId],
  );
  const take = useCallback(
    (more: readonly Reception[]) => {
      // A switch that tells again is believed again.
      const telling = new Set(more.map((h) => h.from));
      keep([...(receptions ?? []).filter((h) => !telling.has(h.from)), ...more]);
    },
    [keep, receptions],
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
  return { receptions, findings, take, forget: () => keep(null), accept };
}

const WORD: Record<Finding['verdict'], string> = {
  'as drawn': '',
  missing: 'not received',
  'other port': 'other port',
  unexpected: 'not drawn',
};

/** What a check found, for the drawing: words on cables, and the cables that are heard but not drawn. */
export function marksOf(design: Design, findings: readonly Finding[]): Marks {
  const open = findings.filter((f) => f.verdict !== 'as drawn');
  const id = (name: string) => design.switches.find((s) => s.name === name)?.id;
  return {
    links: new Map(open.flatMap((f) => (f.link === null ? [] : [[f.link, WORD[f.verdict]] as const]))),
    ghosts: open.flatMap((f) => {
      const [a, b] = [id(f.a.name), id(f.b.name)];
      return f.verdict === 'unexpected' && a && b && a !== b ? [{ key: f.key, a, b, label: WORD[f.verdict] }] : [];
    }),
  };
}
