'use client';
/** How much is drawn: ports and names come and go with the zoom, once it rests. */
import type { ZoomTransform } from 'd3-zoom';
import { startTransition, useCallback, useEffect, useRef, useState } from 'react';
import type { RefObject } from 'react';
import { EVERYWHERE, FEW, detailAt, farScale, namesAt, scaleStep, secondLinesAt } from './detail';
import { sceneBox } from './finding';
import type { Box } from './geometry';
import type { Scene } from './scene-items';
import type { StillSize } from './still';
import { fittingScale } from './useZoom';

/** How long a zoom has to rest before ports come or go: coming and going on the way would hold it up. */
const ZOOM_REST_MS = 180;

/** What the panels beside and above a chart take of the window, about. */
const BESIDE = { width: 480, height: 130 };

/** Guessed from the window before the first drawing, so that a large design is not drawn in full only to be thinned out. */
const firstDetail = (scene: Scene): Box | null =>
  fittingScale(sceneBox(scene), window.innerWidth - BESIDE.width, window.innerHeight - BESIDE.height) < farScale(scene)
    ? null
    : EVERYWHERE;

export interface DetailRefs {
  readonly svg: RefObject<SVGSVGElement | null>;
  readonly pegs: RefObject<SVGGElement | null>;
  readonly size: RefObject<{ readonly width: number; readonly height: number }>;
  /** The scene that is drawn. */
  readonly latest: RefObject<Scene>;
}

/** How a drawing by the server is shown for good. */
export interface StillView extends StillSize {
  readonly at: ZoomTransform;
}

export function useDetail({ svg, pegs, size, latest }: DetailRefs, scene: Scene, view: StillView | null) {
  const still = view?.at;
  const [detail, setDetail] = useState<Box | null>(() =>
    view ? detailAt(view.at, view, scene, null) : firstDetail(scene),
  );
  const [names, setNames] = useState(!still || namesAt(still.k, scene));
  const [secondLines, setSecondLines] = useState(!still || secondLinesAt(still.k));
  const [scale, setScale] = useState(still ? scaleStep(still.k) : 1);
  const follower = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(follower.current), []);
  /** Brings ports and names in line with a transform; `zoomed` when its scale has changed. */
  const follow = useCallback(
    (t: ZoomTransform, zoomed: boolean) => {
      // Ports too small to tell apart go at once, by one attribute; React takes them out when the zoom rests.
      if (pegs.current) pegs.current.style.display = t.k < farScale(latest.current) ? 'none' : '';
      if (zoomed && latest.current.pegs.length > FEW) svg.current?.setAttribute('data-zooming', '');
      // What comes into sight may follow a little later; the move itself must not wait for it.
      const settle = () => {
        svg.current?.removeAttribute('data-zooming');
        startTransition(() => {
          setDetail((was) => detailAt(t, size.current, latest.current, was));
          setNames(namesAt(t.k, latest.current));
          setSecondLines(secondLinesAt(t.k));
          setScale(scaleStep(t.k));
        });
      };
      clearTimeout(follower.current);
      if (zoomed) follower.current = setTimeout(settle, ZOOM_REST_MS);
      else settle();
    },
    [svg, pegs, size, latest],
  );
  return { detail, names, secondLines, scale, follow };
}
