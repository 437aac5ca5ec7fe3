/** From one address on, or several, along the management addresses that neighbours tell, inside a fence. */
import type { ObserveProgress, SnmpCredentials, SnmpFence } from '../../api/observe';
import { observeMessages as say } from '../../core/messages';
import { readSnmp } from '../../core/observe';
import { count } from '../../core/standard';
import type { Observation } from '../../core/observe';
import { walkAgent } from './walk';
import type { Target } from './walk';

export interface Discovery {
  readonly seeds: readonly Target[];
  readonly credentials: SnmpCredentials;
  readonly fence: SnmpFence;
  readonly signal: AbortSignal;
  readonly progress: (now: ObserveProgress) => void;
}

export interface Discovered {
  readonly observations: readonly Observation[];
  /** Addresses that did not answer as they should, and what lies beyond the fence: a sentence each. */
  readonly faults: readonly string[];
}

const asNumber = (address: string): number => address.split('.').reduce((sum, part) => sum * 256 + Number(part), 0);

/** Whether an address is in one of some networks, as `192.0.2.0/24`. */
export function insideFence(address: string, networks: readonly string[]): boolean {
  return networks.some((network) => {
    const [base, length = '32'] = network.split('/') as [string, string?];
    const size = 2 ** (32 - Number(length));
    return Math.floor(asNumber(address) / size) === Math.floor(asNumber(base) / size);
  });
}

/** The networks that may be asked: those that are named, else the 256 addresses around each that is given. */
const fencedIn = (seeds: readonly Target[], { networks }: SnmpFence): string[] =>
  networks.length > 0 ? networks : [...new Set(seeds.map((t) => `${t.address.replace(/\d+$/, '0')}/24`))];

/** Asks so many agents at once, each as often as it is found: once. */
export async function discover({ seeds, credentials, fence, signal, progress }: Discovery): Promise<Discovered> {
  const queue = seeds.map((target) => ({ target, depth: 0 }));
  const known = new Set(seeds.map((t) => t.address));
  const networks = fencedIn(seeds, fence);
  const observations: Observation[] = [];
  const faults: string[] = [];
  let [beyond, done, asking] = [0, 0, 0];
  const tell = (address: string | null) => progress({ done, known: known.size, address });
  const one = async ({ target, depth }: (typeof queue)[number]): Promise<void> => {
    tell(target.address);
    const walked = await walkAgent(target, credentials, {
      timeout: fence.timeout,
      retries: fence.retries,
      pause: fence.pause,
      signal,
    });
    faults.push(...walked.faults);
    done++;
    if (walked.rows.length === 0) return;
    const read = readSnmp(
      walked.rows,
      { kind: 'snmp', name: target.address, at: new Date().toISOString() },
      walked.logical,
    );
    observations.push(read);
    const next = fence.follow ? read.neighbours.flatMap((n) => n.management) : [];
    for (const address of next) {
      if (known.has(address)) continue;
      known.add(address);
      if (depth + 1 > fence.depth || !insideFence(address, networks) || known.size > fence.most) beyond++;
      else queue.push({ target: { address, port: target.port }, depth: depth + 1 });
    }
    tell(null);
  };
  await new Promise<void>((resolve, reject) => {
    const go = () => {
      while (asking < fence.atOnce && queue.length > 0 && !signal.aborted) {
        asking++;
        one(queue.shift()!)
          .finally(() => asking--)
          .then(go, reject);
      }
      if (asking === 0 && (queue.length === 0 || signal.aborted)) resolve();
    };
    go();
  });
  const words = `${networks.join(', ')}, ${count(fence.depth, 'hop')} or ${count(fence.most, 'device')}`;
  if (beyond > 0) faults.push(say['beyond-fence']({ n: beyond, fence: words }));
  return { observations, faults };
}
