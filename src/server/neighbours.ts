/** Other programs that want the same port or the same file. */
import { readFileSync, rmSync, writeFileSync } from 'node:fs';

const ANSWER_MS = 1500;

interface Health {
  readonly name?: string;
  readonly version?: string;
}

async function healthAt(address: string): Promise<Health | null> {
  try {
    const response = await fetch(`${address}/api/health`, { signal: AbortSignal.timeout(ANSWER_MS) });
    return (await response.json()) as Health;
  } catch {
    return null;
  }
}

/** Who holds a port, in words. */
export async function portHolder(host: string, port: number): Promise<string> {
  const reachable = host === '0.0.0.0' || host === '::' ? '127.0.0.1' : host;
  const address = `http://${reachable.includes(':') ? `[${reachable}]` : reachable}:${port}`;
  const found = await healthAt(address);
  return found?.name === 'knot-path'
    ? `a Knot Path server, version ${String(found.version).slice(0, 20)}, at ${address}`
    : 'another program';
}

interface Claim {
  readonly pid: number;
  readonly address: string;
}

function alive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

function readClaim(file: string): Claim | null {
  try {
    const claim = JSON.parse(readFileSync(file, 'utf8')) as Partial<Claim>;
    return typeof claim.pid === 'number' && typeof claim.address === 'string' ? (claim as Claim) : null;
  } catch {
    return null;
  }
}

/** Writes beside the database who serves it; warns when another server does so already. */
export async function claimFile(
  database: string,
  address: string,
): Promise<{ warning: string | null; release: () => void }> {
  const file = `${database}.server`;
  const other = readClaim(file);
  const busy = other && other.pid !== process.pid && alive(other.pid) && (await healthAt(other.address));
  const warning = busy
    ? `Warning: the server at ${other.address} has ${database} open too. Both work; changes of the other one arrive within a second.`
    : null;
  try {
    if (!busy) writeFileSync(file, JSON.stringify({ pid: process.pid, address } satisfies Claim));
  } catch {
    // A folder that cannot be written is reported when the database is opened.
  }
  return {
    warning,
    release: () => {
      if (readClaim(file)?.pid === process.pid) rmSync(file, { force: true });
    },
  };
}
