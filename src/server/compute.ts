/** Reviews and plans of designs that a request brings along, each in a process of its own. */
import { planRequest, reviewRequest } from '../api/compute';
import { Problem } from './problem';
import { asFiles, parsedBody, startProgram } from './program';

const MOST = 4;
let busy = 0;

/** What a command prints as JSON; its complaint where it cannot do what is asked. It ends when the asker goes. */
function printed(args: readonly string[], gone: AbortSignal): Promise<string> {
  const child = startProgram(args);
  const out: Buffer[] = [];
  let said = '';
  child.stdout!.on('data', (part: Buffer) => out.push(part));
  child.stderr!.setEncoding('utf8').on('data', (text: string) => (said = `${said}${text}`.slice(-4000)));
  gone.addEventListener('abort', () => child.kill('SIGTERM'));
  return new Promise((resolve, reject) => {
    child.once('error', (error) => reject(new Problem(503, 'not-started', `It was not started: ${error.message}.`)));
    child.once('close', (code) => {
      if (code === 0 || code === 1) resolve(Buffer.concat(out).toString('utf8'));
      else reject(new Problem(422, 'refused', said.trim() || 'It was ended before it was done.'));
    });
  });
}

/** What a command prints, line by line as it prints it; where it cannot do what is asked the last line says why. */
function streamed(args: readonly string[], gone: AbortSignal, ended: () => void): Response {
  const child = startProgram(args);
  let said = '';
  let open = true;
  child.stderr!.setEncoding('utf8').on('data', (text: string) => (said = `${said}${text}`.slice(-4000)));
  gone.addEventListener('abort', () => child.kill('SIGTERM'));
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (part: Uint8Array) => {
        try {
          if (open) controller.enqueue(part);
        } catch {
          // The reader went without a word.
          open = false;
          child.kill('SIGTERM');
        }
      };
      const end = (sentence: string | null) => {
        if (!open) return;
        if (sentence !== null) send(new TextEncoder().encode(`${JSON.stringify({ kind: 'failed', sentence })}\n`));
        if (open) controller.close();
        open = false;
        ended();
      };
      child.stdout!.on('data', (part: Buffer) => send(new Uint8Array(part)));
      child.once('error', (error) => end(`It was not started: ${error.message}.`));
      child.once('close', (code) =>
        end(code === 0 || code === 1 ? null : said.trim() || 'It was ended before it was done.'),
      );
    },
    cancel: () => {
      open = false;
      child.kill('SIGTERM');
      ended();
    },
  });
  return new Response(stream, {
    headers: { 'Content-Type': 'application/x-ndjson', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' },
  });
}

interface Asked {
  readonly designs: Readonly<Record<string, unknown>>;
  readonly args: (files: Readonly<Record<string, string>>) => string[];
  /** Line by line, or all at the end. */
  readonly progress: boolean;
}

async function answered({ designs, args, progress }: Asked, gone: AbortSignal): Promise<Response> {
  if (busy >= MOST) throw new Problem(429, 'too-many', `${MOST} reviews and plans are on their way: ask again later.`);
  busy++;
  let remove = () => {};
  const ended = () => {
    busy--;
    remove();
  };
  try {
    const made = await asFiles(designs);
    remove = made.remove;
    if (progress) return streamed([...args(made.files), '--progress'], gone, once(ended));
    const text = await printed([...args(made.files), '--json'], gone);
    ended();
    return new Response(text, { headers: { 'Content-Type': 'application/json', 'Cache-Control': 'no-store' } });
  } catch (error) {
    ended();
    throw error;
  }
}

/** Does what it is given once, however often it is called. */
function once(what: () => void): () => void {
  let done = false;
  return () => {
    if (!done) what();
    done = true;
  };
}

/** Findings, failures and missing cables of a design. */
export function reviewOf(body: string, gone: AbortSignal): Promise<Response> {
  const { design, pairs, measure, progress } = parsedBody(body, reviewRequest);
  const args = ['--measure', measure, ...(pairs ? ['--pairs'] : [])];
  return answered({ designs: { design }, args: (files) => ['review', files.design!, ...args], progress }, gone);
}

/** The steps from one design to another. */
export function planOf(body: string, gone: AbortSignal): Promise<Response> {
  const { from, to, watch = [], at, temporary, seconds, progress } = parsedBody(body, planRequest);
  const args = [
    '--seconds',
    String(seconds),
    ...watch.flatMap(([a, b]) => ['--watch', `${a},${b}`]),
    ...(at === undefined ? [] : ['--at', at]),
    ...(temporary ? [] : ['--no-temporary']),
  ];
  return answered({ designs: { from, to }, args: (f) => ['plan', f.from!, f.to!, ...args], progress }, gone);
}
