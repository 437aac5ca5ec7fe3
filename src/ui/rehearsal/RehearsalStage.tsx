'use client';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { everNamed, setField } from '../../core/design';
import type { Probe } from '../../core/design';
import type { Trace } from '../../core/trace';
import { TreeStrip } from '../controls/TreeStrip';
import { treeInView, useBench, useSession } from '../session/context';
import type { Command } from '../session/commands';
import { useInBrowser } from '../session/useInBrowser';
import { Compare } from './Compare';
import { FramePanel } from './FramePanel';
import { inTree, laneTree, vlanOf } from './moment';
import { MomentChart } from './MomentChart';
import { ScriptPanel } from './ScriptPanel';
import { Story } from './Story';
import { portsOfSelection } from './selected';
import { Strip, zoomed } from './Strip';
import type { Window } from './StripParts';
import { TimeTools } from './TimeTools';
import { Timers } from './Timers';
import { usePlaying } from './usePlaying';
import { useRun } from './useRun';
import { SECOND } from '../../core/standard';

const PANELS = [
  { id: 'story', name: 'What happened' },
  { id: 'frame', name: 'Frame' },
  { id: 'compare', name: 'Compare' },
  { id: 'timers', name: 'Timers' },
] as const;
const NO_PROBES: readonly Probe[] = [];

/** Moments at which something changed: roles, states, contact. */
function changesOf(trace: Trace): number[] {
  const all = new Set<number>();
  for (const lane of [...trace.ports, ...trace.contacts, ...trace.roots]) for (const s of lane.spans) all.add(s.at);
  for (const h of trace.happenings) if (h.kind === 'script') all.add(h.at);
  return [...all].sort((a, b) => a - b);
}

/** Rehearsal: a script, the network at a moment, what happened, and time as a strip below. */
export function RehearsalStage() {
  const { view, setView, setStageCommands, edit } = useBench();
  const design = useSession((s) => s.design);
  const solved = useSession((s) => s.solved);
  const inBrowser = useInBrowser();
  const [picked, setPicked] = useState<string | null>(null);
  const script = design.scripts.find((s) => s.id === picked) ?? design.scripts[0] ?? null;
  const run = useRun(design, script);
  // What a script plugs in or makes has a name too.
  const named = useMemo(() => (script ? everNamed(design, script) : design), [design, script]);
  const { trace, again } = run;
  const [at, setAt] = useState(0);
  const [shown, setShown] = useState<Window | null>(null);
  const [panel, setPanel] = useState<(typeof PANELS)[number]['id']>('story');
  const [frame, setFrame] = useState<number | null>(null);
  const [playing, setPlaying] = useState(false);
  const [speed, setSpeed] = useState(1);
  const [chosenPair, setPair] = useState<number | null>(null);
  const until = trace?.until ?? (script?.until ?? 30) * SECOND;
  // The same object as long as nothing of it changes, so that the lanes are not drawn again while the moment moves.
  const window_ = useMemo(() => (shown && shown.to <= until + 1 ? shown : { from: 0, to: until }), [shown, until]);
  const changes = useMemo(() => (trace ? changesOf(trace) : []), [trace]);
  const of = treeInView({ solved }, view);
  // The way of a pair that talks in the tree in view, unless another one is asked for.
  const usual = trace && of ? trace.contacts.findIndex((c) => inTree(trace, laneTree(trace, of.tree.id), c.vlan)) : 0;
  const pair = chosenPair !== null && chosenPair < (trace?.contacts.length ?? 0) ? chosenPair : Math.max(0, usual);

  // Who only wants to know the moment when asked is not drawn again with each.
  const latest = useRef(at);
  useEffect(() => void (latest.current = at), [at]);
  const moment = useCallback(() => latest.current, []);

  usePlaying(playing, speed, until, setAt, setPlaying);

  const jump = useCallback(
    (by: 1 | -1) =>
      setAt((now) => (by > 0 ? changes.find((t) => t > now + 0.5) : changes.findLast((t) => t < now - 0.5)) ?? now),
    [changes],
  );
  const go = useCallback((t: number) => {
    setPlaying(false);
    setAt(t);
    // A moment outside of what is shown is brought in.
    setShown((w) =>
      w && (t < w.from || t > w.to)
        ? { from: Math.max(0, t - (w.to - w.from) / 2), to: Math.max(0, t - (w.to - w.from) / 2) + (w.to - w.from) }
        : w,
    );
  }, []);
  // Whoever goes to a moment leaves the frame that was opened; the panel then shows the next one.
  const scrub = useCallback(
    (t: number) => {
      setFrame(null);
      go(t);
    },
    [go],
  );
  const zoom = useCallback(
    (factor: number) =>
      setShown((w) => {
        const now = w ?? { from: 0, to: until };
        const middle = at >= now.from && at <= now.to ? at : (now.from + now.to) / 2;
        return zoomed(now, middle, factor, until);
      }),
    [at, until],
  );
  const move = useCallback(
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
  const openFrame = useCallback(
    (index: number) => {
      if (!trace) return;
      setFrame(index);
      setPanel('frame');
      go(trace.frames.at[index]!);
    },
    [trace, go],
  );
  const around = useCallback(
    () => setShown({ from: Math.max(0, at - 50_000), to: Math.min(until, Math.max(0, at - 50_000) + 100_000) }),
    [at, until],
  );
  // A key that comes right after a change finds commands that know of it.
  useLayoutEffect(() => {
    const commands: Command[] = [
      { id: 'next-change', title: 'Next change', keys: ['.'], run: () => jump(1) },
      { id: 'previous-change', title: 'Previous change', keys: [','], run: () => jump(-1) },
      { id: 'play', title: 'Play or stop the rehearsal', keys: ['Space'], run: () => setPlaying((p) => !p) },
      { id: 'run-again', title: 'Run the rehearsal again', keys: ['A'], run: again },
      { id: 'zoom-in', title: 'Zoom in on time', keys: ['+'], run: () => zoom(0.5) },
      { id: 'zoom-out', title: 'Zoom out on time', keys: ['-'], run: () => zoom(2) },
    ];
    setStageCommands(commands);
    return () => setStageCommands([]);
  }, [jump, zoom, again, setStageCommands]);

  const chosen = useMemo(() => portsOfSelection(design, view.selection), [design, view.selection]);
  if (design.switches.length === 0)
    return (
      <main className="empty-chart">
        <h2>Nothing to rehearse yet</h2>
        <p>Draw the network in Cabling first. Then fail a link here and watch the trees converge.</p>
      </main>
    );
  return (
    <>
      <TreeStrip />
      <main className="rehearsal">
        <aside className="rehearsal-script" aria-label="Scripts">
          <ScriptPanel
            script={script}
            moment={moment}
            probed={trace?.contacts ?? NO_PROBES}
            onPick={setPicked}
            onAt={scrub}
          />
        </aside>
        <section className="rehearsal-chart" aria-label="The network at the moment">
          <div className="chart-tools">
            {(['depth', 'cabling'] as const).map((kind) => (
              <button
                key={kind}
                className="tool"
                aria-pressed={view.arrangement === kind}
                onClick={() => setView({ arrangement: kind })}
              >
                {kind}
              </button>
            ))}
          </div>
          {inBrowser && (
            <MomentChart
              script={script}
              trace={trace}
              at={at}
              reach={Math.max(2000, (window_.to - window_.from) / 400)}
              pair={pair}
            />
          )}
        </section>
        <aside className="rehearsal-side" aria-label="What the run shows">
          <div className="boards" role="radiogroup" aria-label="Beside the chart">
            {PANELS.map((p) => (
              <button
                key={p.id}
                role="radio"
                aria-checked={panel === p.id}
                className="tool"
                onClick={() => setPanel(p.id)}
              >
                {p.name}
              </button>
            ))}
          </div>
          <div className={panel === 'story' ? 'rehearsal-panel holds-story' : 'rehearsal-panel'}>
            {panel === 'timers' && <Timers />}
            {trace && script && panel === 'story' && (
              <Story design={named} script={script} trace={trace} at={at} onAt={scrub} />
            )}
            {trace && panel === 'frame' && trace.frames.count > 0 && (
              <FramePanel
                design={named}
                trace={trace}
                index={frame}
                at={at}
                vlan={vlanOf(laneTree(trace, of?.tree.id ?? ''))}
                onGo={(i) => {
                  setFrame(i);
                  go(trace.frames.at[i]!);
                }}
              />
            )}
            {trace && script && panel === 'compare' && <Compare key={script.id} script={script} trace={trace} />}
            {!trace && panel !== 'timers' && (
              <p className="quiet">{script ? 'The simulation is running.' : 'Make a script first.'}</p>
            )}
          </div>
        </aside>
        <section className="rehearsal-time" aria-label="Timeline">
          <TimeTools
            design={named}
            run={run}
            script={script}
            playing={playing}
            speed={speed}
            pair={pair}
            chosen={chosen}
            onJump={jump}
            onPlay={() => setPlaying((p) => !p)}
            onSpeed={setSpeed}
            onZoom={zoom}
            onAll={() => setShown(null)}
            onAround={around}
            onPair={setPair}
          />
          {trace && script ? (
            <Strip
              design={named}
              trace={trace}
              script={script}
              tree={of?.tree.id ?? ''}
              at={at}
              shown={window_}
              onAt={scrub}
              onShown={setShown}
              first={chosen}
              onMove={move}
              onFrame={openFrame}
            />
          ) : (
            <p className="quiet pad">
              {script
                ? run.failed === null
                  ? 'Rehearsing…'
                  : ''
                : 'The timeline appears here once there is a script.'}
            </p>
          )}
        </section>
      </main>
    </>
  );
}
