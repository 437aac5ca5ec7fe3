import { workFor } from '../server/sweep/queue';
import { queueUrl } from '../server/sweep/queue-url';
import { complain, print } from './files';

const MOST_THREADS = 256;

/** Works for reviews on other machines until a signal ends it; status 2 without a queue. */
export async function work({ threads }: { readonly threads?: string }): Promise<number> {
  const count = threads === undefined ? undefined : Number(threads);
  if (count !== undefined && !(Number.isInteger(count) && count >= 1 && count <= MOST_THREADS)) {
    complain(`--threads '${threads}' is not legal: say a whole number from 1 to ${MOST_THREADS}.`);
    return 2;
  }
  try {
    const url = queueUrl();
    if (url === null) {
      complain('No queue is named: set KNOT_PATH_QUEUE to one such as redis://10.0.0.5:6379.');
      return 2;
    }
    const { where, stop } = await workFor(url, count);
    await print(`Working for the queue at ${where}.\n`);
    await new Promise<void>((resolve) => {
      for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => resolve());
    });
    await stop();
    return 0;
  } catch (error) {
    complain((error as Error).message);
    return 2;
  }
}
