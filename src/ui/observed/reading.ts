'use client';
/** What was read of the network that is there, one reading a design; it outlives the stage, and a watch goes on while the page is open. */
import { useEffect } from 'react';
import { z } from 'zod';
import { create } from 'zustand';
import { observedNetworkSchema } from '../../core/design';
import type { Design, ObservedNetwork } from '../../core/design';
import { changesBetween, drawObserved } from '../../core/observe';
import type { FileRead, ObservedChange, Observation } from '../../core/observe';
import type { DiscoverLine, SnmpCredentials, SnmpFence } from '../../api/observe';
import { readStored, writeStored } from '../session/browser-store';
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
  readonly network: ObservedNetwork | null;
  /** The same as a design of its own. */
  readonly drawing: Design | null;
  readonly at: number | null;
  readonly files: readonly FileRead[];
  readonly captures: readonly CaptureRead[];
  readonly faults: readonly string[];
  /** How far it is, in words; null while nothing is read. */
  readonly progress: string | null;
  readonly moments: readonly Moment[];
  /** Seconds between two readings of a watch; null while there is none. */
  readonly watch: number | null;
  /** Addresses that answered, to be asked again. */
  readonly asked: Asking | null;
}

const NOTHING: Reading = {
  network: null,
  drawing: null,
  at: null,
  files: [],
  captures: [],
  faults: [],
  progress: null,
  moments: [],
  watch: null,
  asked: null,
};
const MOST_MOMENTS = 500;

interface Store {
  readonly of: Readonly<Record<string, Reading>>;
}
const store = create<Store>()(() => ({ of: {} }));

const get = (design: string): Reading => store.getState().of[design] ?? NOTHING;
const set = (design: string, part: Partial<Reading>): void =>
  store.setState(({ of }) => ({ of: { ...of, [design]: { ...(of[design] ?? NOTHING), ...part } } }));

const keyOf = (design: string): string => `knot-path.observed.${design}`;
const keptSchema = z.object({
  network: observedNetworkSchema,
  at: z.number(),
  files: z.array(z.object({ path: z.string(), kind: z.string(), fault: z.string().nullable() })),
  faults: z.array(z.string()),
});

/** Sets a part, and keeps what was read over a reload; credentials, and a watch that needs them, are not kept. */
function put(design: string, part: Partial<Reading>): void {
  set(design, part);
  if (!('network' in part)) return;
  const { network, at, files, faults } = get(design);
  writeStored('session', keyOf(design), network && JSON.stringify({ network, at, files, faults }));
}

/** What an earlier page of this window read. */
function kept(design: string): void {
  if (design in store.getState().of) return;
  const found = readStored('session', keyOf(design), (text) => keptSchema.safeParse(JSON.parse(text)).data ?? null);
  set(design, found ? { ...found, drawing: drawObserved(found.network, 'As built').design } : {});
}

export function useReading(design: string): Reading {
  useEffect(() => kept(design), [design]);
  return store((s) => s.of[design] ?? NOTHING);
}

/** What can stop the reading of a design that is on its way. */
const stops = new Map<string, () => void>();
const timers = new Map<string, ReturnType<typeof setTimeout>>();

const message = (error: unknown): string => (error instanceof Error ? error.message : String(error));

async function unite(
  files: readonly PickedFile[],
  observations: readonly Observation[],
  design: string,
): Promise<ObserveAnswer | null> {
  const worker = new Worker(new URL('../../workers/observe.ts', import.meta.url), { type: 'module' });
  const job = runJob<ObserveRequest, ObserveProgress, ObserveAnswer>(
    worker,
    { files, observations, name: 'As built' },
    {
      onProgress: ({ path, read, of }) =>
        put(design, { progress: `${path}: ${Math.round((100 * read) / Math.max(1, of))} %` }),
      failure: (why) => `The files were not read: ${why}`,
    },
  );
  stops.set(design, job.stop);
  return job.done;
}

/** Reads files; what was read before of the same design makes room. */
export async function readFilesOf(design: string, files: readonly PickedFile[]): Promise<void> {
  endWatch(design);
  put(design, { progress: 'reading files…', faults: [] });
  try {
    const answer = await unite(files, [], design);
    if (!answer) return put(design, { progress: null });
    const { network, design: drawing, files: read, captures } = answer;
    const nothing = network.switches.length === 0;
    put(design, {
      ...(nothing ? {} : { network, drawing, at: Date.now() }),
      files: read,
      captures,
      progress: null,
      moments: [],
      asked: null,
    });
  } catch (error) {
    put(design, { progress: null, faults: [message(error)] });
  }
}

/** One discovery by the server, line by line. */
async function discovered(
  { addresses, credentials, fence }: Asking,
  signal: AbortSignal,
  tell: (line: DiscoverLine) => void,
) {
  const response = await fetch('/api/observe', {
    method: 'POST',
    signal,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ addresses, credentials, fence }),
  });
  if (!response.ok || !response.body) {
    const answer = (await response.json().catch(() => null)) as { error?: { sentence?: string } } | null;
    throw new Error(answer?.error?.sentence ?? `The server answered with error ${response.status}.`);
  }
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    const lines = (rest + part.value).split('\n');
    rest = lines.pop()!;
    for (const line of lines) if (line !== '') tell(JSON.parse(line) as DiscoverLine);
  }
}

/** Asks devices, and keeps what they answered; `again`: the next reading of a watch, whose changes are noted. */
export async function askDevices(design: string, asking: Asking, again = false): Promise<void> {
  if (!again) endWatch(design);
  const stop = new AbortController();
  stops.set(design, () => stop.abort());
  if (!again) put(design, { progress: 'asking…', faults: [] });
  try {
    let read: Extract<DiscoverLine, { kind: 'read' }> | null = null;
    await discovered(asking, stop.signal, (line) => {
      if (line.kind === 'read') read = line;
      else if (!again)
        put(design, {
          progress: `${line.done} of ${line.known} devices${line.address ? `, asking ${line.address}` : ''}`,
        });
    });
    const found = read as Extract<DiscoverLine, { kind: 'read' }> | null;
    if (!found) return put(design, { progress: null });
    if (found.observations.length === 0) return put(design, { progress: null, faults: found.faults });
    const answer = await unite([], found.observations, design);
    if (!answer) return put(design, { progress: null });
    const before = get(design).network;
    const changes = again && before ? changesBetween(before, answer.network) : [];
    put(design, {
      network: answer.network,
      drawing: answer.design,
      at: Date.now(),
      files: [],
      captures: [],
      faults: found.faults,
      progress: null,
      asked: again
        ? asking
        : { ...asking, addresses: answeringAt(asking, found.observations), fence: { ...asking.fence, follow: false } },
      moments: again
        ? [...(changes.length > 0 ? [{ at: Date.now(), changes }] : []), ...get(design).moments].slice(0, MOST_MOMENTS)
        : [],
    });
  } catch (error) {
    const stopped = stop.signal.aborted;
    put(design, { progress: null, faults: stopped ? [] : [message(error)] });
  }
}

/** Addresses that answered, with the port that was asked. */
function answeringAt({ addresses }: Asking, observations: readonly Observation[]): string[] {
  const port = /:(\d+)\/?$/.exec(addresses[0] ?? '')?.[1];
  return observations.map((o) => (port === undefined ? o.source.name : `${o.source.name}:${port}`));
}

export function stopReading(design: string): void {
  stops.get(design)?.();
}

export function endWatch(design: string): void {
  clearTimeout(timers.get(design));
  timers.delete(design);
  if (get(design).watch !== null) put(design, { watch: null });
}

/** Reads again and again, so many seconds after the last reading ended, until it is ended. */
export function watch(design: string, seconds: number): void {
  endWatch(design);
  put(design, { watch: seconds });
  const next = () =>
    timers.set(
      design,
      setTimeout(() => {
        const { asked, watch: on } = get(design);
        if (!asked || on === null) return;
        void askDevices(design, asked, true).then(() => {
          if (get(design).watch !== null) next();
        });
      }, seconds * 1000),
    );
  next();
}

export function forget(design: string): void {
  endWatch(design);
  put(design, NOTHING);
}
