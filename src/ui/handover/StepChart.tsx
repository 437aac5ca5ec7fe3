'use client';
import { useCallback, useMemo } from 'react';
import { switchById } from '../../core/design';
import { atWords } from '../../core/plan';
import type { PlanStep } from '../../core/plan';
import { solveDesign } from '../../core/trees';
import { Chart } from '../chart/Chart';
import { hueOf } from '../chart/hue';
import { ArrangementChoice } from '../controls/ArrangementChoice';
import { refName, useSelecting } from '../controls/chart-refs';
import { FoldTools, useOpening } from '../controls/FoldTools';
import { Sides, useSide } from '../controls/Sides';
import { treeTitle } from '../controls/tree-names';
import { useSheet } from '../controls/useSheet';
import { treeInView, useBench } from '../session/context';
import type { Ref } from '../session/view';
import styles from './HandoverStage.module.css';

const AREA = { width: 560, height: 330 };
const NOTHING: ReadonlySet<string> = new Set();

interface Props {
  readonly step: PlanStep;
  readonly number: number;
}

/** The network before or after a step, in the tree in view, with what the step moves marked. */
export function StepChart({ step, number }: Props) {
  const { view, setView, variantId } = useBench();
  const [side, setSide] = useSide(step);
  const solved = useMemo(() => solveDesign(side === 'after' ? step.after : step.before), [step, side]);
  const of = treeInView({ solved }, view);
  const { design } = solved.topology;
  const moved = useMemo(
    () => new Set(step.moved.find((m) => m.tree === of?.tree.id)?.ports.map((p) => p.id)),
    [step, of],
  );
  const device = step.work.device;
  const apart = useMemo(() => new Set(device !== null && switchById(design, device) ? [device] : []), [device, design]);
  const sheet = useSheet({ solved, of, view, apart, moved, area: AREA });
  const onOpen = useOpening(sheet, design);
  const onSelect = useSelecting(design);
  const titleOf = useCallback((ref: Ref) => refName(design, ref), [design]);
  const marked = useMemo<readonly Ref[]>(() => [...apart].map((id) => ({ kind: 'switch', id })), [apart]);
  if (!sheet || !of) return <p className="quiet pad">There is no tree in the network at this step.</p>;
  return (
    <>
      <div className={styles.caption}>
        <h2>
          Step {number} at {atWords(step)}
        </h2>
        <Sides side={side} onPick={setSide} lead={treeTitle(of.tree)} />
      </div>
      <ArrangementChoice value={view.arrangement} onPick={(arrangement) => setView({ arrangement })} />
      <FoldTools sheet={sheet} />
      <Chart
        scene={sheet.scene}
        fitKey={`${variantId} plan ${view.arrangement} ${view.fold}`}
        onOpen={onOpen}
        hue={hueOf(design, of.tree)}
        selection={marked}
        onSelect={onSelect}
        pathPorts={NOTHING}
        pathPlaces={NOTHING}
        movedPorts={moved}
        titleOf={titleOf}
        label="The network at the step. Arrow keys go from switch to switch, plus and minus zoom."
      />
    </>
  );
}
