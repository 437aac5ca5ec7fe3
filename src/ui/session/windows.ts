/** Which windows of this browser are open: each holds a lock under its name for as long as it lives. */
import { nanoid } from 'nanoid';

const LOCK = 'knot-path.window.';
const CHANNEL = 'knot-path.windows';
const ANSWER_MS = 300;
const LAST = 'knot-path.window';

/** Name of this page; another one after every load. */
export const thisWindow = nanoid(10);

let announced = false;

/** Lets other windows know that this one is open. */
export function announceWindow(): void {
  if (announced) return;
  announced = true;
  // Held until the page goes.
  if (navigator.locks) void navigator.locks.request(LOCK + thisWindow, () => new Promise(() => {}));
  if (typeof BroadcastChannel === 'undefined') return;
  const channel = new BroadcastChannel(CHANNEL);
  channel.onmessage = ({ data }: MessageEvent<{ ask?: string }>) => {
    if (data.ask === thisWindow) channel.postMessage({ here: thisWindow });
  };
}

/** Whether a window is open. Pages that are not served over a secure connection have no locks: then it is asked. */
export async function isOpen(window: string): Promise<boolean> {
  if (window === thisWindow) return true;
  if (navigator.locks) return navigator.locks.request(LOCK + window, { ifAvailable: true }, (lock) => lock === null);
  if (typeof BroadcastChannel === 'undefined') return false;
  const channel = new BroadcastChannel(CHANNEL);
  const answer = new Promise<boolean>((resolve) => {
    channel.onmessage = ({ data }: MessageEvent<{ here?: string }>) => data.here === window && resolve(true);
    setTimeout(() => resolve(false), ANSWER_MS);
  });
  channel.postMessage({ ask: window });
  return answer.finally(() => channel.close());
}

/** The page that this tab showed before this load, if it knows. */
export function pageBefore(): string | null {
  try {
    const before = sessionStorage.getItem(LAST);
    sessionStorage.setItem(LAST, thisWindow);
    return before === thisWindow ? null : before;
  } catch {
    return null;
  }
}
