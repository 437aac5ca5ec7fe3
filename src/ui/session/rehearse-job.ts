/** A run in a worker of its own, which can be stopped. */
import type { Design, Script } from '../../core/design';
import type { Trace } from '../../core/trace';
import type { RehearseRequest } from '../../workers/rehearse';
import { runJob } from '../../workers/run-job';
import type { Job } from '../../workers/run-job';

export type RehearseJob = Job<Trace>;

/** Longest time without a message from the worker; it reports ten times a second while it runs. */
const SILENCE_MS = 30_000;

export const startRehearsing = (design: Design, script: Script, onProgress: (seconds: number) => void): RehearseJob =>
  runJob<RehearseRequest, number, Trace>(
    new Worker(new URL('../../workers/rehearse.ts', import.meta.url), { type: 'module' }),
    { design, script },
    { onProgress, silence: SILENCE_MS, failure: (why) => `The rehearsal stopped: ${why} Run it again with A.` },
  );
