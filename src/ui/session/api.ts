/** Calls to the server. A refusal is thrown as `Refusal`; anything else thrown means that the server was not reached. */
import type { Design, Edit } from '../../core/design';
import { Refusal } from './types';
import type { ApiFault, DesignHead, DesignRow, LoadedVariant, Step } from './types';

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const response = await fetch(path, {
    method,
    ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
  });
  const text = await response.text();
  let value: unknown = null;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Refusal(response.status, 'no-json', 'The server answered something that cannot be read.', [], []);
  }
  if (response.ok) return value as T;
  const { error } = value as { error: { code: string; sentence: string; faults: ApiFault[]; steps?: Step[] } };
  throw new Refusal(response.status, error.code, error.sentence, error.faults ?? [], error.steps ?? []);
}

const id = encodeURIComponent;

export const api = {
  listDesigns: () => call<{ designs: DesignRow[] }>('GET', '/api/designs').then((r) => r.designs),
  createDesign: (name: string, design?: Design) => call<DesignHead>('POST', '/api/designs', { name, design }),
  design: (design: string) => call<DesignHead>('GET', `/api/designs/${id(design)}`),
  renameDesign: (design: string, name: string) => call<DesignHead>('PATCH', `/api/designs/${id(design)}`, { name }),
  duplicateDesign: (design: string) => call<DesignHead>('POST', `/api/designs/${id(design)}/duplicate`),
  deleteDesign: (design: string) => call<unknown>('DELETE', `/api/designs/${id(design)}`),
  restoreDesign: (design: string) => call<DesignHead>('POST', `/api/designs/${id(design)}/restore`),
  copyVariant: (design: string, from: string, name?: string, document?: Design) =>
    call<DesignHead>('POST', `/api/designs/${id(design)}/variants`, { from, name, design: document }),
  renameVariant: (design: string, variant: string, name: string) =>
    call<DesignHead>('PATCH', `/api/designs/${id(design)}/variants/${id(variant)}`, { name }),
  deleteVariant: (design: string, variant: string) =>
    call<DesignHead>('DELETE', `/api/designs/${id(design)}/variants/${id(variant)}`),
  restoreVariant: (design: string, variant: string) =>
    call<DesignHead>('POST', `/api/designs/${id(design)}/variants/${id(variant)}/restore`),
  variant: (variant: string) => call<LoadedVariant>('GET', `/api/variants/${id(variant)}`),
  steps: (variant: string, since: number) =>
    call<{ steps: Step[] }>('GET', `/api/variants/${id(variant)}/steps?since=${since}`).then((r) => r.steps),
  step: (variant: string, revision: number, label: string, edits: readonly Edit[], client: string) =>
    call<Step>('POST', `/api/variants/${id(variant)}/steps`, { revision, label, edits, client }),
  undo: (variant: string, revision: number, client: string) =>
    call<Step>('POST', `/api/variants/${id(variant)}/undo`, { revision, client }),
  redo: (variant: string, revision: number, client: string) =>
    call<Step>('POST', `/api/variants/${id(variant)}/redo`, { revision, client }),
  eventsUrl: (variant: string, since: number) => `/api/variants/${id(variant)}/events?since=${since}`,
  exportUrl: (variant: string, format: string) => `/api/variants/${id(variant)}/export?format=${format}`,
};
export type Api = typeof api;
