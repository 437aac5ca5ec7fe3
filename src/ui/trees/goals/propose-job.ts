/** The search for proposals in a worker of its own, which can be cancelled. */
import type { Design } from '../../../core/design';
import type { Progress, Proposals } from '../../../core/goals';
import { runJob } from '../../../workers/run-job';
import type { Job } from '../../../workers/run-job';

export type ProposeJob = Job<Proposals>;

export const startProposing = (design: Design, onProgress: (progress: Progress) => void): ProposeJob =>
  runJob<Design, Progress, Proposals>(
    new Worker(new URL('../../../workers/propose.ts', import.meta.url), { type: 'module' }),
    design,
    { onProgress, failure: (why) => `The proposals could not be computed: ${why}` },
  );
