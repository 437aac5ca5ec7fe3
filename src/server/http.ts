/** Requests in, responses out: limits, routes, and the stream of events. */
import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { openApi } from '../api/openapi';
import { clipped } from '../core/messages';
import { noticeStream } from './event-stream';
import { health } from './health';
import { logCause } from './log';
import { BODY_LIMIT, TOO_LARGE } from './limits';
import { Problem } from './problem';
import { failureOf, refusal } from './respond';
import type { Answer } from './respond';
import { findRoute } from './routes';
import { isSignedIn, sessionOf } from './session-cookie';
import { signIn, signOut } from './sign-in';
import { store } from './store';

const tooLarge = () => new Problem(413, 'too-large', TOO_LARGE);

/** The body as text; stops reading as soon as it grows past the limit. */
export async function readBody(request: Request): Promise<string> {
  if (Number(request.headers.get('content-length') ?? 0) > BODY_LIMIT) throw tooLarge();
  if (!request.body) return '';
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = request.body.getReader();
  for (let read = await reader.read(); !read.done; read = await reader.read()) {
    const part = read.value as Uint8Array;
    size += part.byteLength;
    if (size > BODY_LIMIT) {
      void reader.cancel();
      throw tooLarge();
    }
    parts.push(part);
  }
  if (size > 0 && !/^application\/json\b/.test(request.headers.get('content-type') ?? ''))
    throw new Problem(415, 'not-json', 'The request must be JSON: set Content-Type to application/json.');
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(Buffer.concat(parts));
  } catch {
    throw new Problem(400, 'not-utf-8', 'The request is not in UTF-8.');
  }
}

/** A file that is sent and then removed with its folder. */
function fileBody(file: string): ReadableStream<Uint8Array> {
  const stream = createReadStream(file);
  stream.on('close', () => void rm(path.dirname(file), { recursive: true, force: true }));
  return Readable.toWeb(stream) as ReadableStream<Uint8Array>;
}

/** An answer as a response. An error repeats the id of its request, under which the log tells more. */
export function responseOf(answer: Answer, requestId: string): Response {
  if (answer.cause !== undefined) logCause(requestId, answer.cause);
  if (answer.status < 400) {
    const body = answer.file ? fileBody(answer.file) : (answer.content as BodyInit);
    return new Response(body, { status: answer.status, headers: answer.headers });
  }
  const { error } = JSON.parse(String(answer.content)) as { error: object };
  return Response.json({ error: { ...error, request: requestId } }, { status: answer.status, headers: answer.headers });
}

const notThere = (path: string) =>
  refusal(404, {
    code: 'not-found',
    sentence: `There is nothing at '${clipped(path, 100)}': docs/api.md lists what there is.`,
  });

function events(request: Request): Response {
  return new Response(noticeStream(store().state().epoch, request.signal), {
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' },
  });
}

/** Requests that need no database thread. */
async function special(request: Request, at: string, requestId: string): Promise<Response | null> {
  const key = `${request.method} ${at}`;
  if (key === 'GET events') return events(request);
  if (key === 'GET openapi.json') return Response.json(openApi());
  if (key === 'GET health') return responseOf(health(await isSignedIn(sessionOf(request))), requestId);
  if (key === 'POST observe') return (await import('./observe')).discovery(await readBody(request), request.signal);
  if (key === 'POST review') return (await import('./compute')).reviewOf(await readBody(request), request.signal);
  if (key === 'POST plan') return (await import('./compute')).planOf(await readBody(request), request.signal);
  if (key === 'POST stand-in')
    return (await import('./run-network')).runNetwork(await readBody(request), request.signal);
  const network = /^POST stand-in\/([\w-]+)\/events$/.exec(key)?.[1];
  if (network !== undefined) return (await import('./run-network')).networkEvent(network, await readBody(request));
  if (key === 'POST sign-in') return responseOf(await signIn(request, await readBody(request)), requestId);
  if (key === 'POST sign-out') return responseOf(signOut(), requestId);
  return null;
}

/** The response to any request below `/api`. */
export async function handleApi(request: Request): Promise<Response> {
  const requestId = request.headers.get('x-request-id') ?? 'none';
  const url = new URL(request.url);
  try {
    const parts = url.pathname
      .split('/')
      .slice(2)
      .map((part) => decodeURIComponent(part));
    const direct = await special(request, parts.join('/'), requestId);
    if (direct) return direct;
    const found = findRoute(request.method, parts);
    if (found.kind === 'nothing') return responseOf(notThere(url.pathname), requestId);
    if (found.kind === 'method') {
      const allow = found.allowed.join(', ');
      const sentence = `${clipped(request.method, 20)} is not possible here: ${allow} ${found.allowed.length === 1 ? 'is' : 'are'}.`;
      return responseOf(refusal(405, { code: 'method', sentence }, { Allow: allow }), requestId);
    }
    const body = request.method === 'GET' || request.method === 'HEAD' ? '' : await readBody(request);
    const query = Object.fromEntries(url.searchParams);
    const answer = await store().ask({ name: found.operation, params: found.params, query, body });
    return responseOf(answer, requestId);
  } catch (error) {
    if (error instanceof URIError) {
      const sentence = 'The address holds a % that is followed by no two hexadecimal digits of UTF-8.';
      return responseOf(refusal(400, { code: 'address', sentence }), requestId);
    }
    return responseOf(failureOf(error, store().state().file), requestId);
  }
}
