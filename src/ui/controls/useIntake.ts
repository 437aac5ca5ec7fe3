'use client';
/** What files hold, read in a worker: the page stays usable, however large they are. */
import { useEffect, useState } from 'react';
import type { Design } from '../../core/design';
import type { Intake, NetworkIntake, SourceFile } from '../../core/formats';
import type { IntakeRequest } from '../../workers/intake';
import { runJob } from '../../workers/run-job';

export interface IntakeState {
  /** Null while the files are read, and when there are none. */
  readonly intake: Intake | null;
  readonly reading: boolean;
  readonly fault: string | null;
}

const NOTHING: IntakeState = { intake: null, reading: false, fault: null };

export function useIntake(
  into: Design | null,
  files: readonly SourceFile[],
  how: NetworkIntake = 'beside',
): IntakeState {
  const [state, setState] = useState<IntakeState>(NOTHING);
  useEffect(() => {
    if (files.length === 0) return setState(NOTHING);
    setState({ ...NOTHING, reading: true });
    const job = runJob<IntakeRequest, never, Intake>(
      new Worker(new URL('../../workers/intake.ts', import.meta.url), { type: 'module' }),
      { into, files, how },
      { failure: (why) => `The files could not be read: ${why}` },
    );
    job.done.then(
      (intake) => intake && setState({ ...NOTHING, intake }),
      (error: Error) => setState({ ...NOTHING, fault: error.message }),
    );
    return job.drop;
  }, [into, files, how]);
  return state;
}
