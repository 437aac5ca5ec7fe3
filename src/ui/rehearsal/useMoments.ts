'use client';
/** Where a run is looked at: the moment, the stretch of time that is shown, and playing. */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Trace } from '../../core/trace';
import { changesOf, around as stretchAround, broughtIn } from './stretch';
import { zoomed } from './Strip';
import type { Window } from '../chart/time-lanes';
import { usePlaying } from './usePlaying';

/** The moment in view and how it moves; all times are microseconds from the start of the run. */
export function useMoments(trace: Trace | null, until: number) {
  const [at, setAt] = useState(0);
  const [shown, setShown] = useState<Window | null>(null);
  const [playing, setPlaying] = useState(false);
  const [speed, setSpeed] = useState(1);
  // The same object as long as nothing of it changes, so that the lanes are not drawn again while the moment moves.
  const stretch = useMemo(() => (shown && shown.to <= until + 1 ? shown : { from: 0, to: until }), [shown, until]);
  const changes = useMemo(() => (trace ? changesOf(trace) : []), [trace]);
  // Whoever only asks for the moment is not drawn again with each.
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
    setShown((w) => broughtIn(w, t));
  }, []);
  const zoom = useCallback(
    (factor: number) =>
      setShown((w) => {
        const now = w ?? { from: 0, to: until };
        const middle = at >= now.from && at <= now.to ? at : (now.from + now.to) / 2;
        return zoomed(now, middle, factor, until);
      }),
    [at, until],
  );
  const around = useCallback(() => setShown(stretchAround(at, until)), [at, until]);
  const all = useCallback(() => setShown(null), []);
  const play = useCallback(() => setPlaying((p) => !p), []);
  return { at, moment, stretch, playing, speed, jump, go, zoom, around, all, play, setSpeed, setShown };
}

export type Moments = ReturnType<typeof useMoments>;
