/** Sessions of people who have given the password: a signed cookie, checked before every page and request. */
import { createHash } from 'node:crypto';
import { SignJWT, jwtVerify } from 'jose';

export const COOKIE = 'knot-path-session';
export const SESSION_DAYS = 30;

/** The password that is asked for; null when none is. */
export const password = (): string | null => process.env.KNOT_PATH_PASSWORD || null;

/** What signs sessions is kept with the database; another password makes all sessions void. */
export const setSecret = (secret: string): void => void (process.env.KNOT_PATH_SESSIONS = secret);
export const hash = (text: string) => createHash('sha256').update(text).digest();
const signingKey = () => hash(`${process.env.KNOT_PATH_SESSIONS ?? 'none'} ${password() ?? ''}`);

/** Whether a session cookie is one that was given out and still holds. */
export async function isSignedIn(token: string | undefined): Promise<boolean> {
  if (password() === null) return true;
  if (!token) return false;
  try {
    await jwtVerify(token, signingKey(), { algorithms: ['HS256'] });
    return true;
  } catch {
    return false;
  }
}

/** The session cookie of a request. */
export const sessionOf = (request: Pick<Request, 'headers'>): string | undefined =>
  (request.headers.get('cookie') ?? '')
    .split(/; */)
    .find((part) => part.startsWith(`${COOKIE}=`))
    ?.slice(COOKIE.length + 1);

/** A new session. */
export const newSession = (): Promise<string> =>
  new SignJWT({})
    .setProtectedHeader({ alg: 'HS256' })
    .setIssuedAt()
    .setExpirationTime(`${SESSION_DAYS}d`)
    .sign(signingKey());
