/**
 * Calls to the server. A refusal is thrown as `Refusal`. Whatever may pass by itself (no connection, a timeout, an
 * answer that is no JSON, 5xx, a sign-in that ran out) is thrown as `Unreached`: the request is worth sending again.
 */
import type { Design, Edit, HistoryEntry } from '../../core/design';
import type { ApiError } from '../../api/contract';
import { Refusal, Unreached } from './types';
import type { DeletedDesign, DesignHead, DesignRow, LoadedVariant, Past, StateDifference, Step } from './types';

/** Longest wait for an answer, in milliseconds. */
const TIMEOUT = 30_000;

function unreached(response: Response, error: ApiError | null): Unreached | null {
  const { status } = response;
  if (status === 401) return new Unreached('You are signed out: sign in again in another window.');
  if (status < 500 && status !== 408 && status !== 429) return null;
  const seconds = Number(response.headers.get('retry-after'));
  return new Unreached(
    error?.sentence ?? `The server answered with error ${status}.`,
    Number.isFinite(seconds) && seconds > 0 ? seconds * 1000 : null,
  );
}

async function fetched(method: string, path: string, body?: unknown): Promise<{ response: Response; text: string }> {
  try {
    const response = await fetch(path, {
      method,
      signal: AbortSignal.timeout(TIMEOUT),
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
    });
    return { response, text: await response.text() };
  } catch (error) {
    const slow = error instanceof DOMException && error.name === 'TimeoutError';
    throw new Unreached(
      slow ? `The server did not answer within ${TIMEOUT / 1000} s.` : 'The server cannot be reached.',
    );
  }
}

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const { response, text } = await fetched(method, path, body);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw unreached(response, null) ?? new Unreached('The server answered something that cannot be read.');
  }
  if (response.ok) return value as T;
  const error = (value as { error?: ApiError } | null)?.error ?? null;
  const passing = unreached(response, error);
  if (passing) throw passing;
  if (!error) throw new Unreached('The server answered something that cannot be read.');
  throw new Refusal(response.status, error.code, error.sentence, error.faults ?? [], error.steps ?? []);
}

const id = encodeURIComponent;
const variantAt = (variant: string) => `/api/variants/${id(variant)}`;

/** Who sends a change, and how the server tells it from another one. */
export interface Sender {
  readonly key: string;
  readonly client: string;
  readonly author: string;
  readonly epoch: string;
}

export const api = {
  listDesigns: () => call<{ designs: DesignRow[]; deleted: DeletedDesign[] }>('GET', '/api/designs'),
  createDesign: (name: string, design?: Design) => call<DesignHead>('POST', '/api/designs', { name, design }),
  openExample: (name: string, example: string) => call<DesignHead>('POST', '/api/designs', { name, example }),
  design: (design: string) => call<DesignHead>('GET', `/api/designs/${id(design)}`),
  renameDesign: (design: string, name: string) => call<DesignHead>('PATCH', `/api/designs/${id(design)}`, { name }),
  duplicateDesign: (design: string) => call<DesignHead>('POST', `/api/designs/${id(design)}/duplicate`),
  deleteDesign: (design: string) => call<unknown>('DELETE', `/api/designs/${id(design)}`),
  purgeDesign: (design: string) => call<unknown>('DELETE', `/api/designs/${id(design)}?for-good=yes`),
  restoreDesign: (design: string) => call<DesignHead>('POST', `/api/designs/${id(design)}/restore`),
  recoverDesign: (design: string) => call<DesignHead>('POST', `/api/designs/${id(design)}/recover`, {}),
  copyVariant: (
    design: string,
    from: string,
    { name, design: document, revision }: { name?: string; design?: Design; revision?: number } = {},
  ) => call<DesignHead>('POST', `/api/designs/${id(design)}/variants`, { from, name, design: document, revision }),
  renameVariant: (design: string, variant: string, name: string) =>
    call<DesignHead>('PATCH', `/api/designs/${id(design)}/variants/${id(variant)}`, { name }),
  deleteVariant: (design: string, variant: string) =>
    call<DesignHead>('DELETE', `/api/designs/${id(design)}/variants/${id(variant)}`),
  restoreVariant: (design: string, variant: string) =>
    call<DesignHead>('POST', `/api/designs/${id(design)}/variants/${id(variant)}/restore`),
  variant: (variant: string) => call<LoadedVariant>('GET', variantAt(variant)),
  steps: (variant: string, since: number) =>
    call<{ steps: Step[] }>('GET', `${variantAt(variant)}/steps?since=${since}`).then((r) => r.steps),
  step: (variant: string, revision: number, label: string, edits: readonly Edit[], sender: Sender) =>
    call<Step>('POST', `${variantAt(variant)}/steps`, { revision, label, edits, ...sender }),
  move: (kind: 'undo' | 'redo', variant: string, revision: number, target: string | number, sender: Sender) =>
    call<Step>('POST', `${variantAt(variant)}/${kind}`, { revision, target, ...sender }),
  stack: (variant: string, kind: 'undo' | 'redo', from: number) =>
    call<{ entries: HistoryEntry[]; below: number | null }>(
      'GET',
      `${variantAt(variant)}/stack?kind=${kind}&from=${from}`,
    ),
  past: (variant: string, before: number | null) =>
    call<Past>('GET', `${variantAt(variant)}/history${before === null ? '' : `?before=${before}`}`),
  stateAt: (variant: string, revision: number) =>
    call<{ revision: number; design: Design }>('GET', `${variantAt(variant)}/states/${revision}`),
  nameState: (variant: string, revision: number, name: string) =>
    call<unknown>('POST', `${variantAt(variant)}/states`, { revision, name }),
  difference: (variant: string, from: number, to: number) =>
    call<StateDifference>('GET', `${variantAt(variant)}/difference?from=${from}&to=${to}`),
  signIn: (password: string) => call<unknown>('POST', '/api/sign-in', { password }),
  signOut: () => call<unknown>('POST', '/api/sign-out', {}),
  health: () => call<{ version: string }>('GET', '/api/health'),
  exportUrl: (variant: string, format: string) => `${variantAt(variant)}/export?format=${format}`,
};

export type Api = typeof api;
