'use client';
import { select } from 'd3-selection';
import { zoom as d3zoom, zoomIdentity, zoomTransform } from 'd3-zoom';
import type { D3ZoomEvent, ZoomTransform } from 'd3-zoom';
import { useCallback, useEffect, useMemo, useRef } from 'react';
import type { RefObject } from 'react';
import type { Box, Point } from './geometry';

const SCALES: [number, number] = [0.05, 4];
const LARGEST_FIT = 1.15;
const FLIGHT_MS = 320;

/** Scale at which a box just fits. */
export const fittingScale = (box: Box, width: number, height: number): number =>
  Math.min(LARGEST_FIT, width / (box.right - box.left), height / (box.bottom - box.top));

interface Options {
  readonly svg: RefObject<SVGSVGElement | null>;
  /** Called for every move, outside of React. */
  readonly onMove: (transform: ZoomTransform) => void;
  /** Whether the press going on belongs to something else. */
  readonly taken: RefObject<boolean>;
}

/** How a box is first shown in a chart of a size; `left`: room that stays free there. */
export const firstFit = (size: { width: number; height: number }, box: Box, left: number): ZoomTransform =>
  fitting(zoomIdentity, size, box, left, 0) ?? zoomIdentity;

/** Moves so that a box is shown as large as it goes; null where it is in sight already, within the tolerance, or there is no room. */
function fitting(
  now: ZoomTransform,
  size: { width: number; height: number },
  box: Box,
  left: number,
  tolerance: number,
): ZoomTransform | null {
  const [width, height] = [size.width - left - 16, size.height - 32];
  if (width < 50 || height < 50) return null;
  const k = fittingScale(box, width, height);
  const inSight =
    now.applyX(box.left) >= left - 8 &&
    now.applyX(box.right) <= left + width + 16 &&
    now.applyY(box.top) >= 0 &&
    now.applyY(box.bottom) <= height + 32;
  if (inSight && Math.abs(now.k / k - 1) < tolerance) return null;
  const x = left + (width - k * (box.right - box.left)) / 2 - k * box.left;
  const y = 16 + (height - k * (box.bottom - box.top)) / 2 - k * box.top;
  return zoomIdentity.translate(x, y).scale(k);
}

interface Flight {
  readonly svg: RefObject<SVGSVGElement | null>;
  readonly size: RefObject<{ readonly width: number; readonly height: number }>;
  readonly moved: RefObject<boolean>;
  readonly moveTo: (transform: ZoomTransform) => void;
}

/** Brings a point into the middle, in one motion. */
function useFlight({ svg, size, moved, moveTo }: Flight) {
  const flight = useRef(0);
  useEffect(() => () => cancelAnimationFrame(flight.current), []);
  return useCallback(
    (point: Point, k: number) => {
      const element = svg.current;
      if (!element) return;
      const { width, height } = size.current;
      const from = zoomTransform(element);
      const to = zoomIdentity.translate(width / 2 - k * point.x, height / 2 - k * point.y).scale(k);
      cancelAnimationFrame(flight.current);
      moved.current = true;
      if (window.matchMedia('(prefers-reduced-motion: reduce)').matches) return moveTo(to);
      const start = performance.now();
      const step = (now: number) => {
        const t = Math.min(1, Math.max(0, (now - start) / FLIGHT_MS));
        const share = t * t * (3 - 2 * t);
        const mix = (a: number, b: number) => a + (b - a) * share;
        moveTo(zoomIdentity.translate(mix(from.x, to.x), mix(from.y, to.y)).scale(mix(from.k, to.k)));
        if (t < 1) flight.current = requestAnimationFrame(step);
      };
      flight.current = requestAnimationFrame(step);
    },
    [svg, size, moved, moveTo],
  );
}

/** Pan and zoom by wheel, drag, pinch and keys. */
export function useZoom({ svg, onMove, taken }: Options) {
  const behaviour = useMemo(() => d3zoom<SVGSVGElement, unknown>().scaleExtent(SCALES).clickDistance(4), []);
  const moved = useRef(false);
  const size = useRef({ width: 0, height: 0 });
  const mover = useRef(onMove);
  useEffect(() => {
    mover.current = onMove;
  }, [onMove]);

  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    behaviour.on('zoom', (event: D3ZoomEvent<SVGSVGElement, unknown>) => {
      if (event.sourceEvent) moved.current = true;
      mover.current(event.transform);
    });
    behaviour.filter((event: Event) => {
      if (event.type === 'wheel') return true;
      return !taken.current && !(event as MouseEvent).ctrlKey && !(event as MouseEvent).button;
    });
    // What it would ask the element for by itself has the whole drawing laid out once more.
    behaviour.extent(() => [
      [0, 0],
      [size.current.width, size.current.height],
    ]);
    const selection = select(element);
    selection.call(behaviour).on('dblclick.zoom', null);
    return () => void selection.on('.zoom', null);
  }, [svg, behaviour, taken]);

  const moveTo = useCallback(
    (transform: ZoomTransform) => {
      if (svg.current) select(svg.current).call(behaviour.transform.bind(behaviour), transform);
    },
    [svg, behaviour],
  );

  /** Shows a whole box, as large as it goes; within the tolerance the view stays where the box is in sight already. */
  const fit = useCallback(
    (box: Box, left: number, tolerance: number) => {
      const element = svg.current;
      if (!element) return;
      const to = fitting(zoomTransform(element), size.current, box, left, tolerance);
      if (!to) return;
      moved.current = false;
      moveTo(to);
    },
    [svg, moveTo],
  );

  const scaleBy = useCallback(
    (factor: number) => {
      if (svg.current) select(svg.current).call(behaviour.scaleBy.bind(behaviour), factor);
    },
    [svg, behaviour],
  );

  const flyTo = useFlight({ svg, size, moved, moveTo });

  /** Told by an observer: asking the element itself would have the whole drawing laid out once more. */
  const setSize = useCallback((width: number, height: number) => {
    size.current = { width, height };
  }, []);

  /** `moved`: whether the engineer has moved the chart since it was last fitted. */
  return { fit, scaleBy, moved, setSize, flyTo };
}
