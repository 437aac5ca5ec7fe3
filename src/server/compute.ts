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

async function answered(
  designs: Readonly<Record<string, unknown>>,
  args: (files: Readonly<Record<string, string>>) => string[],
  gone: AbortSignal,
): Promise<Response> {
  if (busy >= MOST) throw new Problem(429, 'too-many', `${MOST} reviews and plans are on their way: ask again later.`);
  busy++;
  try {
    const { files, remove } = await asFiles(designs);
    try {
      const text = await printed(args(files), gone);
      return new Response(text, { headers: { 'Content-Type': 'application/json', 'Cache-Control': 'no-store' } });
    } finally {
      remove();
    }
  } finally {
    busy--;
  }
}

/** Findings, failures and missing cables of a design. */
export function reviewOf(body: string, gone: AbortSignal): Promise<Response> {
  const { design, pairs, measure } = parsedBody(body, reviewRequest);
  const args = ['--json', '--measure', measure, ...(pairs ? ['--pairs'] : [])];
  return answered({ design }, (files) => ['review', files.design!, ...args], gone);
}

/** The steps from one design to another. */
export function planOf(body: string, gone: AbortSignal): Promise<Response> {
  const { from, to, watch = [], at, temporary, seconds } = parsedBody(body, planRequest);
  const args = [
    '--json',
    '--seconds',
    String(seconds),
    ...watch.flatMap(([a, b]) => ['--watch', `${a},${b}`]),
    ...(at === undefined ? [] : ['--at', at]),
    ...(temporary ? [] : ['--no-temporary']),
  ];
  return answered({ from, to }, (files) => ['plan', files.from!, files.to!, ...args], gone);
}
