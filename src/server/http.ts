/** What every route handler shares: limits, JSON in and out, errors as JSON with path and sentence. */
import { nanoid } from 'nanoid';
import type { z } from 'zod';
import { faultsOf } from '../core/design';
import { Problem, refused } from './problem';

/** Bytes that a request may carry: enough for a design of thousands of switches. */
export const BODY_LIMIT = 8 * 1024 * 1024;

export const newId = (): string => nanoid(12);

const tooLarge = () =>
  new Problem(
    413,
    'too-large',
    `The request is larger than ${BODY_LIMIT / 1024 / 1024} MB, the most that is taken in at once.`,
  );

/** The body as text; stops reading as soon as it grows past the limit. */
async function readBody(request: Request): Promise<string> {
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
  return new TextDecoder().decode(Buffer.concat(parts));
}

/** The body of a request as the schema has it. */
export async function body<T extends z.ZodType>(request: Request, schema: T): Promise<z.output<T>> {
  if (!/^application\/json\b/.test(request.headers.get('content-type') ?? ''))
    throw new Problem(415, 'not-json', 'The request must be JSON: set Content-Type to application/json.');
  let value: unknown;
  try {
    value = JSON.parse(await readBody(request));
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw new Problem(400, 'broken-json', 'The request is not complete JSON.');
  }
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw refused(faultsOf(parsed.error));
  return parsed.data;
}

export const json = (value: unknown, status = 200): Response =>
  Response.json(value, { status, headers: { 'Cache-Control': 'no-store' } });

/** Runs a handler and turns a problem into its answer; anything else is a bug, logged and answered without details. */
export async function answer(handler: () => Promise<Response> | Response): Promise<Response> {
  try {
    return await handler();
  } catch (error) {
    if (error instanceof Problem)
      return json(
        { error: { code: error.code, sentence: error.message, faults: error.faults, ...error.more } },
        error.status,
      );
    console.error(error);
    return json(
      { error: { code: 'internal', sentence: 'Something went wrong in the server; its log tells more.', faults: [] } },
      500,
    );
  }
}
