'use client';
/** Faults of the review, as marks on a drawing. */
import { useMemo } from 'react';
import { bundleById, linkById, portById } from '../../core/design';
import type { Design } from '../../core/design';
import type { Finding } from '../../core/review';
import { count } from '../../core/standard';
import type { Scene } from '../chart/scene-items';
import { useBench } from '../session/context';

/** Switches that a finding is about. */
function switchesOf(design: Design, { subjects }: Finding): Set<string> {
  const known = (id: string | undefined): string[] => (id === undefined ? [] : [id]);
  const at = (port: string): string[] => known(portById(design, port)?.switch);
  return new Set(
    subjects.flatMap(({ kind, id }): string[] => {
      switch (kind) {
        case 'switch':
          return [id];
        case 'port':
          return at(id);
        case 'bundle':
          return known(bundleById(design, id)?.switch);
        case 'link': {
          const link = linkById(design, id);
          return link ? [link.a, link.b].flatMap((end) => ('port' in end ? at(end.port) : [])) : [];
        }
        default:
          return [];
      }
    }),
  );
}

/** A drawing with a badge at each plate that an open fault is about; a fold counts those of its switches. */
export function useFaultMarks<S extends Scene | null>(scene: S): S {
  const { review } = useBench();
  const { findings, design } = review;
  const faults = useMemo(() => {
    const found = new Map<string, number>();
    if (!design) return found;
    for (const f of findings ?? [])
      if (f.severity === 'fault' && f.accepted === null)
        for (const id of switchesOf(design, f)) found.set(id, (found.get(id) ?? 0) + 1);
    return found;
  }, [findings, design]);
  return useMemo(() => {
    if (!scene || faults.size === 0) return scene;
    const plates = scene.plates.map((p) => {
      const alarms = (p.fold?.switches ?? [p.id]).reduce((sum, id) => sum + (faults.get(id) ?? 0), 0);
      return alarms > 0 ? { ...p, alarms, spoken: `${p.spoken}, ${count(alarms, 'fault')}` } : p;
    });
    return { ...scene, plates };
  }, [scene, faults]);
}
