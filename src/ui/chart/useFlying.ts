'use client';
/** Brings what was selected elsewhere, by search or in a table, into sight. */
import { useEffect, useRef } from 'react';
import type { Ref } from '../session/view';
import { farScale } from './detail';
import type { Point } from './geometry';
import type { Scene } from './scene-items';
import type { ChartView } from './useView';

/** Where a thing is drawn; undefined where it is not. */
function placeOf(scene: Scene, { kind, id }: Ref): Point | undefined {
  if (kind === 'switch') return scene.plates.find((p) => p.id === id || p.fold?.switches.includes(id));
  if (kind === 'port') return scene.pegs.find((p) => p.id === id || p.also?.includes(id));
  if (kind === 'host' || kind === 'segment') return scene.spots.find((s) => s.id === id);
  if (kind === 'note') return scene.notes.find((n) => n.id === id);
  const wire = scene.wires.find((w) => w.id === id || w.portA === id || w.portB === id);
  return wire && { x: (wire.a.x + wire.b.x) / 2, y: (wire.a.y + wire.b.y) / 2 };
}

const EDGE = 24;

export function useFlying({ transform, size, flyTo }: ChartView, scene: Scene, selection: readonly Ref[]): void {
  const seen = useRef<readonly Ref[] | null>(null);
  useEffect(() => {
    const before = seen.current;
    seen.current = selection;
    // What the page opened with is fitted whole.
    if (before === null || before === selection) return;
    const [ref] = selection;
    const t = transform.current;
    if (!ref || !t || selection.length !== 1) return;
    const point = placeOf(scene, ref);
    if (!point) return;
    const [x, y] = [t.applyX(point.x), t.applyY(point.y)];
    const { width, height } = size.current;
    const inSight = x > EDGE && y > EDGE && x < width - EDGE && y < height - EDGE;
    if (!inSight) flyTo(point, Math.max(t.k, farScale(scene)));
  }, [selection, scene, transform, size, flyTo]);
}
