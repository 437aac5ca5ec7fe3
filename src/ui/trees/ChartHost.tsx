'use client';
import { useCallback, useMemo } from 'react';
import { bundleById, hostById, linkById, noteById, portLabel, segmentById, switchById } from '../../core/design';
import type { Design } from '../../core/design';
import { roleAt } from '../../core/trees';
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import { Chart } from '../chart/Chart';
import type { Ref } from '../session/view';
import { useFaultMarks } from '../controls/useFaultMarks';
import { treeInView, useBench, useShown } from '../session/context';
import { useChange } from '../session/since';
import { hueOf } from '../chart/hue';
import { useSelecting } from '../controls/chart-refs';
import { FoldTools, useOpening } from '../controls/FoldTools';
import { usePath } from './usePath';
import { useSheet } from '../controls/useSheet';
import { ArrangementChoice } from '../controls/ArrangementChoice';
import styles from './ChartHost.module.css';

/** Shape of the area that arrangements aim at. */
const AREA = { width: 860, height: 640 };
const NOTHING: ReadonlySet<string> = new Set();

function titleIn(design: Design, solved: SolvedDesign, of: SolvedTree, ref: Ref): string {
  const role = (id: string) => {
    const index = solved.topology.portIndex.get(id);
    return index === undefined ? '' : roleAt(of, index);
  };
  switch (ref.kind) {
    case 'port': {
      const bundle = bundleById(design, ref.id);
      if (bundle) return `Bundle ${bundle.name} of ${switchById(design, bundle.switch)?.name}: ${role(bundle.id)}`;
      return `Port ${portLabel(design, ref.id)}: ${role(ref.id)}`;
    }
    case 'bundle':
      return `Bundle ${bundleById(design, ref.id)?.name ?? ''}`;
    case 'link': {
      const link = linkById(design, ref.id);
      const ends = link ? [link.a, link.b] : [];
      return ends
        .map((e) => ('port' in e ? `port ${portLabel(design, e.port)}` : hostById(design, e.host)?.name))
        .join(' – ');
    }
    case 'segment':
      return `Segment ${segmentById(design, ref.id)?.name ?? ''}`;
    case 'switch':
      return switchById(design, ref.id)?.name ?? '';
    case 'host':
      return hostById(design, ref.id)?.name ?? '';
    case 'note':
      return noteById(design, ref.id)?.text ?? '';
  }
}

/** Ports that the last change moved, or all since an earlier state, and the path between two places that are selected. */
function useMarks(solved: SolvedDesign, of: SolvedTree | null) {
  const { draft } = useBench();
  const change = useChange();
  const path = usePath();
  const { design } = solved.topology;
  const moved = useMemo(() => {
    const mine = (draft ?? change)?.moved.find((m) => m.tree === of?.tree.id);
    return mine ? new Set(mine.ports.map((p) => p.id)) : NOTHING;
  }, [draft, change, of]);
  const onPath = useMemo(() => {
    if (!path?.answer?.ok) return { ports: NOTHING, places: NOTHING };
    const { hops, ports } = path.answer.path;
    const places = hops.map((h) => design.switches[h.bridge]!.id);
    return {
      ports: new Set(ports.map((p) => solved.topology.ports[p]!.element.id)),
      places: new Set([...places, ...path.places.map((p) => p.id)]),
    };
  }, [path, design, solved]);
  return { moved, onPath };
}

/** The chart of the tree in view, with what the session and the view know. */
export function ChartHost() {
  const { view, setView, variantId } = useBench();
  const solved = useShown();
  const of = treeInView({ solved }, view);
  const { design } = solved.topology;
  const { moved, onPath } = useMarks(solved, of);
  const sheet = useSheet({ solved, of, view, apart: onPath.places, moved, area: AREA });
  const onOpen = useOpening(sheet, design);
  const titleOf = useCallback((ref: Ref) => (of ? titleIn(design, solved, of, ref) : ''), [design, solved, of]);
  const onSelect = useSelecting(design);
  const scene = useFaultMarks(sheet?.scene ?? null);
  if (!sheet || !of || !scene)
    return (
      <div className="empty-chart">
        <h2>No trees</h2>
        <p>The design has no VLAN, so no tree runs on it.</p>
      </div>
    );
  return (
    <>
      <ArrangementChoice value={view.arrangement} onPick={(arrangement) => setView({ arrangement })} />
      <FoldTools sheet={sheet} />
      {view.arrangement === 'depth' && <div className={`${styles.rulerTitle} quiet`}>cost to the root</div>}
      <Chart
        scene={scene}
        fitKey={`${variantId} ${view.arrangement} ${view.fold}`}
        onOpen={onOpen}
        hue={hueOf(design, of.tree)}
        selection={view.selection}
        onSelect={onSelect}
        pathPorts={onPath.ports}
        pathPlaces={onPath.places}
        movedPorts={moved}
        titleOf={titleOf}
      />
    </>
  );
}
