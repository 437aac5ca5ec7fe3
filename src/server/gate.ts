/** Who may talk to the server: pages it served itself, under a name that is its own. */
import { networkInterfaces } from 'node:os';
import { clipped } from '../core/messages';

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];

/** Whether an address to listen on can be reached from this machine alone. */
export const isLoopback = (host: string): boolean => /^(localhost|127(\.\d{1,3}){3}|::1|\[::1\])$/i.test(host);

/** Names and addresses under which this server may be called: loopback, those in `KNOT_PATH_HOSTS`, and its own addresses when `HOST` opens it. */
export function allowedHosts(env: NodeJS.ProcessEnv): Set<string> {
  const names = (env.KNOT_PATH_HOSTS ?? '').split(',').map((n) => n.trim().toLowerCase());
  const open = env.HOST !== undefined && !isLoopback(env.HOST);
  const own = open
    ? Object.values(networkInterfaces()).flatMap((list) =>
        (list ?? []).map((i) => (i.family === 'IPv6' ? `[${i.address}]` : i.address)),
      )
    : [];
  return new Set([...LOOPBACK, ...names, ...own, ...(open ? [env.HOST!.toLowerCase()] : [])].filter((n) => n !== ''));
}

const hostName = (host: string) => host.toLowerCase().replace(/:\d+$/, '');

/** Null when a request may pass, else why not. A name from elsewhere means that a foreign page resolves to us; a foreign Origin, that one calls us. */
export function gateRefusal(host: string | null, origin: string | null, allowed: ReadonlySet<string>): string | null {
  if (host === null || !allowed.has(hostName(host)))
    return `This server does not answer to the name '${clipped(host ?? '')}': call it as localhost, or list the name in KNOT_PATH_HOSTS.`;
  if (origin === null) return null;
  if (!URL.canParse(origin) || new URL(origin).host.toLowerCase() !== host.toLowerCase())
    return `Requests from pages of '${clipped(origin)}' are refused: only this server's own pages may call it.`;
  return null;
}
