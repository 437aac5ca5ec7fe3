'use client';
/** What charts of trees have in common about the things on them: how they are called, and what a click selects. */
import { useCallback } from 'react';
import { bundleById, switchById } from '../../core/design';
import type { Design } from '../../core/design';
import { portWords } from '../../core/trace';
import { useBench } from '../session/context';
import type { Ref } from '../session/view';

/** Name of a switch, or switch and name of a port or bundle. */
export const refName = (design: Design, { kind, id }: Ref): string =>
  kind === 'switch' ? (switchById(design, id)?.name ?? id) : portWords(design, id);

/** A click on the port of a bundle selects the bundle. */
export function useSelecting(design: Design): (ref: Ref | null, add: boolean) => void {
  const { select } = useBench();
  return useCallback(
    (ref, add) =>
      select(ref?.kind === 'port' && bundleById(design, ref.id) ? { kind: 'bundle', id: ref.id } : ref, add),
    [select, design],
  );
}
