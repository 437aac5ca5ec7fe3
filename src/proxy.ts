/** Before every request: own names only, own pages only, a size limit, and a content security policy with a nonce. */
import { NextResponse } from 'next/server';
import type { NextRequest } from 'next/server';
import { allowedHosts, gateRefusal } from './server/gate';
import { BODY_LIMIT, TOO_LARGE } from './server/limits';
import { COOKIE, isSignedIn } from './server/session-cookie';

const allowed = allowedHosts(process.env);
const developing = process.env.NODE_ENV === 'development';

function policy(nonce: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${developing ? " 'unsafe-eval'" : ''}`,
    // Style attributes carry computed places and colours; style elements carry the nonce.
    `style-src-elem 'self' 'nonce-${nonce}'`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}

const refusal = (request: NextRequest, status: number, code: string, sentence: string) => {
  const id = request.headers.get('x-request-id') ?? undefined;
  return NextResponse.json({ error: { code, sentence, faults: [], request: id } }, { status });
};

/** What can be seen without a session: the way to get one, and that the server lives. */
const OPEN = /^\/(sign-in|api\/sign-in|api\/health|icon\.svg|_next\/static\/.*)$/;

/** `https` where a proxy before this server ends the encryption and says so. */
const scheme = (request: NextRequest) => (request.headers.get('x-forwarded-proto') === 'https' ? 'https' : 'http');

async function signInFirst(request: NextRequest): Promise<NextResponse | null> {
  const { pathname, search } = request.nextUrl;
  if (OPEN.test(pathname) || (await isSignedIn(request.cookies.get(COOKIE)?.value))) return null;
  if (pathname.startsWith('/api'))
    return refusal(request, 401, 'signed-out', 'This server asks for a password: sign in first.');
  const to = encodeURIComponent(pathname + search);
  return NextResponse.redirect(new URL(`/sign-in?to=${to}`, `${scheme(request)}://${request.headers.get('host')}`));
}

export async function proxy(request: NextRequest): Promise<NextResponse> {
  const refused = gateRefusal(request.headers.get('host'), request.headers.get('origin'), allowed);
  if (refused) return refusal(request, 403, 'foreign', refused);
  if (Number(request.headers.get('content-length') ?? 0) > BODY_LIMIT)
    return refusal(request, 413, 'too-large', TOO_LARGE);
  const outside = await signInFirst(request);
  if (outside) return outside;
  const nonce = btoa(crypto.randomUUID());
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('Content-Security-Policy', policy(nonce));
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('Content-Security-Policy', policy(nonce));
  response.headers.set('X-Content-Type-Options', 'nosniff');
  response.headers.set('Referrer-Policy', 'same-origin');
  return response;
}
