'use client';
import { useCallback, useMemo } from 'react';
import { withFailed } from '../../core/review';
import type { Failure } from '../../core/review';
import { movedBetween, solveDesign } from '../../core/trees';
import { count } from '../../core/standard';
import { Chart } from '../chart/Chart';
import { hueOf } from '../chart/hue';
import type { Scene } from '../chart/scene-items';
import { ArrangementChoice } from '../controls/ArrangementChoice';
import { refName, useSelecting } from '../controls/chart-refs';
import { FoldTools, useOpening } from '../controls/FoldTools';
import { Sides, useSide } from '../controls/Sides';
import type { Side } from '../controls/Sides';
import { useSheet } from '../controls/useSheet';
import { treeTitle } from '../controls/tree-names';
import { useFaultMarks } from '../controls/useFaultMarks';
import { treeInView, useBench, useShown } from '../session/context';
import type { Ref } from '../session/view';
import { failureWords } from './words';
import styles from './ReviewStage.module.css';

const AREA = { width: 620, height: 330 };
const NOTHING: ReadonlySet<string> = new Set();
/** What is separated is washed out, and says so. */
function washedOut(scene: Scene, separated: ReadonlySet<string>): Scene {
  if (separated.size === 0) return scene;
  const isApart = (p: Scene['plates'][number]) =>
    p.fold ? p.fold.switches.every((s) => separated.has(s)) : separated.has(p.id);
  return {
    ...scene,
    plates: scene.plates.map((p) =>
      isApart(p) ? { ...p, standing: 'apart', tag: 'separated', spoken: `${p.spoken}, separated` } : p,
    ),
    spots: scene.spots.map((s) => (separated.has(s.id) ? { ...s, alarm: true } : s)),
  };
}

/** The tree in view with a failure: what is lost is dark, what is separated washed out, what moved is marked. */
export function FailureChart({ failure, onClose }: { failure: Failure | null; onClose: () => void }) {
  const { view, setView, variantId } = useBench();
  const shown = useShown();
  const [side, setSide] = useSide(failure);
  const after = useMemo(
    () => (failure ? solveDesign(withFailed(shown.topology.design, failure.elements), shown) : shown),
    [failure, shown],
  );
  const solved = side === 'after' ? after : shown;
  const of = treeInView({ solved }, view);
  const { design } = solved.topology;
  const moved = useMemo(() => {
    const mine = after === shown ? undefined : movedBetween(shown, after).find((m) => m.tree === of?.tree.id);
    // What fails goes down with it: that is no move.
    return mine ? new Set(mine.ports.flatMap((p) => (p.after === 'disabled' ? [] : [p.id]))) : NOTHING;
  }, [after, shown, of]);
  const separated = useMemo(
    () => new Set(failure && side === 'after' ? [...failure.separates.switches, ...failure.separates.hosts] : []),
    [failure, side],
  );
  const sheet = useSheet({ solved, of, view, apart: separated, moved, area: AREA });
  const onOpen = useOpening(sheet, design);
  const titleOf = useCallback((ref: Ref) => refName(design, ref), [design]);
  const onSelect = useSelecting(design);
  const marked = useFaultMarks(sheet?.scene ?? null);
  if (!sheet || !of || !marked) return <p className="quiet pad">The design has no tree to review.</p>;
  return (
    <>
      {failure && <Caption {...{ failure, side, setSide, onClose }} tree={treeTitle(of.tree)} />}
      <ArrangementChoice value={view.arrangement} onPick={(arrangement) => setView({ arrangement })} />
      <FoldTools sheet={sheet} />
      <Chart
        scene={failure ? washedOut(sheet.scene, separated) : marked}
        fitKey={`${variantId} review ${view.arrangement} ${view.fold}`}
        onOpen={onOpen}
        hue={hueOf(design, of.tree)}
        selection={view.selection}
        onSelect={onSelect}
        pathPorts={NOTHING}
        pathPlaces={NOTHING}
        movedPorts={moved}
        titleOf={titleOf}
      />
    </>
  );
}

interface CaptionProps {
  readonly failure: Failure;
  readonly tree: string;
  readonly side: Side;
  readonly setSide: (side: Side) => void;
  readonly onClose: () => void;
}

function Caption({ failure, tree, side, setSide, onClose }: CaptionProps) {
  const design = useShown().topology.design;
  const { switches, hosts, avoidable } = failure.separates;
  const parts = [
    switches.length > 0 && count(switches.length, 'switch', 'switches'),
    hosts.length > 0 && count(hosts.length, 'host'),
  ].filter(Boolean);
  return (
    <div className={styles.caption}>
      <h2>
        With <span className="alarm">{failureWords(design, failure)}</span> lost
      </h2>
      <Sides side={side} onPick={setSide} lead={tree}>
        <button className="plain quiet" onClick={onClose}>
          close
        </button>
      </Sides>
      {parts.length > 0 && (
        <p className="small alarm">
          separated: {parts.join(', ')}
          {avoidable && '; other cables would do, if they carried the VLANs'}
        </p>
      )}
    </div>
  );
}
