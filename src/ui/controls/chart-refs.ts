'use client';
/** What charts of trees have in common about the things on them: how they are called, and what a click selects. */
import { useCallback } from 'react';
import { bundleById, hostById, linkById, segmentById, switchById } from '../../core/design';
import type { Design } from '../../core/design';
import { portWords } from '../../core/trace';
import { useBench } from '../session/context';
import type { Ref } from '../session/view';

/** Name of a switch, host or segment, switch and name of a port or bundle, both ends of a link. */
export function refName(design: Design, { kind, id }: Ref): string {
  const link = kind === 'link' ? linkById(design, id) : undefined;
  if (link)
    return [link.a, link.b]
      .map((e) => ('port' in e ? portWords(design, e.port) : (hostById(design, e.host)?.name ?? e.host)))
      .join(' – ');
  if (kind === 'switch') return switchById(design, id)?.name ?? id;
  if (kind === 'host') return hostById(design, id)?.name ?? id;
  return kind === 'segment' ? (segmentById(design, id)?.name ?? id) : portWords(design, id);
}

/** A click on the port of a bundle selects the bundle. */
export function useSelecting(design: Design): (ref: Ref | null, add: boolean) => void {
  const { select } = useBench();
  return useCallback(
    (ref, add) =>
      select(ref?.kind === 'port' && bundleById(design, ref.id) ? { kind: 'bundle', id: ref.id } : ref, add),
    [select, design],
  );
}
