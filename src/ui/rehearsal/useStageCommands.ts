'use client';
import { useLayoutEffect } from 'react';
import { useBench } from '../session/context';
import type { Command } from '../session/commands';
import type { Moments } from './useMoments';

/** The keys of the rehearsal. */
export function useStageCommands({ jump, zoom, play }: Moments, again: () => void): void {
  const { setStageCommands } = useBench();
  // A key that comes right after a change finds commands that know of it.
  useLayoutEffect(() => {
    const commands: Command[] = [
      { id: 'next-change', title: 'Next change', keys: ['.'], run: () => jump(1) },
      { id: 'previous-change', title: 'Previous change', keys: [','], run: () => jump(-1) },
      { id: 'play', title: 'Play or stop the rehearsal', keys: ['Space'], run: play },
      { id: 'run-again', title: 'Run the rehearsal again', keys: ['A'], run: again },
      { id: 'zoom-in', title: 'Zoom in on time', keys: ['+'], run: () => zoom(0.5) },
      { id: 'zoom-out', title: 'Zoom out on time', keys: ['-'], run: () => zoom(2) },
    ];
    setStageCommands(commands);
    return () => setStageCommands([]);
  }, [jump, zoom, play, again, setStageCommands]);
}
