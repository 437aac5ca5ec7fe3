'use client';
import { useMemo } from 'react';
import { hostById } from '../../core/design';
import { findPath } from '../../core/analysis';
import type { PathAnswer, Place } from '../../core/analysis';
import type { Ref } from '../session/view';
import { useBench, useSession, useTree } from '../session/context';

export type PlaceRef = Ref & { readonly kind: 'switch' | 'host' };

export interface ShownPath {
  readonly places: readonly [PlaceRef, PlaceRef];
  readonly answer: PathAnswer | null;
}

/** Whether a way between them can be asked for: exactly two switches or hosts. */
export const arePlaces = (selection: readonly Ref[]): boolean => selection.length === 2 && selection.every(isPlace);

const isPlace = (ref: Ref): ref is PlaceRef => ref.kind === 'switch' || ref.kind === 'host';
const placeOf = (ref: PlaceRef): Place => (ref.kind === 'switch' ? { switch: ref.id } : { host: ref.id });

/** The path between the two selected places in the tree in view; null where none was asked for. */
export function usePath(): ShownPath | null {
  const { view } = useBench();
  const solved = useSession((s) => s.solved);
  const of = useTree();
  return useMemo(() => {
    const [from, to] = view.selection;
    if (!view.path || view.selection.length !== 2 || !from || !to || !isPlace(from) || !isPlace(to)) return null;
    const { design } = solved.topology;
    const vlan = [from, to]
      .map((r) => (r.kind === 'host' ? hostById(design, r.id)?.vlan : undefined))
      .find((v) => v !== undefined);
    return { places: [from, to], answer: of ? findPath(solved, of, placeOf(from), placeOf(to), vlan ?? null) : null };
  }, [view.path, view.selection, solved, of]);
}
