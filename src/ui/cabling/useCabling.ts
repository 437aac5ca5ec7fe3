'use client';
import { useCallback, useMemo, useRef, useState } from 'react';
import { presence } from '../../core/editing';
import type { Chosen } from '../../core/editing';
import type { Design, Switch } from '../../core/design';
import { arrangeAsCabled } from '../chart/arrange';
import type { ChartHandle } from '../chart/hands';
import { layOut, looksOf, placesOf } from '../chart/cabling-scene';
import type { Marks } from '../chart/cabling-scene';
import type { Point } from '../chart/geometry';
import type { Ref } from '../session/view';
import { isThere, useBench, useSession } from '../session/context';
import type { Action } from '../session/actions';
import type { MakingAction } from './actions';
import type { NoteDraft } from '../session/notes';
import type { Tool } from './pointing';

const AREA = { width: 1200, height: 420 };

/** The drawing: where everything is, how it looks, and what of it is marked. */
function useDrawing(design: Design, vlan: number | null) {
  const lens = useMemo(() => (vlan === null ? null : { vlan, presence: presence(design, vlan) }), [design, vlan]);
  const at = useMemo(() => arrangeAsCabled(design, AREA).at, [design]);
  const places = useMemo(() => placesOf(design, at), [design, at]);
  const [marks, setMarks] = useState<Marks | null>(null);
  const looks = useMemo(() => looksOf(design, lens, marks), [design, lens, marks]);
  const scene = useMemo(() => layOut(looks, places), [looks, places]);
  const placeOf = useCallback(
    ({ kind, id }: Chosen): Point | null =>
      (kind === 'switch' ? places.switches : kind === 'host' ? places.hosts : places.segments).get(id) ?? null,
    [places],
  );
  return { lens, places, looks, scene, setMarks, placeOf };
}

/** How the design is changed, and what is selected after. */
function useMaking(design: Design) {
  const { setView, edit } = useBench();
  /** `to`: the design that the edits lead to, where that is known. */
  const run = useCallback(
    ({ label, edits }: Action, to?: Design) =>
      edits.length === 0 ? false : edit(label, edits, to && { from: design, to }),
    [edit, design],
  );
  const selectMany = useCallback((refs: readonly Ref[]) => setView({ selection: refs }), [setView]);
  /** Makes something, and selects it. */
  const make = useCallback(
    (action: MakingAction | null) => {
      if (!action || !run(action)) return false;
      selectMany(action.made);
      return true;
    },
    [run, selectMany],
  );
  return { run, make, selectMany };
}

/** What is being written at the moment: the name of a thing, a note. */
function useWriting() {
  const [naming, setNaming] = useState<Chosen | null>(null);
  const [noting, setNoting] = useState<NoteDraft | null>(null);
  return useMemo(() => ({ naming, setNaming, noting, setNoting }), [naming, noting]);
}

/** What the parts of the cabling stage share. */
export function useCabling() {
  const { view, setView, select } = useBench();
  const design = useSession((s) => s.design);
  const [tool, setTool] = useState<Tool>('select');
  const [speed, setSpeed] = useState(1000);
  const [tier, setTier] = useState<Switch['tier'] | ''>('access');
  const writing = useWriting();
  const chart = useRef<ChartHandle>(null);
  const { lens, places, looks, scene, setMarks, placeOf } = useDrawing(design, view.vlan);
  const { run, make, selectMany } = useMaking(design);
  const selection = useMemo(() => view.selection.filter((ref) => isThere(design, ref)), [view.selection, design]);

  // One value as long as nothing in it changes: commands and effects hang on it.
  return useMemo(
    () => ({
      design,
      selection,
      view,
      setView,
      select,
      selectMany,
      tool,
      setTool,
      speed,
      setSpeed,
      tier,
      setTier,
      ...writing,
      chart,
      setMarks,
      lens,
      places,
      looks,
      scene,
      placeOf,
      run,
      make,
    }),
    [
      design,
      selection,
      view,
      setView,
      select,
      selectMany,
      tool,
      speed,
      tier,
      writing,
      lens,
      places,
      looks,
      scene,
      placeOf,
      setMarks,
      run,
      make,
    ],
  );
}

export type Cabling = ReturnType<typeof useCabling>;
