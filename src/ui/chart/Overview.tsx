'use client';
import { useEffect, useRef } from 'react';
import type { PointerEvent, RefObject } from 'react';
import type { ZoomTransform } from 'd3-zoom';
import { sceneBox } from './finding';
import { PLATE } from './geometry';
import type { Box } from './geometry';
import type { Scene } from './scene-items';
import type { ChartView } from './useView';
import styles from './Overview.module.css';

/** Padding and rule around it. */
const BORDER = 7;
const SIZE = { width: 150, height: 100 };
/** A drawing that hardly leaves the sheet needs no overview. */
const SLACK = 24;

interface Sight {
  readonly view: ChartView;
  readonly box: Box;
  readonly scale: number;
  readonly frame: RefObject<SVGSVGElement | null>;
  readonly sight: RefObject<SVGRectElement | null>;
}

/** Marks what is in sight, outside of React: it follows every move. */
function useSight({ view: { watchers, transform, size }, box, scale, frame, sight }: Sight): void {
  useEffect(() => {
    const place = (t: ZoomTransform) => {
      const { width, height } = size.current;
      const [left, top, right, bottom] = [t.invertX(0), t.invertY(0), t.invertX(width), t.invertY(height)];
      const slack = SLACK / t.k;
      const isAcross = left <= box.left + slack && right >= box.right - slack;
      const isAll = isAcross && top <= box.top + slack && bottom >= box.bottom - slack;
      frame.current?.toggleAttribute('data-away', !isAll);
      if (isAll || !sight.current) return;
      const clip = (v: number, from: number, to: number) => Math.min(to, Math.max(from, v));
      const [x1, x2] = [clip(left, box.left, box.right), clip(right, box.left, box.right)];
      const [y1, y2] = [clip(top, box.top, box.bottom), clip(bottom, box.top, box.bottom)];
      sight.current.setAttribute('x', String((x1 - box.left) * scale));
      sight.current.setAttribute('y', String((y1 - box.top) * scale));
      sight.current.setAttribute('width', String(Math.max(2, (x2 - x1) * scale)));
      sight.current.setAttribute('height', String(Math.max(2, (y2 - y1) * scale)));
    };
    const { current } = watchers;
    current.add(place);
    if (transform.current) place(transform.current);
    return () => void current.delete(place);
  });
}

/** The whole drawing, small, with the part that is in sight; shown as long as something is out of sight. */
export function Overview({ scene, view }: { scene: Scene; view: ChartView }) {
  const { transform, flyTo } = view;
  const frame = useRef<SVGSVGElement>(null);
  const sight = useRef<SVGRectElement>(null);
  const box = sceneBox(scene);
  const [wide, high] = [box.right - box.left, box.bottom - box.top];
  const scale = Math.min(SIZE.width / wide, SIZE.height / high);
  useSight({ view, box, scale, frame, sight });
  const goTo = (event: PointerEvent<SVGSVGElement>) => {
    if (event.buttons !== 1 || !transform.current) return;
    const { left, top } = event.currentTarget.getBoundingClientRect();
    const point = {
      x: box.left + (event.clientX - left - BORDER) / scale,
      y: box.top + (event.clientY - top - BORDER) / scale,
    };
    flyTo(point, transform.current.k);
  };
  return (
    <div className={styles.anchor}>
      <svg
        ref={frame}
        className={styles.overview}
        width={wide * scale}
        height={high * scale}
        onPointerDown={goTo}
        onPointerMove={goTo}
        aria-hidden="true"
        data-testid="overview"
      >
        {scene.plates.map((p) => (
          <rect
            key={p.id}
            className={
              p.standing === 'root' || p.standing === 'mac-only-root' ? styles.root : p.unlike ? styles.unlike : ''
            }
            x={(p.x - p.width / 2 - box.left) * scale}
            y={(p.y - PLATE.height / 2 - box.top) * scale}
            width={Math.max(2, p.width * scale)}
            height={Math.max(2, PLATE.height * scale)}
          />
        ))}
        <rect ref={sight} className={styles.sight} />
      </svg>
    </div>
  );
}
