'use client';
import { useCallback, useMemo, useState } from 'react';
import { everNamed, setField } from '../../core/design';
import type { Design, Probe, Script } from '../../core/design';
import { SECOND } from '../../core/standard';
import { TreeStrip } from '../controls/TreeStrip';
import { treeInView, useBench, useSession } from '../session/context';
import { useInBrowser } from '../session/useInBrowser';
import { inTree, laneTree } from './moment';
import { MomentChart } from './MomentChart';
import { RehearsalSide } from './RehearsalSide';
import type { PanelId } from './RehearsalSide';
import { ScriptPanel } from './ScriptPanel';
import { portsOfSelection } from './selected';
import { Strip } from './Strip';
import { TimeTools } from './TimeTools';
import { useMoments } from './useMoments';
import type { Moments } from './useMoments';
import { useRun } from './useRun';
import type { Run } from './useRun';
import { useStageCommands } from './useStageCommands';
import { ArrangementChoice } from '../controls/ArrangementChoice';
import styles from './RehearsalStage.module.css';

const NO_PROBES: readonly Probe[] = [];

function NothingToRehearse() {
  return (
    <main className="empty-chart">
      <h2>Nothing to rehearse yet</h2>
      <p>Draw the network in Cabling first. Then fail a link here and watch the trees converge.</p>
    </main>
  );
}

/** Rehearsal: a script, the network at a moment, what happened, and the timeline below. */
export function RehearsalStage() {
  const design = useSession((s) => s.design);
  return design.switches.length === 0 ? <NothingToRehearse /> : <Rehearsal design={design} />;
}

/** The pair whose path is marked: the one that was chosen, else the first that communicates in the tree in view. */
function usePair({ trace }: Run, tree: string | null) {
  const [chosen, setPair] = useState<number | null>(null);
  const contacts = trace?.contacts ?? [];
  const usual = trace && tree ? contacts.findIndex((c) => inTree(trace, laneTree(trace, tree), c.vlan)) : 0;
  return { pair: chosen !== null && chosen < contacts.length ? chosen : Math.max(0, usual), setPair };
}

function Rehearsal({ design }: { design: Design }) {
  const { view } = useBench();
  const solved = useSession((s) => s.solved);
  const [picked, setPicked] = useState<string | null>(null);
  const script = design.scripts.find((s) => s.id === picked) ?? design.scripts[0] ?? null;
  const run = useRun(design, script);
  const { trace } = run;
  // What a script plugs in or makes has a name too.
  const named = useMemo(() => (script ? everNamed(design, script) : design), [design, script]);
  const [panel, setPanel] = useState<PanelId>('story');
  const [frame, setFrame] = useState<number | null>(null);
  // A script of no length, and a run that ended before it began, have a strip too.
  const moments = useMoments(trace, Math.max(SECOND, trace?.until ?? (script?.until ?? 30) * SECOND));
  const { at, moment, go } = moments;
  const tree = treeInView({ solved }, view)?.tree.id ?? null;
  const { pair, setPair } = usePair(run, tree);
  useStageCommands(moments, run.again);
  // Going to a moment closes the frame that was opened; the panel then shows the next one.
  const scrub = useCallback(
    (t: number) => {
      setFrame(null);
      go(t);
    },
    [go],
  );
  const openFrame = useCallback(
    (index: number) => {
      if (!trace) return;
      setFrame(index);
      setPanel('frame');
      go(trace.frames.at[index]!);
    },
    [trace, go],
  );
  const of = { design: named, script, trace, tree: tree ?? '', at };
  return (
    <>
      <TreeStrip />
      <main className="rehearsal">
        <aside className={styles.rehearsalScript} aria-label="Scripts">
          <ScriptPanel
            script={script}
            moment={moment}
            probed={trace?.contacts ?? NO_PROBES}
            onPick={setPicked}
            onAt={scrub}
          />
        </aside>
        <ChartAtMoment script={script} run={run} moments={moments} pair={pair} />
        <RehearsalSide {...of} panel={panel} onPanel={setPanel} frame={frame} onFrame={openFrame} onAt={scrub} />
        <Timeline {...of} run={run} moments={moments} pair={pair} onPair={setPair} onAt={scrub} onFrame={openFrame} />
      </main>
    </>
  );
}

interface Shared {
  readonly script: Script | null;
  readonly run: Run;
  readonly moments: Moments;
  readonly pair: number;
}

/** Time that a frame stays visible on the chart: at least this, or a share of the stretch that is shown. */
const LEAST_REACH = 2000;
const SHARE = 400;

function ChartAtMoment({ script, run, moments: { at, stretch }, pair }: Shared) {
  const { view, setView } = useBench();
  const inBrowser = useInBrowser();
  const reach = Math.max(LEAST_REACH, (stretch.to - stretch.from) / SHARE);
  return (
    <section className="rehearsal-chart" aria-label="The network at the moment">
      <ArrangementChoice value={view.arrangement} onPick={(arrangement) => setView({ arrangement })} />
      {inBrowser && <MomentChart script={script} trace={run.trace} at={at} reach={reach} pair={pair} />}
    </section>
  );
}

interface TimelineProps extends Shared {
  readonly design: Design;
  readonly tree: string;
  readonly onPair: (pair: number) => void;
  readonly onAt: (at: number) => void;
  readonly onFrame: (index: number) => void;
}

/** Moves an event of the script in time. */
function useMoveEvent(script: Script | null) {
  const { edit } = useBench();
  return useCallback(
    (id: string, seconds: number) =>
      script !== null &&
      edit(`Script ${script.name}: event at ${seconds} s`, [
        setField(
          'script',
          script.id,
          'events',
          script.events.map((e) => (e.id === id ? { ...e, at: seconds } : e)).sort((a, b) => a.at - b.at),
        ),
      ]),
    [edit, script],
  );
}

function Timeline({ design, script, run, tree, moments, pair, onPair, onAt, onFrame }: TimelineProps) {
  const { view } = useBench();
  const own = useSession((s) => s.design);
  const chosen = useMemo(() => portsOfSelection(own, view.selection), [own, view.selection]);
  const onMove = useMoveEvent(script);
  const { at, stretch, playing, speed, jump, play, setSpeed, zoom, all, around, setShown } = moments;
  const { trace, failed } = run;
  return (
    <section className="rehearsal-time" aria-label="Timeline">
      <TimeTools
        {...{ design, run, script, playing, speed, pair, chosen, onPair }}
        onJump={jump}
        onPlay={play}
        onSpeed={setSpeed}
        onZoom={zoom}
        onAll={all}
        onAround={around}
      />
      {trace && script ? (
        <Strip
          {...{ design, trace, script, tree, at, onAt, onMove, onFrame }}
          shown={stretch}
          onShown={setShown}
          first={chosen}
        />
      ) : (
        <p className="quiet pad">
          {script
            ? failed === null && 'The simulation is running.'
            : 'The timeline appears here once there is a script.'}
        </p>
      )}
    </section>
  );
}
