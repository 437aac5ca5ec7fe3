'use client';
import { useMemo } from 'react';
import { grouped } from '../../core/standard';
import type { Ref } from '../session/view';
import { CROWDED_NAMES, isOutside } from './detail';
import { contains } from './geometry';
import type { Point } from './geometry';
import type { ChartHandle, Hands } from './hands';
import { namedPlates, nameSize, spotGrowth } from './legible';
import type { Growth } from './legible';
import { Note } from './Note';
import { Overview } from './Overview';
import { Peg } from './Peg';
import { LoneName, Plate } from './Plate';
import type { Scene, WireItem } from './scene-items';
import { Spot } from './Spot';
import { BESIDE_PANEL } from './still';
import type { StillSize } from './still';
import { useChartEvents } from './useChartEvents';
import { useFlying } from './useFlying';
import { useOpenByZoom } from './useOpenByZoom';
import { RULER_WIDTH, useChartHandle, useView } from './useView';
import type { ChartView } from './useView';
import { Wire } from './Wire';
import type { Register } from './Wire';

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
  /** Opens a plate that stands for several switches. */
  readonly onOpen?: (id: string) => void;
  readonly titleOf: (ref: Ref) => string;
  /** What it is, for those who do not see it. */
  readonly label?: string;
  /** Lets things be dragged and cables be pulled. */
  readonly hands?: Hands;
  readonly handle?: React.Ref<ChartHandle>;
  /** Its size in the usual window, for the server. */
  readonly stillSize?: StillSize;
}

/** The drawing of one tree: pan, zoom, select, and motion from what was drawn before. */
export function Chart(props: Props) {
  const { scene, fitKey, hue, selection, onSelect, onOpen, titleOf, hands, handle, label } = props;
  const view = useView(scene, fitKey, props.stillSize ?? BESIDE_PANEL);
  useChartHandle(handle, view);
  const events = useChartEvents({ scene, selection, onSelect, onOpen, titleOf, hands }, view);
  const { parts, still, detail, names, secondLines, scale } = view;
  const growth = useSpotGrowth(scene);
  useFlying(view, scene, selection);
  useOpenByZoom(view, scene, onOpen);
  return (
    <>
      <svg
        ref={parts.svg}
        className="chart"
        viewBox={still ? `0 0 ${still.width} ${still.height}` : undefined}
        data-names={names ? '' : undefined}
        data-lod={detail ? (secondLines ? 'near' : 'middle') : 'far'}
        data-hands={hands ? '' : undefined}
        style={
          {
            '--tree': hue === null ? 'var(--ink-2)' : `var(--hue-${hue})`,
            '--k': scale,
            '--name': nameSize(scale),
          } as React.CSSProperties
        }
        {...events}
        tabIndex={0}
        role="group"
        aria-label={label ?? 'Chart of the tree in view. Arrow keys go from switch to switch, plus and minus zoom.'}
      >
        {scene.ruler.length > 0 && <Ruler scene={scene} view={view} />}
        <g ref={parts.viewport} transform={still?.at.toString()}>
          <Things {...props} {...{ view, growth }} />
          <g ref={parts.overlay} className="overlay" aria-hidden="true" />
        </g>
      </svg>
      <Overview scene={scene} view={view} />
    </>
  );
}

/** How tags of hosts grow. As a run goes on plates and wires change their looks, not their places. */
function useSpotGrowth(scene: Scene): ReadonlyMap<string, Growth> {
  // eslint-disable-next-line react-hooks/exhaustive-deps
  return useMemo(() => spotGrowth(scene), [scene.spots]);
}

/** The costs that occur, at the height of the switches that have them. */
function Ruler({ scene, view }: { scene: Scene; view: ChartView }) {
  return (
    <g ref={view.parts.ruler} className="ruler" aria-hidden="true">
      {scene.ruler.map(({ cost, y }) => (
        <g key={cost} data-y={y} transform={view.still ? `translate(0 ${view.still.at.applyY(y)})` : undefined}>
          <line x1={RULER_WIDTH - 14} x2="100%" />
          <text x={RULER_WIDTH - 22} dy={4}>
            {grouped(cost)}
          </text>
        </g>
      ))}
    </g>
  );
}

const STAYS: Growth = { way: 'round', most: 1 };
const NO_NAMES: ReadonlyMap<string, string> = new Map();

type Chosen = (kind: Ref['kind'], id: string) => boolean;

/** A wire is selected itself, or by the port at one of its ends. */
const isWireSelected = ({ kind, id, portA, portB }: WireItem, isSelected: Chosen): boolean =>
  (kind !== 'ghost' && isSelected(kind === 'host' ? 'link' : kind, id)) ||
  [portA, portB].some((port) => port !== null && (isSelected('port', port) || isSelected('bundle', port)));

const isOnPath = ({ portA, portB }: WireItem, ports: ReadonlySet<string>): boolean =>
  ports.size > 0 && (portA === null || ports.has(portA)) && (portB === null || ports.has(portB));

interface NamesProps {
  readonly scene: Scene;
  readonly named: ReadonlyMap<string, string>;
  readonly register: Register;
}

/** Names over all plates, where these have no room for them. */
function LoneNames({ scene, named, register }: NamesProps) {
  return scene.plates.map((plate) => {
    const text = named.get(plate.id);
    return text && <LoneName key={plate.id} {...{ plate, text, register }} />;
  });
}

interface PegsProps {
  readonly pegs: Scene['pegs'];
  readonly movedPorts: ReadonlySet<string>;
  readonly isSelected: Chosen;
  readonly view: ChartView;
}

/** Ports near what is in sight, with their names where these can be read. */
function Pegs({ pegs, movedPorts, isSelected, view }: PegsProps) {
  const { names, scale, drawing, parts } = view;
  return (
    <g ref={parts.pegs}>
      {pegs.map((peg) => (
        <Peg
          key={peg.key}
          peg={names && (!peg.crowded || scale >= CROWDED_NAMES) ? peg : { ...peg, name: undefined }}
          selected={isSelected('port', peg.id) || isSelected('bundle', peg.id)}
          moved={movedPorts.has(peg.id) || peg.also?.some((id) => movedPorts.has(id)) === true}
          register={drawing.register}
        />
      ))}
    </g>
  );
}

function Things({
  scene,
  selection,
  pathPorts,
  pathPlaces,
  movedPorts,
  hands,
  view,
  growth,
}: Props & { view: ChartView; growth: ReadonlyMap<string, Growth> }) {
  const { detail, names, secondLines, scale, drawing } = view;
  const { register } = drawing;
  const grip = hands !== undefined;
  const chosen = useMemo(() => new Set(selection.map((r) => `${r.kind} ${r.id}`)), [selection]);
  const isSelected: Chosen = (kind, id) => chosen.has(`${kind} ${id}`);
  const named = useMemo(
    () => (detail && secondLines ? NO_NAMES : namedPlates(scene, scale, (id) => chosen.has(`switch ${id}`))),
    [scene, scale, chosen, detail, secondLines],
  );
  const near = (point: Point) => detail !== null && contains(detail, point);
  const wires = detail ? scene.wires : scene.wires.filter((w) => w.kind !== 'host');
  const spots = detail ? scene.spots : scene.spots.filter((s) => s.kind !== 'host');
  const notes = detail ? scene.notes : scene.notes.filter((n) => n.form === 'box');
  return (
    <>
      {wires.map((wire) => (
        <Wire
          key={wire.key}
          wire={wire}
          far={!near(wire.a) && !near(wire.b)}
          out={isOutside(detail, wire)}
          bare={!names}
          register={register}
          selected={isWireSelected(wire, isSelected)}
          onPath={isOnPath(wire, pathPorts)}
        />
      ))}
      {spots.map((spot) => {
        const state = { selected: isSelected(spot.kind, spot.id), onPath: pathPlaces.has(spot.id) };
        const { way, most } = growth.get(spot.id) ?? STAYS;
        return <Spot key={`${spot.kind} ${spot.id}`} {...{ spot, register, grip, way, most }} {...state} />;
      })}
      {scene.plates.map((plate) => {
        const all = plate.fold?.switches ?? [plate.id];
        const state = { selected: all.every((id) => isSelected('switch', id)), onPath: pathPlaces.has(plate.id) };
        const lines = near(plate) && secondLines ? 2 : named.has(plate.id) ? 1 : 0;
        return <Plate key={plate.id} {...{ plate, lines, register, grip }} {...state} />;
      })}
      <LoneNames {...{ scene, named, register }} />
      {notes.map((note) => (
        <Note key={note.id} {...{ note, register, grip }} selected={isSelected('note', note.id)} />
      ))}
      <Pegs {...{ view, movedPorts, isSelected }} pegs={scene.pegs.filter(near)} />
    </>
  );
}
