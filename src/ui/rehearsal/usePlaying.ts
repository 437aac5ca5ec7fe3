'use client';
import { useEffect } from 'react';
import type { Dispatch, SetStateAction } from 'react';

/** Moves the moment on while a run is played, `speed` times as fast as real time, and stops at its end. */
export function usePlaying(
  playing: boolean,
  speed: number,
  until: number,
  setAt: Dispatch<SetStateAction<number>>,
  setPlaying: (playing: boolean) => void,
): void {
  useEffect(() => {
    if (!playing) return;
    let last = performance.now();
    let timer = requestAnimationFrame(function step(now) {
      const passed = (now - last) * 1000 * speed;
      last = now;
      setAt((t) => {
        if (t + passed >= until) setPlaying(false);
        return Math.min(until, t + passed);
      });
      timer = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(timer);
  }, [playing, speed, until, setAt, setPlaying]);
}
