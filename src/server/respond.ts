/** Runs an operation and makes its answer: waits while the database is locked, and turns every failure into a sentence. */
import type { Notice } from '../api/contract';
import type { OperationName } from '../api/operations';
import { databaseFault } from './database';
import type { NewId } from './designs';
import { OPERATIONS } from './operations';
import type { Call, Outcome } from './operations';
import { Problem } from './problem';
import type { Db } from './db';

/** An operation as it travels to the thread that owns the database. */
export interface Ask {
  readonly name: OperationName;
  readonly params: Readonly<Record<string, string>>;
  readonly query: Readonly<Record<string, string>>;
  readonly body: string;
}

/** An answer as it travels back. */
export interface Answer {
  readonly status: number;
  readonly headers: Readonly<Record<string, string>>;
  readonly content: string | Uint8Array;
  /** File to send instead of `content`; its folder goes once it is sent. */
  readonly file?: string;
  /** What went wrong inside, for the log only. */
  readonly cause?: string;
}

export interface Surroundings {
  readonly db: Db;
  readonly file: string;
  readonly now: () => number;
  readonly newId: NewId;
  readonly publish: (notice: Notice) => void;
}

/** Longest wait for a lock, and between two attempts, in milliseconds. */
const LONGEST_WAIT = 2000;
const BETWEEN = 30;
const JSON_HEADERS = { 'Content-Type': 'application/json', 'Cache-Control': 'no-store' };

const pause = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

async function patiently(run: () => Outcome | Promise<Outcome>): Promise<Outcome> {
  const until = performance.now() + LONGEST_WAIT;
  for (;;) {
    try {
      return await run();
    } catch (error) {
      if (databaseFault(error, '')?.code !== 'locked' || performance.now() > until) throw error;
      await pause(BETWEEN);
    }
  }
}

const attachment = (name: string, type: string) => ({
  'Content-Type': type,
  'Content-Disposition': `attachment; filename="${name}"`,
  'Cache-Control': 'no-store',
});

function answerOf({ status = 200, value, download, file }: Outcome): Answer {
  if (file) return { status, headers: attachment(file.name, file.type), content: '', file: file.path };
  if (download) return { status, headers: attachment(download.name, download.type), content: download.content };
  return { status, headers: JSON_HEADERS, content: JSON.stringify(value ?? null) };
}

export const refusal = (
  status: number,
  error: Record<string, unknown>,
  headers: Readonly<Record<string, string>> = {},
  cause?: string,
): Answer => ({
  status,
  headers: { ...JSON_HEADERS, ...headers },
  content: JSON.stringify({ error: { faults: [], ...error } }),
  ...(cause === undefined ? {} : { cause }),
});

/** Seconds after which a browser tries again. */
const RETRY = { 'Retry-After': '2' };

/** The answer for what an operation threw. */
export function failureOf(error: unknown, file: string): Answer {
  if (error instanceof Problem) {
    const { code, message: sentence, faults, more } = error;
    return refusal(error.status, { code, sentence, faults, ...more });
  }
  const cause = error instanceof Error ? (error.stack ?? error.message) : String(error);
  const fault = databaseFault(error, file);
  if (fault) return refusal(503, { code: `database-${fault.code}`, sentence: fault.message }, RETRY, cause);
  const sentence = 'Something went wrong in the server. Its log has more under the id of this request.';
  return refusal(500, { code: 'internal', sentence }, {}, cause);
}

/** Carries one operation out. */
export async function respond(ask: Ask, around: Surroundings): Promise<Answer> {
  const call = (): Call => ({
    db: around.db,
    params: ask.params,
    query: ask.query,
    body: ask.body,
    now: around.now(),
    newId: around.newId,
    publish: around.publish,
  });
  try {
    return answerOf(await patiently(() => OPERATIONS[ask.name](call())));
  } catch (error) {
    return failureOf(error, around.file);
  }
}
