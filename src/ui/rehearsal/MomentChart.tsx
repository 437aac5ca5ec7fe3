'use client';
import { useCallback, useEffect, useMemo, useRef } from 'react';
import type { RefObject } from 'react';
import { bundleById, designsOver, everNamed, portById } from '../../core/design';
import type { Design, Script } from '../../core/design';
import { firstFrom, markAt, portAt, portSigns, spanAt } from '../../core/trace';
import type { PortSign, Trace } from '../../core/trace';
import { solveDesign } from '../../core/trees';
import type { SolvedDesign, Topology } from '../../core/trees';
import { Chart } from '../chart/Chart';
import type { ChartHandle } from '../chart/hands';
import { buildScene } from '../chart/scene';
import type { Scene } from '../chart/scene-items';
import type { Ref } from '../session/view';
import { treeInView, useBench, useSession } from '../session/context';
import { hueOf } from '../chart/hue';
import { refName, useSelecting } from '../controls/chart-refs';
import { FoldTools, useOpening } from '../controls/FoldTools';
import { useSheet } from '../controls/useSheet';
import { inTree, keepingScenes, laneTree, standsAt, vlanOf } from './moment';
import type { MomentScene } from './moment';
import { drawnSigns } from './drawn-signs';
import { SECOND } from '../../core/standard';

const AREA = { width: 620, height: 330 };
const NOTHING: ReadonlySet<string> = new Set();
const MARK_LETTER = {
  proposal: 'P',
  agreement: 'A',
  change: 'T',
  hello: '',
  lacp: 'L',
  keepalive: 'K',
  probe: '',
} as const;

interface Props {
  script: Script | null;
  trace: Trace | null;
  at: number;
  /** Microseconds before the moment in which frames are shown as under way. */
  reach: number;
  /** Index of the probed pair whose way is marked. */
  pair: number;
}

/** The network as it stood at the moment, with the way of a pair and the BPDUs that are under way. */
export function MomentChart({ script, trace, at, reach, pair }: Props) {
  const { view, variantId } = useBench();
  const solved = useSolvedAt(script, at);
  const of = treeInView({ solved }, view);
  const { design } = solved.topology;
  const apart = useMemo(() => switchesOf(design, changing(trace)), [design, trace]);
  const sheet = useSheet({ solved, of, view, apart, moved: NOTHING, area: AREA });
  const onOpen = useOpening(sheet, design);
  const base = useMemo(() => sheet && { frame: sheet.frame, stands: sheet.stands }, [sheet]);
  const keep = useMemo(() => keepingScenes(), []);
  const moment = useMemo(() => {
    if (!base || !of) return null;
    const stands = trace && standsAt(solved.topology, base.stands, trace, of.tree.id, at);
    const scene = buildScene(base.frame, stands ?? base.stands);
    return keep(base, { scene, waiting: stands?.waiting ?? NOTHING });
  }, [base, of, trace, solved, at, keep]);
  const own = trace && of ? laneTree(trace, of.tree.id) : '';
  const talking = trace?.contacts[pair];
  const path = trace && talking && inTree(trace, own, talking.vlan) ? spanAt(talking.spans, at)?.path : undefined;
  const pathPorts = useMemo(() => new Set(path ?? []), [path]);
  const handle = useRef<ChartHandle>(null);
  const signs = useSigns(design, script, trace, at);
  useFramesOver({ handle, moment, trace, own, at, reach, path, signs, topology: solved.topology });
  const titleOf = useCallback((ref: Ref) => refName(design, ref), [design]);
  const onSelect = useSelecting(design);
  if (!moment || !of) return <p className="quiet pad">The design has no tree to rehearse.</p>;
  return (
    <>
      <FoldTools sheet={sheet} />
      <Chart
        scene={moment.scene}
        fitKey={`${variantId} rehearsal ${view.arrangement} ${view.fold}`}
        onOpen={onOpen}
        hue={hueOf(design, of.tree)}
        selection={view.selection}
        onSelect={onSelect}
        pathPorts={pathPorts}
        pathPlaces={NOTHING}
        movedPorts={moment.waiting}
        titleOf={titleOf}
        label={`The network at ${(at / SECOND).toFixed(3)} s`}
        handle={handle}
      />
    </>
  );
}

/** What is plugged in and what guards do at the moment. */
function useSigns(design: Design, script: Script | null, trace: Trace | null, at: number): readonly PortSign[] {
  return useMemo(
    () => (trace && script ? portSigns(everNamed(design, script), script, trace, at) : []),
    [design, script, trace, at],
  );
}

/** Switches with a port that changes in a run: what stands for several can show one state alone. */
function changing(trace: Trace | null): ReadonlySet<string> {
  const ids = trace?.ports.flatMap(({ port, spans }) => (spans.length > 1 ? [port] : [])) ?? [];
  return ids.length === 0 ? NOTHING : new Set(ids);
}

/** The switches that ports and bundles are on. */
const switchesOf = (design: Design, ids: ReadonlySet<string>): ReadonlySet<string> =>
  new Set([...ids].flatMap((id) => portById(design, id)?.switch ?? bundleById(design, id)?.switch ?? []));

interface Frames {
  handle: RefObject<ChartHandle | null>;
  moment: MomentScene | null;
  trace: Trace | null;
  /** Rehearsed tree in view. */
  own: string;
  at: number;
  reach: number;
  /** Ports that frames of the probed pair pass. */
  path: readonly string[] | undefined;
  /** What is plugged in and what guards do, at ports that the tree may not draw. */
  signs: readonly PortSign[];
  topology: Topology;
}

/** Frames are marked where they leave: drawn straight into the layer above the chart. */
function useFramesOver({ handle, moment, trace, own, at, reach, path, signs, topology }: Frames): void {
  useEffect(() => {
    const layer = handle.current?.overlay;
    if (!layer || !moment) return;
    layer.replaceChildren();
    if (!trace) return;
    layer.append(...drawnSigns(topology.design, moment.scene, signs, layer.getScreenCTM()?.a ?? 1));
    for (const point of underWay(handle.current!.svg, moment.scene, path ?? [], at / (reach * 60)))
      layer.append(frameSign(point.x, point.y, 'probe'));
    const vlan = vlanOf(own);
    const anchors = new Map(moment.scene.pegs.map((p) => [p.id, p]));
    let drawn = 0;
    for (
      let i = firstFrom(trace.frames, at - reach);
      i < trace.frames.count && trace.frames.at[i]! <= at && drawn < 80;
      i++
    ) {
      const mark = markAt(trace.frames, i, vlan);
      if (mark === null) continue;
      const logical = topology.portIndex.get(portAt(trace.frames, i));
      const anchor = logical === undefined ? undefined : anchors.get(topology.ports[logical]!.element.id);
      if (!anchor) continue;
      drawn++;
      const share = (at - trace.frames.at[i]!) / reach;
      layer.append(frameSign(anchor.x + anchor.nx * (18 + 26 * share), anchor.y + anchor.ny * (18 + 26 * share), mark));
    }
  }, [handle, trace, at, reach, moment, own, topology, path, signs]);
}

/** The trees of the design as the script has made it by a moment. */
function useSolvedAt(script: Script | null, at: number): SolvedDesign {
  const drawn = useSession((s) => s.solved);
  const { design } = drawn.topology;
  const designs = useMemo(() => (script ? designsOver(design, script) : []), [design, script]);
  const index = designs.findLastIndex((d) => d.from <= at);
  return useMemo(() => (index > 0 ? solveDesign(designs[index]!.design) : drawn), [drawn, designs, index]);
}

/** Where frames of a pair are on their way: a few of them, evenly, each as far on as the moment says. */
function underWay(
  svg: SVGSVGElement,
  scene: Scene,
  path: readonly string[],
  phase: number,
): { x: number; y: number }[] {
  const lines = path.flatMap((port, i) => {
    const next = path[i + 1];
    const wire = scene.wires.find(
      (w) => (w.portA === port && w.portB === next) || (w.portB === port && w.portA === next && next !== undefined),
    );
    const line = wire && svg.querySelector<SVGPathElement>(`g.wire[data-id="${CSS.escape(wire.id)}"] path.line`);
    return line ? [{ line, back: wire.portA !== port, length: line.getTotalLength() }] : [];
  });
  const whole = lines.reduce((sum, l) => sum + l.length, 0);
  if (whole === 0) return [];
  return [0, 1, 2, 3].map((n) => {
    let left = (((phase + n / 4) % 1) + 1) % 1;
    left *= whole;
    const on = lines.find((l) => (left -= l.length) <= 0) ?? lines.at(-1)!;
    const along = on.length + left;
    return on.line.getPointAtLength(on.back ? on.length - along : along);
  });
}

const SVG = 'http://www.w3.org/2000/svg';

function frameSign(x: number, y: number, mark: keyof typeof MARK_LETTER): SVGElement {
  const g = document.createElementNS(SVG, 'g');
  g.setAttribute('class', `frame-sign frame-${mark}`);
  g.setAttribute('transform', `translate(${x} ${y})`);
  const dot = document.createElementNS(SVG, 'circle');
  dot.setAttribute('r', MARK_LETTER[mark] ? '7' : '3.2');
  g.append(dot);
  if (MARK_LETTER[mark]) {
    const text = document.createElementNS(SVG, 'text');
    text.textContent = MARK_LETTER[mark];
    text.setAttribute('dy', '3.6');
    g.append(text);
  }
  return g;
}
