'use client';
import { zoomIdentity } from 'd3-zoom';
import type { ZoomTransform } from 'd3-zoom';
import {
  startTransition,
  useCallback,
  useEffect,
  useImperativeHandle,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import type { KeyboardEvent, MouseEvent } from 'react';

import type { Ref } from '../session/view';
import { FIT_EVENT } from '../session/commands';
import { detailAt, EVERYWHERE, farScale, FEW, namesAt } from './detail';
import { neighbour, refOf, sceneBox } from './finding';
import { contains } from './geometry';
import type { Box, Point } from './geometry';
import { Drawing } from './drawing';
import { Peg } from './Peg';
import { Plate } from './Plate';
import { Spot } from './Spot';
import type { Scene } from './scene-items';
import { fittingScale, useZoom } from './useZoom';
import { Wire } from './Wire';
import { grouped } from '../../core/standard';

const RULER_WIDTH = 84;
/** A drawing that changed but still fits is left at its scale while that is within this share of the best. */
const REFIT = 0.18;

interface Props {
  readonly scene: Scene;
  /** Changes when the drawing should be fitted again: arrangement, design. */
  readonly fitKey: string;
  /** Hue of the tree or VLAN in view; null for none. */
  readonly hue: number | null;
  readonly selection: readonly Ref[];
  readonly onSelect: (ref: Ref | null, add: boolean) => void;
  readonly pathPorts: ReadonlySet<string>;
  readonly pathPlaces: ReadonlySet<string>;
  readonly movedPorts: ReadonlySet<string>;
  readonly titleOf: (ref: Ref) => string;
  /** What it is, for those who do not see it. */
  readonly label?: string;
  /** Lets things be dragged and cables be pulled. */
  readonly hands?: Hands;
  readonly handle?: React.Ref<ChartHandle>;
}

/** What the pointer does in addition to panning and selecting. */
export interface Hands {
  /** Told of every press; true when it is taken, and the chart then stays where it is. */
  readonly press: (event: PointerEvent) => boolean;
  readonly doubleClick: (at: Point) => void;
  /** A click on empty paper; true when it was taken. */
  readonly click: (at: Point) => boolean;
}

/** For those who draw with the chart. */
export interface ChartHandle {
  readonly svg: SVGSVGElement;
  /** A place in the window as a place in the drawing, and the other way. */
  readonly toDrawing: (clientX: number, clientY: number) => Point;
  readonly toWindow: (point: Point) => Point;
  /** Shows another placing of the same things, until the next render. */
  readonly preview: (scene: Scene) => void;
  /** Marks over the drawing: the cable being pulled, the frame, the lines that things snap to. */
  readonly overlay: SVGGElement;
}

/** How long a zoom has to rest before ports come or go: coming and going on the way would hold it up. */
const ZOOM_REST_MS = 180;
/** The drawing of one tree: pan, zoom, select, and motion from what was drawn before. */
export function Chart(props: Props) {
  const { scene, fitKey, hue, selection, onSelect, pathPorts, pathPlaces, movedPorts, titleOf, hands, handle, label } =
    props;
  const svg = useRef<SVGSVGElement>(null);
  const viewport = useRef<SVGGElement>(null);
  const ruler = useRef<SVGGElement>(null);
  const overlay = useRef<SVGGElement>(null);
  const pegs = useRef<SVGGElement>(null);
  const [drawing] = useState(() => new Drawing());
  const latest = useRef(scene);
  const size = useRef({ width: 800, height: 600 });
  const transform = useRef<ZoomTransform | null>(null);
  // Guessed from the window before the first drawing, so that a large design is not drawn in full only to be thinned out.
  const [detail, setDetail] = useState<Box | null>(() =>
    fittingScale(sceneBox(scene), window.innerWidth - 480, window.innerHeight - 130) < farScale(scene)
      ? null
      : EVERYWHERE,
  );

  const [names, setNames] = useState(true);
  const follower = useRef<ReturnType<typeof setTimeout>>(undefined);

  const placeRuler = useCallback(() => {
    const t = transform.current;
    if (!t || !ruler.current) return;
    for (const mark of ruler.current.children)
      mark.setAttribute('transform', `translate(0 ${t.applyY(Number(mark.getAttribute('data-y')))})`);
  }, []);
  const onMove = useCallback(
    (t: ZoomTransform) => {
      const zoomed = transform.current !== null && transform.current.k !== t.k;
      transform.current = t;
      viewport.current?.setAttribute('transform', t.toString());
      placeRuler();
      // Ports too small to tell apart go at once, by one attribute; React takes them out when the zoom rests.
      if (pegs.current) pegs.current.style.display = t.k < farScale(latest.current) ? 'none' : '';
      if (zoomed && latest.current.pegs.length > FEW) svg.current?.setAttribute('data-zooming', '');
      // What comes into sight may follow a little later; the move itself must not wait for it.
      const follow = () => {
        svg.current?.removeAttribute('data-zooming');
        startTransition(() => {
          setDetail((was) => detailAt(t, size.current, latest.current, was));
          setNames(namesAt(t.k, latest.current));
        });
      };
      clearTimeout(follower.current);
      if (zoomed) follower.current = setTimeout(follow, ZOOM_REST_MS);
      else follow();
    },
    [placeRuler],
  );
  const taken = useRef(false);
  const { fit, scaleBy, moved, setSize } = useZoom({ svg, onMove, taken });

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
  }, [drawing]);

  const fitNow = useCallback(
    (tolerance = 0) => fit(sceneBox(latest.current), latest.current.ruler.length > 0 ? RULER_WIDTH : 16, tolerance),
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
  useEffect(
    () => () => {
      drawing.stop();
      clearTimeout(follower.current);
    },
    [drawing],
  );

  useEffect(() => {
    const fitFully = () => fitNow();
    window.addEventListener(FIT_EVENT, fitFully);
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      size.current = { width, height };
      setSize(width, height);
      if (!moved.current) fitNow();
    });
    if (svg.current) observer.observe(svg.current);
    return () => {
      window.removeEventListener(FIT_EVENT, fitFully);
      observer.disconnect();
    };
  }, [fitNow, moved, setSize]);

  const near = (point: Point) => detail !== null && contains(detail, point);
  const wires = detail ? scene.wires : scene.wires.filter((w) => w.kind !== 'host');
  const spots = detail ? scene.spots : scene.spots.filter((s) => s.kind !== 'host');
  const chosen = useMemo(() => new Set(selection.map((r) => `${r.kind} ${r.id}`)), [selection]);
  const isSelected = (kind: Ref['kind'], id: string) => chosen.has(`${kind} ${id}`);

  const onClick = (event: MouseEvent) => {
    const target = (event.target as Element).closest('[data-id]');
    const add = event.shiftKey || event.ctrlKey || event.metaKey;
    if (!target && hands && transform.current) {
      const box = svg.current!.getBoundingClientRect();
      const [x, y] = transform.current.invert([event.clientX - box.left, event.clientY - box.top]);
      if (hands.click({ x, y })) return;
    }
    if (!target) return add ? undefined : onSelect(null, false);
    onSelect(refOf(target), add);
  };
  /** Names are made for what is pointed at only: a large chart has thousands of wires and ports. */
  const onMouseOver = (event: MouseEvent) => {
    const target = (event.target as Element).closest('[data-id]');
    if (!target) return;
    let title = target.querySelector(':scope > title');
    if (!title) {
      title = document.createElementNS('http://www.w3.org/2000/svg', 'title');
      target.prepend(title);
    }
    title.textContent = titleOf(refOf(target));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key.startsWith('Arrow')) {
      const at = selection.findLast((r) => r.kind === 'switch')?.id ?? null;
      const next = neighbour(scene, at, event.key);
      if (next) onSelect({ kind: 'switch', id: next }, event.shiftKey);
    } else if (event.key === '+' || event.key === '=') scaleBy(1.25);
    else if (event.key === '-') scaleBy(0.8);
    else return;
    event.preventDefault();
  };

  return (
    <svg
      ref={svg}
      className="chart"
      data-names={names ? '' : undefined}
      data-lod={detail ? 'near' : 'far'}
      data-hands={hands ? '' : undefined}
      style={{ '--tree': hue === null ? 'var(--ink-2)' : `var(--hue-${hue})` } as React.CSSProperties}
      onPointerDownCapture={(event) => {
        taken.current = event.button === 0 && hands !== undefined && hands.press(event.nativeEvent);
      }}
      onDoubleClick={(event) => {
        if (!hands || !transform.current || (event.target as Element).closest('[data-id]')) return;
        const box = svg.current!.getBoundingClientRect();
        const [x, y] = transform.current.invert([event.clientX - box.left, event.clientY - box.top]);
        hands.doubleClick({ x, y });
      }}
      onClick={onClick}
      onKeyDown={onKeyDown}
      onMouseOver={onMouseOver}
      tabIndex={0}
      role="group"
      aria-label={label ?? 'Chart of the tree in view. Arrow keys go from switch to switch, plus and minus zoom.'}
    >
      {scene.ruler.length > 0 && (
        <g ref={ruler} className="ruler" aria-hidden="true">
          {scene.ruler.map(({ cost, y }) => (
            <g key={cost} data-y={y}>
              <line x1={RULER_WIDTH - 14} x2="100%" />
              <text x={RULER_WIDTH - 22} dy={4}>
                {grouped(cost)}
              </text>
            </g>
          ))}
        </g>
      )}
      <g ref={viewport}>
        {wires.map((wire) => (
          <Wire
            key={wire.key}
            wire={wire}
            far={!near(wire.a) && !near(wire.b)}
            bare={!names}
            register={drawing.register}
            selected={
              (wire.kind !== 'ghost' && isSelected(wire.kind === 'host' ? 'link' : wire.kind, wire.id)) ||
              [wire.portA, wire.portB].some((id) => id !== null && (isSelected('port', id) || isSelected('bundle', id)))
            }
            onPath={
              (wire.portA === null || pathPorts.has(wire.portA)) &&
              (wire.portB === null || pathPorts.has(wire.portB)) &&
              pathPorts.size > 0
            }
          />
        ))}
        {spots.map((spot) => (
          <Spot
            key={`${spot.kind} ${spot.id}`}
            spot={spot}
            selected={isSelected(spot.kind, spot.id)}
            onPath={pathPlaces.has(spot.id)}
            register={drawing.register}
            grip={hands !== undefined}
          />
        ))}
        {scene.plates.map((plate) => (
          <Plate
            key={plate.id}
            plate={plate}
            lines={near(plate) ? 2 : detail ? 0 : 1}
            selected={isSelected('switch', plate.id)}
            onPath={pathPlaces.has(plate.id)}
            register={drawing.register}
            grip={hands !== undefined}
          />
        ))}
        <g ref={pegs}>
          {scene.pegs.filter(near).map((peg) => (
            <Peg
              key={peg.key}
              peg={names ? peg : { ...peg, name: undefined }}
              selected={isSelected('port', peg.id) || isSelected('bundle', peg.id)}
              moved={movedPorts.has(peg.id)}
              register={drawing.register}
            />
          ))}
        </g>
        <g ref={overlay} className="overlay" aria-hidden="true" />
      </g>
    </svg>
  );
}
