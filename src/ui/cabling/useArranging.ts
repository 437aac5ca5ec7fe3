import { useCallback, useState } from 'react';
import { useBench } from '../session/context';
import { moveAction } from './actions';
import { arrange } from './arrange-job';
import type { ArrangeJob, Way } from './arrange-job';
import type { Cabling } from './useCabling';

/** Automatic arrangement in a worker: the job under way, and how to start one. */
export function useArranging({ design, run, placeOf }: Cabling) {
  const { say } = useBench();
  const [job, setJob] = useState<ArrangeJob | null>(null);
  const startArranging = useCallback(
    async (way: Way) => {
      if (design.switches.length === 0) return say({ text: 'There is nothing to arrange yet.' });
      const started = arrange(design, way);
      setJob(started);
      try {
        const found = await started.done;
        if (found) run(moveAction(design, found, placeOf, 'Arrange automatically'));
      } catch (error) {
        say({ text: `The arrangement failed: ${error instanceof Error ? error.message : String(error)}`, alarm: true });
      } finally {
        setJob(null);
      }
    },
    [design, placeOf, run, say],
  );
  return { job, startArranging };
}
