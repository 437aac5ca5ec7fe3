/** A discovery on its way: lines of progress, then what was read; it ends when the reader goes. */
import { discoverRequest } from '../api/observe';
import type { DiscoverLine } from '../api/observe';
import { observeMessages as say } from '../core/messages';
import { Problem } from './problem';
import { parsedBody } from './program';
import { discover } from './snmp/discover';
import { readTarget } from './snmp/walk';
import type { Target } from './snmp/walk';

/** A request to discover, checked; credentials stay in it, and are in no sentence. */
function asked(body: string) {
  const read = parsedBody(body, discoverRequest);
  const seeds = read.addresses.map((text): Target => {
    const target = readTarget(text);
    if (!target) throw new Problem(400, 'bad-address', say['bad-address']({ text }));
    return target;
  });
  return { ...read, seeds };
}

/** Starts at once; the answer is JSON a line. */
export function discovery(body: string, gone: AbortSignal): Response {
  const { seeds, credentials, fence } = asked(body);
  const encoder = new TextEncoder();
  const stop = new AbortController();
  gone.addEventListener('abort', () => stop.abort());
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const send = (line: DiscoverLine) => {
        if (!stop.signal.aborted) controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      };
      const progress = (now: { done: number; known: number; address: string | null }) =>
        send({ kind: 'progress', ...now });
      const { observations, faults } = await discover({ seeds, credentials, fence, signal: stop.signal, progress });
      send({ kind: 'read', observations: [...observations], faults: [...faults] });
      if (!stop.signal.aborted) controller.close();
    },
    cancel: () => stop.abort(),
  });
  return new Response(stream, {
    headers: { 'Content-Type': 'application/x-ndjson', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' },
  });
}
