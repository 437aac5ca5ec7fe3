/** How the server ends: at the first signal within two seconds, at the second at once, and not later than what started it. */
import { readFileSync } from 'node:fs';

const SIGNALS = ['SIGINT', 'SIGTERM', 'SIGHUP'] as const;
const LONGEST_MS = 1700;
const LOOK_MS = 400;

let end: (() => void) | null = null;

/** Runs `stop` at the first signal, then ends the process; a second signal ends it at once. */
export function onSignals(stop: () => Promise<void>): void {
  let ending = false;
  end = () => {
    if (ending) process.exit(1);
    ending = true;
    setTimeout(() => process.exit(0), LONGEST_MS).unref();
    void stop().finally(() => setTimeout(() => process.exit(0), 450));
  };
  for (const signal of SIGNALS) process.on(signal, end);
}

/** Parent of a process, and the name of its program; null when there is no such process or no way to tell. */
function processOf(pid: number): { parent: number; name: string } | null {
  try {
    const text = readFileSync(`/proc/${pid}/stat`, 'utf8');
    const close = text.lastIndexOf(')');
    return { name: text.slice(text.indexOf('(') + 1, close), parent: Number(text.slice(close + 2).split(' ')[1]) };
  } catch {
    return null;
  }
}

/** The processes from this one up to the npm that runs it. */
function chainToNpm(): number[] {
  const chain: number[] = [];
  for (let pid = process.ppid; pid > 1 && chain.length < 4;) {
    const found = processOf(pid);
    if (!found) break;
    chain.push(pid);
    if (/^(npm|node)/.test(found.name)) return chain;
    pid = found.parent;
  }
  return chain.slice(0, 1);
}

/**
 * Under `npm start` the server ends with npm: npm passes some signals on to a shell between the
 * two, and keeps others to itself. Either would leave the server behind.
 */
export function endWithParent(): void {
  if (process.env.npm_lifecycle_event === undefined) return;
  const chain = chainToNpm();
  const parents = [process.pid, ...chain].slice(0, chain.length);
  const timer = setInterval(() => {
    const intact = parents.every((pid, i) => (processOf(pid)?.parent ?? process.ppid) === chain[i]);
    if (intact) return;
    clearInterval(timer);
    end?.();
  }, LOOK_MS);
  timer.unref();
}
