/** Before every request: own names only, own pages only, a size limit, and a content security policy with a nonce. */
import { NextResponse } from 'next/server';
import type { NextRequest } from 'next/server';
import { allowedHosts, gateRefusal } from './server/gate';
import { BODY_LIMIT } from './server/http';

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

const refusal = (status: number, code: string, sentence: string) =>
  NextResponse.json({ error: { code, sentence, faults: [] } }, { status });

export function proxy(request: NextRequest): NextResponse {
  const refused = gateRefusal(request.headers.get('host'), request.headers.get('origin'), allowed);
  if (refused) return refusal(403, 'foreign', refused);
  if (Number(request.headers.get('content-length') ?? 0) > BODY_LIMIT)
    return refusal(
      413,
      'too-large',
      `The request is larger than ${BODY_LIMIT / 1024 / 1024} MB, the most that is taken in at once.`,
    );
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
