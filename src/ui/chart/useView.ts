'use client';
/** The view of a chart: pan and zoom, fitting, the ruler that follows, and the handle for those who draw with it. */
import { zoomIdentity } from 'd3-zoom';
import type { ZoomTransform } from 'd3-zoom';
import { useCallback, useEffect, useImperativeHandle, useLayoutEffect, useRef, useState } from 'react';
import type { Ref } from 'react';
import { FIT_EVENT } from '../session/commands';
import { Drawing } from './drawing';
import { sceneBox } from './finding';
import type { ChartHandle } from './hands';
import type { Scene } from './scene-items';
import { STILL } from './still';
import type { StillSize } from './still';
import { useDetail } from './useDetail';
import { firstFit, useZoom } from './useZoom';

export const RULER_WIDTH = 84;

const leftRoom = ({ ruler }: Scene): number => (ruler.length > 0 ? RULER_WIDTH : 16);

/** A drawing that changed but still fits is left at its scale while that is within this share of the best. */
const REFIT = 0.18;

/** The parts of the chart that are moved outside of React. */
function useParts() {
  const svg = useRef<SVGSVGElement>(null);
  const viewport = useRef<SVGGElement>(null);
  const ruler = useRef<SVGGElement>(null);
  const overlay = useRef<SVGGElement>(null);
  const pegs = useRef<SVGGElement>(null);
  return { svg, viewport, ruler, overlay, pegs };
}

export type Parts = ReturnType<typeof useParts>;

/** `stillSize`: of the chart in the usual window, for a drawing by the server. */
export function useView(scene: Scene, fitKey: string, stillSize: StillSize) {
  const parts = useParts();
  const { svg, viewport, ruler, pegs } = parts;
  const [drawing] = useState(() => new Drawing());
  const latest = useRef(scene);
  const size = useRef({ width: 800, height: 600 });
  const transform = useRef<ZoomTransform | null>(null);
  const taken = useRef(false);
  const watchers = useRef(new Set<(t: ZoomTransform) => void>());
  const still = STILL ? { ...stillSize, at: firstFit(stillSize, sceneBox(scene), leftRoom(scene)) } : null;
  const { detail, names, secondLines, scale, follow } = useDetail({ svg, pegs, size, latest }, scene, still);
  const placeRuler = useCallback(() => {
    const t = transform.current;
    if (!t || !ruler.current) return;
    for (const mark of ruler.current.children)
      mark.setAttribute('transform', `translate(0 ${t.applyY(Number(mark.getAttribute('data-y')))})`);
  }, [ruler]);
  const onMove = useCallback(
    (t: ZoomTransform) => {
      const zoomed = transform.current !== null && transform.current.k !== t.k;
      transform.current = t;
      viewport.current?.setAttribute('transform', t.toString());
      placeRuler();
      for (const watch of watchers.current) watch(t);
      follow(t, zoomed);
    },
    [viewport, placeRuler, follow],
  );
  const { fit, scaleBy, moved, setSize, flyTo } = useZoom({ svg, onMove, taken });
  const fitNow = useCallback(
    (tolerance = 0) => fit(sceneBox(latest.current), leftRoom(latest.current), tolerance),
    [fit],
  );
  const drawn = useRef<{ scene: Scene; fitKey: string } | null>(null);
  useLayoutEffect(() => {
    const before = drawn.current;
    latest.current = scene;
    drawn.current = { scene, fitKey };
    if (!before || before.fitKey !== fitKey) fitNow();
    else if (!moved.current) fitNow(REFIT);
    placeRuler();
    drawing.show(scene, before !== null && before.scene !== scene);
  }, [scene, fitKey, fitNow, moved, placeRuler, drawing, detail]);
  useEffect(() => () => drawing.stop(), [drawing]);
  useFitting(parts, fitNow, (width, height) => {
    size.current = { width, height };
    setSize(width, height);
    if (!moved.current) fitNow();
  });
  return { parts, drawing, transform, still, taken, detail, names, secondLines, scale, scaleBy, flyTo, watchers, size };
}

export type ChartView = ReturnType<typeof useView>;

/** Fits when it is asked for, and tells of each size that the chart gets. */
function useFitting({ svg }: Parts, fitNow: () => void, onSize: (width: number, height: number) => void): void {
  const sized = useRef(onSize);
  useEffect(() => void (sized.current = onSize));
  useEffect(() => {
    const fitFully = () => fitNow();
    window.addEventListener(FIT_EVENT, fitFully);
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      sized.current(width, height);
    });
    if (svg.current) observer.observe(svg.current);
    return () => {
      window.removeEventListener(FIT_EVENT, fitFully);
      observer.disconnect();
    };
  }, [svg, fitNow]);
}

/** The handle for those who draw with the chart. */
export function useChartHandle(handle: Ref<ChartHandle> | undefined, { parts, drawing, transform }: ChartView): void {
  const { svg, overlay } = parts;
  useImperativeHandle(handle, (): ChartHandle => {
    const t = () => transform.current ?? zoomIdentity;
    const frame = () => svg.current!.getBoundingClientRect();
    return {
      svg: svg.current!,
      overlay: overlay.current!,
      toDrawing: (x, y) => {
        const [px, py] = t().invert([x - frame().left, y - frame().top]);
        return { x: px, y: py };
      },
      toWindow: ({ x, y }) => ({ x: t().applyX(x) + frame().left, y: t().applyY(y) + frame().top }),
      preview: (next) => drawing.show(next, false),
    };
  }, [svg, overlay, drawing, transform]);
}
