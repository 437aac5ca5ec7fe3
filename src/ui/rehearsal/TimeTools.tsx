'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { hostById } from '../../core/design';
import type { Design, Script } from '../../core/design';
import type { Trace } from '../../core/trace';
import { saveLanes, savePcapng, saveStory } from './download';
import type { Run } from './useRun';
import { DropMenu } from '../controls/DropMenu';
import styles from './TimeTools.module.css';

const SPEEDS = [0.001, 0.01, 0.1, 1, 10, 60];

interface Props {
  design: Design;
  run: Run;
  script: Script | null;
  playing: boolean;
  speed: number;
  /** Index of the pair whose way is marked. */
  pair: number;
  /** Ports that are selected. */
  chosen: ReadonlySet<string>;
  onJump: (by: 1 | -1) => void;
  onPlay: () => void;
  onSpeed: (speed: number) => void;
  onZoom: (factor: number) => void;
  onAll: () => void;
  onAround: () => void;
  onPair: (pair: number) => void;
}

/** Above the strip: going through time, what is looked at, how the run stands, and taking it home. */
export function TimeTools({ design, run, script, playing, speed, pair, chosen, ...on }: Props) {
  const { trace } = run;
  return (
    <div className={styles.timeTools}>
      <button className="tool" onClick={() => on.onJump(-1)} aria-label="Previous change">
        ⇤
      </button>
      <button className="tool" onClick={on.onPlay} disabled={!trace}>
        {playing ? 'Stop' : 'Play'}
      </button>
      <button className="tool" onClick={() => on.onJump(1)} aria-label="Next change">
        ⇥
      </button>
      <select aria-label="Speed" value={speed} onChange={(e) => on.onSpeed(Number(e.target.value))}>
        {SPEEDS.map((s) => (
          <option key={s} value={s}>
            {s} × real time
          </option>
        ))}
      </select>
      <button className="tool" onClick={() => on.onZoom(0.5)} aria-label="Zoom in on time">
        +
      </button>
      <button className="tool" onClick={() => on.onZoom(2)} aria-label="Zoom out on time">
        −
      </button>
      <button className="tool" onClick={on.onAll}>
        All
      </button>
      <button className="tool" onClick={on.onAround}>
        0.1 s around now
      </button>
      {trace && trace.contacts.length > 1 && (
        <select
          className="pair"
          aria-label="Pair whose path is marked"
          value={pair}
          onChange={(e) => on.onPair(Number(e.target.value))}
        >
          {trace.contacts.map((lane, i) => (
            <option key={i} value={i}>
              {hostById(design, lane.from)?.name} – {hostById(design, lane.to)?.name}, VLAN {lane.vlan}
            </option>
          ))}
        </select>
      )}
      <span className="grow" />
      <Progress run={run} script={script} />
      {trace && <TakeHome design={design} trace={trace} chosen={chosen} />}
    </div>
  );
}

function Progress({ run, script }: { run: Run; script: Script | null }) {
  const { trace } = run;
  if (run.progress !== null)
    return (
      <span className="quiet" role="status">
        rehearsed {Math.max(0, run.progress).toFixed(0)} of {script?.until} s{' '}
        <Button onClick={run.cancel}>Cancel</Button>
      </span>
    );
  if (run.failed)
    return (
      <span className="alarm" role="alert">
        {run.failed} <Button onClick={run.again}>Run again</Button>
      </span>
    );
  if (!trace) return null;
  return (
    <span className="quiet" role="status">
      {run.stoppedEarly
        ? 'stopped before the start; the previous run is shown'
        : `${trace.ended === 'cancelled' ? 'stopped: ' : ''}run of ${trace.bpdus} BPDUs in ${Math.round(run.took)} ms`}
    </span>
  );
}

/** Frames of all or the selected links, events and lanes, as files. */
function TakeHome({ design, trace, chosen }: { design: Design; trace: Trace; chosen: ReadonlySet<string> }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const take = (what: () => void) => () => {
    setAnchor(null);
    what();
  };
  return (
    <>
      <button className="tool" aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        Export ▾
      </button>
      <DropMenu at={anchor} onClose={() => setAnchor(null)}>
        <MenuItem onClick={take(() => savePcapng(design, trace, null))}>Frames of all links (pcapng)</MenuItem>
        <MenuItem disabled={chosen.size === 0} onClick={take(() => savePcapng(design, trace, chosen))}>
          Frames of what is selected (pcapng)
        </MenuItem>
        {Object.values(trace.classes).some((c) => c.length > 1) && (
          <MenuItem onClick={take(() => savePcapng(design, trace, null, 'one-for-alike'))}>
            Frames of all links, one for VLANs that go alike (pcapng)
          </MenuItem>
        )}
        <MenuItem onClick={take(() => saveStory(design, trace))}>What happened (CSV)</MenuItem>
        <MenuItem onClick={take(() => saveLanes(design, trace))}>Lanes (CSV)</MenuItem>
      </DropMenu>
    </>
  );
}
