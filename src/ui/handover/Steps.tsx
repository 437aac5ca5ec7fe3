'use client';
import { useEffect, useState } from 'react';
import { joinWorks, splitWork } from '../../core/plan';
import type { ChangePlan, PlanStep } from '../../core/plan';
import type { MovedTree } from '../../core/trees';
import { useBench } from '../session/context';
import { useInBrowser } from '../session/useInBrowser';
import { StepChart } from './StepChart';
import { StepPanel } from './StepPanel';
import { StepTable } from './StepTable';
import { useDone } from './useDone';
import type { Planning } from './usePlan';
import styles from './HandoverStage.module.css';

/** The works of a plan with two of them exchanged, one split, or two joined. */
function useArranging(plan: ChangePlan, planning: Planning) {
  const { say } = useBench();
  const works = plan.steps.map((s) => s.work);
  const move = (step: number, by: -1 | 1) => {
    const next = [...works];
    [next[step], next[step + by]] = [next[step + by]!, next[step]!];
    planning.arrange(next);
  };
  const split = (step: number) => {
    const parts = splitWork(works[step]!);
    if (parts.length < 2) return say({ text: 'This step is one piece: what it sets belongs together.' });
    planning.arrange([...works.slice(0, step), ...parts, ...works.slice(step + 1)]);
  };
  const join = (step: number) => {
    const joined = joinWorks(works[step]!, works[step + 1]!);
    if (!joined) return say({ text: 'The next step is at another device: only steps at one device are joined.' });
    planning.arrange([...works.slice(0, step), joined, ...works.slice(step + 2)]);
  };
  return { onMove: move, onSplit: split, onJoin: join };
}

/** The steps of a plan: the one at hand on the chart and in words, all of them below. */
export function Steps({ plan, planning, title }: { plan: ChangePlan; planning: Planning; title: string }) {
  const { view, setView } = useBench();
  const inBrowser = useInBrowser();
  const [asked, setPicked] = useState(0);
  const picked = Math.min(asked, plan.steps.length - 1);
  const step = plan.steps[picked]!;
  const { done, turn, ticked, tick } = useDone(title);
  const arranging = useArranging(plan, planning);
  const show = (of: PlanStep | undefined) => {
    // Roles that change tell more than ports that come into a tree or leave it.
    const told = (m: MovedTree) => m.ports.filter((p) => p.before !== 'none' && p.after !== 'none').length;
    const moved = of?.moved.filter((m) => m.ports.length > 0).sort((a, b) => told(b) - told(a)) ?? [];
    if (moved[0] && !moved.some((m) => m.tree === view.tree && told(m) > 0)) setView({ tree: moved[0].tree });
  };
  const pick = (n: number) => {
    setPicked(n);
    show(plan.steps[n]);
  };
  // The first step shows a tree that it moves.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  useEffect(() => show(step), []);
  const next = () => {
    const was = done.has(step.work.id);
    turn(step.work.id);
    if (!was && picked < plan.steps.length - 1) pick(picked + 1);
  };
  useStepKeys(picked, plan.steps.length, pick, arranging.onMove);
  return (
    <>
      <section className={`chart-side ${styles.chart}`} aria-label="The network at the step">
        {inBrowser && <StepChart step={step} number={picked + 1} />}
      </section>
      <section className={styles.side} aria-label={`Step ${picked + 1}`}>
        <StepPanel
          {...{ step }}
          number={picked + 1}
          ticked={new Set(step.see.flatMap((_, i) => (ticked.has(`${step.work.id} ${i}`) ? [i] : [])))}
          onTick={(i) => tick(`${step.work.id} ${i}`)}
          onDone={next}
          onPause={(seconds) => planning.setPause(picked, seconds)}
          isDone={done.has(step.work.id)}
        />
      </section>
      <StepTable
        steps={plan.steps}
        picked={picked}
        done={done}
        onPick={pick}
        pinned={planning.pinned}
        onPin={planning.pin}
        {...arranging}
      />
    </>
  );
}

/** Alt with an arrow moves the step; the arrows alone, outside of the chart, go from step to step. */
function useStepKeys(
  picked: number,
  of: number,
  pick: (n: number) => void,
  move: (n: number, by: -1 | 1) => void,
): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
      const elsewhere =
        event.target instanceof HTMLElement || event.target instanceof SVGElement
          ? event.target.closest('input, textarea, select, svg.chart, [role=dialog], [role=menu]')
          : null;
      const to = picked + by;
      if (by === 0 || elsewhere || to < 0 || to >= of || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      if (event.altKey) move(picked, by);
      pick(to);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [picked, of, pick, move]);
}
