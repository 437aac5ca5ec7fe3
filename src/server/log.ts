/** The log: one line of JSON for each request, and for what goes wrong, on standard error. */
import pino from 'pino';

const shared = globalThis as { knotPathLog?: pino.Logger };

/** `KNOT_PATH_LOG` sets the level (`info`, `warn`, `silent`, …); standard output stays free for what is said to people. */
export const log = (): pino.Logger =>
  (shared.knotPathLog ??= pino(
    { level: process.env.KNOT_PATH_LOG ?? (process.env.JEST_WORKER_ID ? 'silent' : 'info'), base: undefined },
    pino.destination({ dest: 2, sync: true }),
  ));

/** What went wrong inside, under the id of its request. */
export const logCause = (requestId: string, cause: string): void =>
  log().error({ request: requestId, cause }, 'failed');
