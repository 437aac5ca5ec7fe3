'use client';
/** A variant that runs as a network of agents on the server, for as long as this page is open. */
import { create } from 'zustand';
import type { StandInEvent, StandInLine } from '../../api/stand-in';
import type { Design } from '../../core/design';
import { jsonLines } from '../session/json-lines';

type Ready = Extract<StandInLine, { kind: 'ready' }>;

export interface Running {
  /** Null while it starts. */
  readonly ready: Ready | null;
  /** Ids of links and switches that were made to fail by hand. */
  readonly failed: ReadonlySet<string>;
}

interface Store {
  readonly of: Readonly<Record<string, Running | null>>;
  readonly faults: Readonly<Record<string, string | null>>;
}
const store = create<Store>()(() => ({ of: {}, faults: {} }));

const set = (variant: string, running: Running | null, fault: string | null = null): void =>
  store.setState(({ of, faults }) => ({
    of: { ...of, [variant]: running },
    faults: { ...faults, [variant]: fault },
  }));

export const useRunning = (variant: string): Running | null => store((s) => s.of[variant] ?? null);
export const useRunningFault = (variant: string): string | null => store((s) => s.faults[variant] ?? null);

const stops = new Map<string, AbortController>();

/** Starts the design as it is now; `onReady`: its agents answer. */
export async function runAsNetwork(
  variant: string,
  design: Design,
  speed: number,
  onReady: (ready: Ready) => void,
): Promise<void> {
  const stop = new AbortController();
  stops.set(variant, stop);
  set(variant, { ready: null, failed: new Set() });
  const failure = { sentence: null as string | null };
  try {
    await jsonLines<StandInLine>('/api/stand-in', { design, speed }, stop.signal, (line) => {
      if (line.kind === 'failed') failure.sentence = line.sentence;
      if (line.kind !== 'ready') return;
      set(variant, { ready: line, failed: new Set() });
      onReady(line);
    });
  } catch (error) {
    if (!stop.signal.aborted) failure.sentence = error instanceof Error ? error.message : String(error);
  }
  set(variant, null, failure.sentence);
}

export function stopNetwork(variant: string): void {
  stops.get(variant)?.abort();
  stops.delete(variant);
}

const idOf = (event: StandInEvent): string => ('link' in event ? event.link : event.switch);

/** Lets a link or a switch fail, or come back; false where the network is gone. */
export async function happenIn(variant: string, event: StandInEvent): Promise<boolean> {
  const running = store.getState().of[variant];
  if (!running?.ready) return false;
  const response = await fetch(`/api/stand-in/${running.ready.id}/events`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(event),
  }).catch(() => null);
  const now = store.getState().of[variant];
  if (!response?.ok || !now) return false;
  const failed = new Set(now.failed);
  if (event.kind === 'fail' || event.kind === 'off') failed.add(idOf(event));
  else failed.delete(idOf(event));
  set(variant, { ...now, failed });
  return true;
}
