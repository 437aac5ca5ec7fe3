/** Designs that run as networks of agents, each in a process of its own for as long as the page that asked is there. */
import type { ChildProcess } from 'node:child_process';
import { createSocket } from 'node:dgram';
import { createInterface } from 'node:readline';
import { nanoid } from 'nanoid';
import { standInEvent, standInRequest, standInSwitch } from '../api/stand-in';
import type { StandInEvent, StandInLine } from '../api/stand-in';
import { Problem, notFound } from './problem';
import { asFiles, parsedBody, startProgram } from './program';

const MOST = 4;
/** Milliseconds between two lines that say that it runs: by these the server sees that the page has gone. */
const PULSE = 2000;

const running = new Map<string, ChildProcess>();

/** A UDP port that is free at the moment. */
const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const socket = createSocket('udp4').bind(0, '127.20.0.1', () => {
      const { port } = socket.address();
      socket.close(() => resolve(port));
    });
    // Where this address is not there, the agents say so.
    socket.once('error', () => resolve(1161));
  });

/** The agents of a design, and the secret that they answer by. */
function start(file: string, port: number, speed: number, community: string): ChildProcess {
  const env: NodeJS.ProcessEnv = { ...process.env, KNOT_PATH_SNMP_COMMUNITY: community };
  // A user of the surroundings would be asked for keys that the page does not have.
  delete env.KNOT_PATH_SNMP_USER;
  return startProgram(['stand-in', file, '--json', '--port', String(port), '--speed', String(speed)], env);
}

/** Sends what the program says: its agents once, then that it runs; or why it does not. */
function follow(child: ChildProcess, id: string, community: string, send: (line: StandInLine) => void): void {
  let said = '';
  child.stderr!.setEncoding('utf8').on('data', (text: string) => (said = `${said}${text}`.slice(-2000)));
  createInterface({ input: child.stdout! }).once('line', (line) => {
    const switches = standInSwitch.array().safeParse(JSON.parse(line));
    if (switches.success) send({ kind: 'ready', id, community, switches: switches.data });
  });
  child.once('exit', () => send({ kind: 'failed', sentence: said.trim() || 'The network stopped.' }));
  child.once('error', (error) => send({ kind: 'failed', sentence: `The network was not started: ${error.message}.` }));
}

/** Starts a design as a network; the answer is JSON a line, and closing it ends the network. */
export async function runNetwork(body: string, gone: AbortSignal): Promise<Response> {
  const { design, speed } = parsedBody(body, standInRequest);
  if (running.size >= MOST)
    throw new Problem(429, 'too-many', `${MOST} designs run as networks already: stop one of them first.`);
  const { files, remove } = await asFiles({ design });
  const [id, community] = [nanoid(12), nanoid(16)];
  const child = start(files.design!, await freePort(), speed, community);
  running.set(id, child);
  const encoder = new TextEncoder();
  let pulse: ReturnType<typeof setInterval> | undefined;
  const end = () => {
    clearInterval(pulse);
    running.delete(id);
    child.kill('SIGTERM');
    remove();
  };
  gone.addEventListener('abort', end);
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      let open = true;
      const send = (line: StandInLine) => {
        if (!open) return;
        if (gone.aborted || line.kind === 'failed') open = false;
        try {
          controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
          if (!open) controller.close();
        } catch {
          open = false;
        }
        if (!open) end();
      };
      follow(child, id, community, send);
      pulse = setInterval(() => send({ kind: 'running' }), PULSE);
    },
    cancel: end,
  });
  return new Response(stream, {
    headers: { 'Content-Type': 'application/x-ndjson', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' },
  });
}

const lineOf = (event: StandInEvent): string => `${event.kind} ${'link' in event ? event.link : event.switch}`;

/** Lets something happen in a network that runs. */
export function networkEvent(id: string, body: string): Response {
  const child = running.get(id);
  if (!child) throw notFound('running network', id);
  const event = parsedBody(body, standInEvent);
  child.stdin!.write(`${lineOf(event).replace(/[\r\n]/g, ' ')}\n`);
  return Response.json({ done: true });
}
