'use client';
/** The reading of a network that is under way, one a variant; it outlives the stage, and a watch goes on while the page is open. What was read is kept in the design. */
import { create } from 'zustand';
import type { ObservedNetwork } from '../../core/design';
import { changesBetween } from '../../core/observe';
import { count } from '../../core/standard';
import type { FileRead, ObservedChange, Observation } from '../../core/observe';
import type { DiscoverLine, SnmpCredentials, SnmpFence } from '../../api/observe';
import type { Keep } from '../controls/useKeptReading';
import { jsonLines } from '../session/json-lines';
import { runJob } from '../../workers/run-job';
import type { CaptureRead, ObserveAnswer, ObserveProgress, ObserveRequest, PickedFile } from '../../workers/observe';

/** Devices to ask. Credentials live as long as the page, and nowhere else. */
export interface Asking {
  readonly addresses: readonly string[];
  readonly credentials: SnmpCredentials;
  readonly fence: Partial<SnmpFence>;
}

export interface Moment {
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly changes: readonly ObservedChange[];
}

export interface Reading {
  /** What was read and is not in the design: by a watch that goes on, or since the design did not take it. */
  readonly live: { readonly network: ObservedNetwork; readonly at: number } | null;
  /** What was last read here, for a watch to find what changes. */
  readonly last: ObservedNetwork | null;
  readonly files: readonly FileRead[];
  readonly captures: readonly CaptureRead[];
  readonly faults: readonly string[];
  /** How far it is, in words; null while nothing is read. */
  readonly progress: string | null;
  readonly moments: readonly Moment[];
  /** When the watch began, and when it read last; milliseconds since 1970. */
  readonly watched: { readonly from: number; readonly to: number } | null;
  /** Seconds between two readings of a watch; null while there is none. */
  readonly watch: number | null;
  /** Addresses that answered, to be asked again. */
  readonly asked: Asking | null;
}

const NOTHING: Reading = {
  live: null,
  last: null,
  files: [],
  captures: [],
  faults: [],
  progress: null,
  moments: [],
  watched: null,
  watch: null,
  asked: null,
};
const MOST_MOMENTS = 500;

interface Store {
  readonly of: Readonly<Record<string, Reading>>;
}
const store = create<Store>()(() => ({ of: {} }));

const get = (variant: string): Reading => store.getState().of[variant] ?? NOTHING;
const set = (variant: string, part: Partial<Reading>): void =>
  store.setState(({ of }) => ({ of: { ...of, [variant]: { ...(of[variant] ?? NOTHING), ...part } } }));

/** One reading is under way at a time, by variant of a design. */
export const useReading = (variant: string): Reading => store((s) => s.of[variant] ?? NOTHING);

/** What can stop the reading of a design that is on its way. */
const stops = new Map<string, () => void>();
const timers = new Map<string, ReturnType<typeof setTimeout>>();

const message = (error: unknown): string => (error instanceof Error ? error.message : String(error));

async function unite(
  files: readonly PickedFile[],
  observations: readonly Observation[],
  variant: string,
): Promise<ObserveAnswer | null> {
  const worker = new Worker(new URL('../../workers/observe.ts', import.meta.url), { type: 'module' });
  const job = runJob<ObserveRequest, ObserveProgress, ObserveAnswer>(
    worker,
    { files, observations, name: 'As built' },
    {
      onProgress: ({ path, read, of }) =>
        set(variant, { progress: `${path}: ${Math.round((100 * read) / Math.max(1, of))} %` }),
      failure: (why) => `The files were not read: ${why}`,
    },
  );
  stops.set(variant, job.stop);
  return job.done;
}

/** What was read goes into the design; where that does not take it, it is shown as long as the page is open. */
async function keepRead(variant: string, network: ObservedNetwork, keep: Keep): Promise<void> {
  set(variant, { live: { network, at: Date.now() }, last: network });
  const label = `Read ${count(network.switches.length, 'switch', 'switches')} of the network`;
  if (await keep(label, network)) set(variant, { live: null });
}

/** Reads files; what was read before makes room. */
export async function readFilesOf(variant: string, files: readonly PickedFile[], keep: Keep): Promise<void> {
  stopWatch(variant);
  set(variant, { progress: 'reading files…', faults: [] });
  try {
    const answer = await unite(files, [], variant);
    if (!answer) return set(variant, { progress: null });
    const { network, files: read, captures } = answer;
    set(variant, { files: read, captures, progress: null, moments: [], asked: null });
    if (network.switches.length > 0) await keepRead(variant, network, keep);
  } catch (error) {
    set(variant, { progress: null, faults: [message(error)] });
  }
}

type Read = Extract<DiscoverLine, { kind: 'read' }>;

/** What devices answer, as one network; null where the reading was stopped or none answered, which is said. */
async function askOnce(variant: string, asking: Asking, quiet: boolean) {
  const stop = new AbortController();
  stops.set(variant, () => stop.abort());
  try {
    const reads: Read[] = [];
    const { addresses, credentials, fence } = asking;
    await jsonLines<DiscoverLine>('/api/observe', { addresses, credentials, fence }, stop.signal, (line) => {
      if (line.kind === 'read') reads.push(line);
      else if (!quiet)
        set(variant, {
          progress: `${line.done} of ${line.known} devices${line.address ? `, asking ${line.address}` : ''}`,
        });
    });
    const found = reads[0];
    const answer = found && found.observations.length > 0 ? await unite([], found.observations, variant) : null;
    set(variant, { progress: null, faults: found?.faults ?? [] });
    return found && answer ? { ...found, network: answer.network } : null;
  } catch (error) {
    set(variant, { progress: null, faults: stop.signal.aborted ? [] : [message(error)] });
    return null;
  }
}

/** Asks devices, and keeps what they answered. */
export async function askDevices(variant: string, asking: Asking, keep: Keep): Promise<void> {
  stopWatch(variant);
  set(variant, { progress: 'asking…', faults: [] });
  const found = await askOnce(variant, asking, false);
  if (!found) return;
  const addresses = answeringAt(asking, found.observations);
  const again = { ...asking, addresses, fence: { ...asking.fence, follow: false } };
  set(variant, { files: [], captures: [], asked: again, moments: [], watched: null });
  await keepRead(variant, found.network, keep);
}

/** The next reading of a watch, whose changes are noted. */
async function askAgain(variant: string, asking: Asking): Promise<void> {
  const found = await askOnce(variant, asking, true);
  const { last, moments, watched, faults } = get(variant);
  const at = Date.now();
  if (!found) {
    // When none answers any more, that is the change: said once.
    const [text] = faults;
    if (text === undefined || moments[0]?.changes[0]?.text === text) return;
    const silence = { kind: 'device', alarm: true, switch: null, text } as const;
    return set(variant, {
      watched: { from: watched?.from ?? at, to: at },
      moments: [{ at, changes: [silence] }, ...moments].slice(0, MOST_MOMENTS),
    });
  }
  const changes = last ? changesBetween(last, found.network) : [];
  set(variant, {
    live: { network: found.network, at },
    last: found.network,
    watched: { from: watched?.from ?? at, to: at },
    moments: changes.length > 0 ? [{ at, changes }, ...moments].slice(0, MOST_MOMENTS) : moments,
  });
}

/** Addresses that answered, with the port that was asked. */
function answeringAt({ addresses }: Asking, observations: readonly Observation[]): string[] {
  const port = /:(\d+)\/?$/.exec(addresses[0] ?? '')?.[1];
  return observations.map((o) => (port === undefined ? o.source.name : `${o.source.name}:${port}`));
}

export function stopReading(variant: string): void {
  stops.get(variant)?.();
}

function stopWatch(variant: string): void {
  clearTimeout(timers.get(variant));
  timers.delete(variant);
  if (get(variant).watch !== null) set(variant, { watch: null });
}

/** Ends a watch; what it read last is kept in the design. */
export function endWatch(variant: string, keep: Keep): void {
  stopWatch(variant);
  const { live } = get(variant);
  if (live) void keepRead(variant, live.network, keep);
}

/** Reads again and again, so many seconds after the last reading ended, until it is ended. */
export function watch(variant: string, seconds: number): void {
  stopWatch(variant);
  const now = Date.now();
  set(variant, { watch: seconds, watched: get(variant).watched ?? { from: now, to: now } });
  const next = () =>
    timers.set(
      variant,
      setTimeout(() => {
        const { asked, watch: on } = get(variant);
        if (!asked || on === null) return;
        void askAgain(variant, asked).then(() => {
          if (get(variant).watch !== null) next();
        });
      }, seconds * 1000),
    );
  next();
}

/** Forgets what was read, in the design too. */
export function forget(variant: string, keep: Keep): void {
  stopWatch(variant);
  set(variant, NOTHING);
  void keep('Clear what was read of the network', null);
}
