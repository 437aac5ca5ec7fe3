/** One password for all users, where the server can be reached from other machines: a signed cookie says who has given it. */
import { timingSafeEqual } from 'node:crypto';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { signInRequest } from '../api/contract';
import { bodyOf } from './operations';
import { Problem } from './problem';
import type { Answer } from './respond';
import { COOKIE, SESSION_DAYS, hash, newSession, password } from './session-cookie';

/** Wrong passwords from one address before it has to wait, and for how long, in seconds. */
const ATTEMPTS = 8;
const WAIT = 300;

const shared = globalThis as { knotPathAttempts?: RateLimiterMemory };
const attempts = () =>
  (shared.knotPathAttempts ??= new RateLimiterMemory({ points: ATTEMPTS, duration: WAIT, blockDuration: WAIT }));

const cookie = (value: string, seconds: number) =>
  `${COOKIE}=${value}; HttpOnly; SameSite=Strict; Path=/; Max-Age=${seconds}`;
const answer = (value: string): Answer => ({
  status: 200,
  headers: { 'Content-Type': 'application/json', 'Cache-Control': 'no-store', 'Set-Cookie': value },
  content: '{}',
});

/** Checks a password; too many wrong ones from one address are made to wait. */
export async function signIn(request: Request, text: string): Promise<Answer> {
  const expected = password();
  if (expected === null) return answer(cookie('none', 0));
  const address = request.headers.get('x-knot-path-address') ?? 'unknown';
  const { password: given } = bodyOf(text, signInRequest);
  try {
    await attempts().consume(address);
  } catch {
    throw new Problem(429, 'too-many-attempts', `Too many wrong passwords: wait ${WAIT / 60} minutes, then try again.`);
  }
  if (!timingSafeEqual(hash(given), hash(expected)))
    throw new Problem(
      403,
      'wrong-password',
      'The password is wrong: it is the one that KNOT_PATH_PASSWORD holds on the server.',
    );
  await attempts().delete(address);
  return answer(cookie(await newSession(), SESSION_DAYS * 86_400));
}

export const signOut = (): Answer => answer(cookie('none', 0));
