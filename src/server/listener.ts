/** State between the socket and the pages: ids, the log, and what no page would answer. */
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Duplex } from 'node:stream';
import { nanoid } from 'nanoid';
import { clipped } from '../core/messages';
import { log } from './log';

type Handler = (request: IncomingMessage, response: ServerResponse) => Promise<void>;

const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']);

interface Refused {
  readonly status: number;
  readonly code: string;
  readonly sentence: string;
}

const errorText = ({ code, sentence }: Refused, id: string) =>
  JSON.stringify({ error: { code, sentence, faults: [], request: id } });

/** What is wrong with a request before any page or route sees it. */
function wrongWith(request: IncomingMessage): Refused | null {
  const method = request.method ?? '';
  if (!METHODS.has(method))
    return { status: 405, code: 'method', sentence: `The method ${clipped(method, 20)} is not answered here.` };
  try {
    decodeURIComponent((request.url ?? '').split('?')[0]!);
  } catch {
    const sentence = 'The address holds a % that is followed by no two hexadecimal digits of UTF-8.';
    return { status: 400, code: 'address', sentence };
  }
  return null;
}

const STARTING: Refused = { status: 503, code: 'starting', sentence: 'The server is starting: try again in a moment.' };

export function requestListener() {
  let handler: Handler | null = null;
  let atEnd = async () => {};

  const refuse = (response: ServerResponse, refused: Refused, id: string) => {
    response.writeHead(refused.status, {
      'Content-Type': 'application/json',
      ...(refused.status === 503 ? { 'Retry-After': '2' } : {}),
    });
    response.end(errorText(refused, id));
  };

  return {
    handle(request: IncomingMessage, response: ServerResponse): void {
      const id = nanoid(10);
      const began = performance.now();
      // Not the caller's to choose.
      request.headers['x-request-id'] = id;
      request.headers['x-knot-path-address'] = request.socket.remoteAddress ?? 'unknown';
      response.setHeader('X-Request-Id', id);
      const { method, url = '' } = request;
      if (!url.startsWith('/_next/'))
        response.on('close', () => {
          const ms = Math.round(performance.now() - began);
          log().info({ request: id, method, path: clipped(url, 200), status: response.statusCode, ms }, 'request');
        });
      const wrong = wrongWith(request);
      if (wrong) return refuse(response, wrong, id);
      if (!handler) return refuse(response, STARTING, id);
      handler(request, response).catch((error: unknown) => {
        log().error({ request: id, cause: error instanceof Error ? error.stack : String(error) }, 'failed');
        if (response.headersSent) return response.destroy();
        refuse(response, { status: 500, code: 'internal', sentence: 'Something went wrong in the server.' }, id);
      });
    },
    /** What cannot even be read as a request. */
    clientError(error: NodeJS.ErrnoException, socket: Duplex): void {
      if (error.code === 'ECONNRESET' || !socket.writable) return void socket.destroy();
      const large = error.code === 'HPE_HEADER_OVERFLOW';
      const [status, words] = large ? [431, 'Request Header Fields Too Large'] : [400, 'Bad Request'];
      const sentence = large ? 'The headers of the request are too large.' : 'The request is no HTTP that can be read.';
      const text = errorText({ status, code: 'http', sentence }, nanoid(10));
      socket.end(
        `HTTP/1.1 ${status} ${words}\r\nContent-Type: application/json\r\nContent-Length: ${Buffer.byteLength(text)}\r\nConnection: close\r\n\r\n${text}`,
      );
    },
    ready: (next: Handler) => void (handler = next),
    onEnd: (run: () => Promise<void>) => void (atEnd = run),
    end: () => atEnd(),
  };
}
