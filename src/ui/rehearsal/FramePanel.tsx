'use client';
import { SECOND, vlanTreeId } from '../../core/standard';
import { useState } from 'react';
import { groupBy } from '../../core/design';
import type { Design } from '../../core/design';
import { firstFrom, frameAt, markAt, portWords, stepFrame, treesWords } from '../../core/trace';
import type { Trace } from '../../core/trace';
import { FrameFields } from '../controls/FrameFields';
import { FrameWhy } from './FrameWhy';
import styles from './FramePanel.module.css';

const KIND = {
  config: 'classic configuration BPDU',
  notification: 'classic topology change notification',
  rst: 'rapid BPDU',
  mst: 'BPDU with instances',
  lacp: 'LACPDU',
  own: 'PDU of proprietary negotiation',
  oam: 'keepalive (OAMPDU)',
} as const;

interface Props {
  design: Design;
  trace: Trace;
  /** Null for the first one of the tree in view from the moment on. */
  index: number | null;
  /** Microseconds. */
  at: number;
  /** VLAN of the tree in view, by whose frames one steps; 0 for a tree of all VLANs. */
  vlan: number;
  onGo: (index: number) => void;
}

/** One control frame field by field beside its octets, with what each receiver did with it and why. */
export function FramePanel({ design, trace, index: opened, at, vlan, onGo }: Props) {
  const [every, setEvery] = useState(false);
  const { frames } = trace;
  const meant = (i: number) => every || markAt(frames, i, vlan) !== null;
  const next = firstFrom(frames, at) - 1;
  const index = opened ?? stepFrame(frames, next, 1, meant) ?? stepFrame(frames, frames.count, -1, meant);
  if (index === null) return <p className="quiet">No frame of this tree was sent.</p>;
  const frame = frameAt(frames, index);
  const [earlier, later] = [stepFrame(frames, index, -1, meant), stepFrame(frames, index, 1, meant)];
  const receivers = [...groupBy(frame.heard, (h) => h.port)].map(([port, receptions]) => ({ port, receptions }));
  return (
    <section aria-label="Frame">
      <h2>{portWords(design, frame.from)}</h2>
      <p className="mono quiet">
        {(frame.at / SECOND).toFixed(6)} s · {KIND[frame.kind]}
        {frame.vlan === null ? '' : `, tree of ${treesWords(trace, [vlanTreeId(frame.vlan)])}`}
      </p>
      <p className={styles.frameSteps}>
        <button className="tool" disabled={earlier === null} onClick={() => earlier !== null && onGo(earlier)}>
          earlier
        </button>
        <button className="tool" disabled={later === null} onClick={() => later !== null && onGo(later)}>
          later
        </button>
        <span className="quiet">
          frame {index + 1} of {frames.count}
        </span>
        {vlan !== 0 && (
          <label className="quiet">
            <input type="checkbox" checked={every} onChange={(e) => setEvery(e.target.checked)} /> every tree
          </label>
        )}
      </p>
      {frame.heard.length === 0 && (
        <p className="sentence">No device received it: it was lost, or the port has no neighbour.</p>
      )}
      {receivers.map(({ port, receptions }) => (
        <FrameWhy key={port} design={design} trace={trace} frame={frame} receptions={receptions} onGo={onGo} />
      ))}
      <FrameFields octets={frame.octets} />
    </section>
  );
}
