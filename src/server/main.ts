/** The server as `npm start` runs it: one process, which ends at a signal. */
import http from 'node:http';
import next from 'next';
import { VERSION } from '../api/version';
import { publish } from './bus';
import { databaseFile, projectRoot } from './database';
import { isLoopback } from './gate';
import { log } from './log';
import { claimFile, portHolder } from './neighbours';
import { requestListener } from './listener';
import { endWithParent, onSignals } from './signals';
import { setSecret } from './session-cookie';
import { setStore } from './store';
import { startThread } from './thread-store';

/** Says in one sentence why the server cannot start, and ends. */
function giveUp(sentence: string): never {
  process.stderr.write(`Knot Path does not start: ${sentence}\n`);
  process.exit(1);
}

const host = process.env.HOST ?? '127.0.0.1';
const portText = process.env.PORT ?? '4180';
const shownAddress = (port: number) => `http://${host.includes(':') ? `[${host}]` : host}:${port}`;

function checkSettings(): number {
  const port = Number(portText);
  if (!/^\d+$/.test(portText) || port < 1 || port > 65535)
    giveUp(`PORT '${portText.slice(0, 40)}' is not legal: a number from 1 to 65535.`);
  if (!isLoopback(host) && !process.env.KNOT_PATH_PASSWORD && process.env.KNOT_PATH_OPEN !== 'yes')
    giveUp(
      `HOST=${host.slice(0, 60)} lets other machines reach it without a password: set KNOT_PATH_PASSWORD, or accept the risk with KNOT_PATH_OPEN=yes.`,
    );
  return port;
}

function listen(server: http.Server, port: number): Promise<void> {
  return new Promise((resolve) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE')
        return void portHolder(host, port).then((holder) =>
          giveUp(`port ${port} is taken by ${holder}: end that program, or set PORT to another number.`),
        );
      if (error.code === 'EACCES')
        giveUp(`port ${port} may not be used by this user: set PORT to a number above 1023.`);
      if (error.code === 'EADDRNOTAVAIL' || error.code === 'ENOTFOUND')
        giveUp(`HOST '${host.slice(0, 60)}' is no address of this machine: set HOST to one, or leave it out.`);
      giveUp(`${error.message}.`);
    });
    server.listen(port, host, resolve);
  });
}

/** How long a connection stays open between two requests: longer than the minute that proxies keep one. */
const KEPT_OPEN_MS = 75_000;

async function start(): Promise<void> {
  const port = checkSettings();
  const file = databaseFile();
  const listener = requestListener();
  const server = http.createServer(listener.handle);
  server.on('clientError', listener.clientError);
  // A connection that is closed just as it is used again fails a request: the one who asks, or a proxy, closes it first.
  server.keepAliveTimeout = KEPT_OPEN_MS;
  onSignals(async () => {
    server.close();
    setTimeout(() => server.closeAllConnections(), 400).unref();
    await listener.end();
  });
  endWithParent();
  await listen(server, port);
  const claim = await claimFile(file, shownAddress(port));
  if (claim.warning) process.stderr.write(`${claim.warning}\n`);
  const thread = await startThread(file, publish).catch((error: Error) => giveUp(error.message));
  listener.onEnd(async () => {
    await thread.close();
    claim.release();
  });
  setSecret(thread.secret);
  setStore(thread.store);
  if (thread.seeded) process.stdout.write('Seeded the demo design, Brackwater Ferries.\n');
  const app = next({ dev: false, dir: projectRoot(), hostname: host, port });
  await app.prepare();
  listener.ready(app.getRequestHandler());
  log().info({ version: VERSION, file, address: shownAddress(port) }, 'started');
  process.stdout.write(`Knot Path is at ${shownAddress(port)}\n`);
}

void start().catch((error: unknown) => giveUp(error instanceof Error ? error.message : String(error)));
