'use client';
import { Suspense, lazy } from 'react';
import type { Design, Script } from '../../core/design';
import type { Trace } from '../../core/trace';
import { FramePanel } from './FramePanel';
import { laneTree, vlanOf } from './moment';
import { PortsNow } from './PortsNow';
import { Story } from './Story';
import { Timers } from './Timers';
import { OneOf } from '../controls/OneOf';
import styles from './RehearsalSide.module.css';

// Its charts are large.
const Compare = lazy(() => import('./Compare').then((m) => ({ default: m.Compare })));

const PANELS = [
  { id: 'story', name: 'What happened' },
  { id: 'ports', name: 'Ports' },
  { id: 'frame', name: 'Frame' },
  { id: 'compare', name: 'Compare' },
  { id: 'timers', name: 'Timers' },
] as const;
export type PanelId = (typeof PANELS)[number]['id'];

interface Props {
  /** With the names of what a script plugs in. */
  readonly design: Design;
  readonly script: Script | null;
  readonly trace: Trace | null;
  readonly tree: string;
  readonly at: number;
  readonly panel: PanelId;
  readonly onPanel: (panel: PanelId) => void;
  /** Index of the frame that is open; null for the next one after the moment. */
  readonly frame: number | null;
  readonly onFrame: (index: number) => void;
  readonly onAt: (at: number) => void;
}

/** What the run shows beside the chart: the story, a frame, runs compared, timers. */
export function RehearsalSide(props: Props) {
  const { panel, onPanel } = props;
  return (
    <aside className={styles.rehearsalSide} aria-label="What the run shows">
      <OneOf className="boards" label="Beside the chart" options={PANELS} value={panel} onPick={onPanel} />
      <div
        className={
          panel === 'story' && props.trace ? `${styles.rehearsalPanel} ${styles.holdsStory}` : styles.rehearsalPanel
        }
      >
        <PanelContent {...props} />
      </div>
    </aside>
  );
}

function PanelContent({ design, script, trace, tree, at, panel, frame, onFrame, onAt }: Props) {
  if (panel === 'timers') return <Timers />;
  if (!trace || !script)
    return <p className="quiet">{script ? 'The simulation is running.' : 'Make a script first.'}</p>;
  if (panel === 'story') return <Story design={design} script={script} trace={trace} at={at} onAt={onAt} />;
  if (panel === 'ports') return <PortsNow {...{ design, trace, tree, at, onAt }} />;
  if (panel === 'compare')
    return (
      <Suspense>
        <Compare key={script.id} script={script} trace={trace} />
      </Suspense>
    );
  if (trace.frames.count === 0) return null;
  const vlan = vlanOf(laneTree(trace, tree));
  return <FramePanel design={design} trace={trace} index={frame} at={at} vlan={vlan} onGo={onFrame} />;
}
