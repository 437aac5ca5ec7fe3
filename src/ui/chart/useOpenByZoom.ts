'use client';
/** Zooming into a plate that stands for several switches opens it, and brings what was in it into sight. */
import { useEffect, useRef } from 'react';
import type { ZoomTransform } from 'd3-zoom';
import { boxOfSwitches, foldUnder } from './finding';
import type { Point } from './geometry';
import type { Scene } from './scene-items';
import type { ChartView } from './useView';
import { fittingScale } from './useZoom';

/** From this scale on a fold under the pointer opens. */
const OPENS_AT = 1.5;
const REST_MS = 220;
export function useOpenByZoom(view: ChartView, scene: Scene, onOpen: ((id: string) => void) | undefined): void {
  const {
    parts: { svg },
    watchers,
    transform,
    size,
    flyTo,
  } = view;
  const latest = useRef({ scene, onOpen });
  const opened = useRef<ReadonlySet<string> | null>(null);
  useEffect(() => void (latest.current = { scene, onOpen }));
  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    let pointer: Point | null = null;
    let [scale, timer] = [transform.current?.k ?? 1, 0];
    const onPointer = (event: PointerEvent | WheelEvent) => {
      const box = element.getBoundingClientRect();
      pointer = { x: event.clientX - box.left, y: event.clientY - box.top };
    };
    const look = () => {
      const t = transform.current;
      if (!t || t.k < OPENS_AT || !latest.current.onOpen) return;
      const { x, y } = pointer ?? { x: size.current.width / 2, y: size.current.height / 2 };
      const fold = foldUnder(latest.current.scene, { x: t.invertX(x), y: t.invertY(y) });
      if (!fold) return;
      opened.current = new Set(fold.fold!.switches);
      latest.current.onOpen(fold.id);
    };
    const watch = (t: ZoomTransform) => {
      const closer = t.k > scale + 1e-6;
      scale = t.k;
      window.clearTimeout(timer);
      if (closer && t.k >= OPENS_AT) timer = window.setTimeout(look, REST_MS);
    };
    const all = watchers.current;
    all.add(watch);
    element.addEventListener('pointermove', onPointer);
    element.addEventListener('wheel', onPointer, { passive: true });
    return () => {
      window.clearTimeout(timer);
      all.delete(watch);
      element.removeEventListener('pointermove', onPointer);
      element.removeEventListener('wheel', onPointer);
    };
  }, [svg, watchers, transform, size]);
  useEffect(() => {
    const own = opened.current;
    opened.current = null;
    const box = own && boxOfSwitches(scene, own);
    if (!box) return;
    const { width, height } = size.current;
    flyTo({ x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 }, fittingScale(box, width, height));
  }, [scene, size, flyTo]);
}
