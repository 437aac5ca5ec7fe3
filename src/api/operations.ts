/** Every operation of the API: its path, what it takes and what it answers. The server and its description read this list. */
import type { z } from 'zod';
import * as c from './contract';
import { planAnswer, planRequest, reviewAnswer, reviewRequest } from './compute';
import { discoverRequest } from './observe';
import { standInEvent, standInRequest } from './stand-in';

export type Method = 'GET' | 'POST' | 'PATCH' | 'DELETE';

export interface Operation {
  readonly method: Method;
  /** Below `/api`; `:name` is a part of the caller's. */
  readonly path: string;
  readonly summary: string;
  readonly request?: z.ZodType;
  readonly status?: 200 | 201;
  /** JSON that is answered, or the types of a file. */
  readonly answer: z.ZodType | readonly string[];
  /** Parameters of the query with what they are. */
  readonly query?: Readonly<Record<string, string>>;
}

const VARIANT = '/variants/:variant';
const DESIGN = '/designs/:design';
const OF_DESIGN = `${DESIGN}/variants/:variant`;

export const OPERATIONS = {
  listDesigns: { method: 'GET', path: '/designs', summary: 'All designs, and the deleted ones', answer: c.designList },
  createDesign: {
    method: 'POST',
    path: '/designs',
    summary: 'A new design: empty, or from a document',
    request: c.createRequest,
    status: 201,
    answer: c.designHead,
  },
  importDesign: {
    method: 'POST',
    path: '/import',
    summary: 'A new design from a design file or from tables',
    request: c.importRequest,
    status: 201,
    answer: c.designHead,
  },
  design: { method: 'GET', path: DESIGN, summary: 'A design and its variants', answer: c.designHead },
  renameDesign: {
    method: 'PATCH',
    path: DESIGN,
    summary: 'Renames a design',
    request: c.renameRequest,
    answer: c.designHead,
  },
  deleteDesign: {
    method: 'DELETE',
    path: DESIGN,
    summary: 'Deletes a design; it can be restored for 30 days',
    query: { 'for-good': 'yes: takes a deleted design out of the file' },
    answer: c.deletedAnswer,
  },
  duplicateDesign: {
    method: 'POST',
    path: `${DESIGN}/duplicate`,
    summary: 'A copy of a design',
    status: 201,
    answer: c.designHead,
  },
  restoreDesign: {
    method: 'POST',
    path: `${DESIGN}/restore`,
    summary: 'Restores a deleted design',
    answer: c.designHead,
  },
  recoverDesign: {
    method: 'POST',
    path: `${DESIGN}/recover`,
    summary: 'A new design with the last readable state of every variant',
    request: c.recoverRequest,
    status: 201,
    answer: c.recoveredDesign,
  },
  copyVariant: {
    method: 'POST',
    path: `${DESIGN}/variants`,
    summary: 'A new variant: a copy of one, of one of its states, or a document',
    request: c.copyRequest,
    status: 201,
    answer: c.designHead,
  },
  renameVariant: {
    method: 'PATCH',
    path: OF_DESIGN,
    summary: 'Renames a variant',
    request: c.renameRequest,
    answer: c.designHead,
  },
  deleteVariant: { method: 'DELETE', path: OF_DESIGN, summary: 'Deletes a variant', answer: c.designHead },
  restoreVariant: {
    method: 'POST',
    path: `${OF_DESIGN}/restore`,
    summary: 'Restores a deleted variant',
    answer: c.designHead,
  },
  variant: {
    method: 'GET',
    path: VARIANT,
    summary: 'A variant with its document and history',
    answer: c.loadedVariant,
  },
  steps: {
    method: 'GET',
    path: `${VARIANT}/steps`,
    summary: 'Steps after a revision, oldest first',
    query: { since: 'revision, 0 when absent' },
    answer: c.stepList,
  },
  step: {
    method: 'POST',
    path: `${VARIANT}/steps`,
    summary: 'Makes a change; a request with a key is carried out once',
    request: c.stepRequest,
    status: 201,
    answer: c.stepSchema,
  },
  undo: {
    method: 'POST',
    path: `${VARIANT}/undo`,
    summary: 'Undoes the last change',
    request: c.undoRequest,
    status: 201,
    answer: c.stepSchema,
  },
  redo: {
    method: 'POST',
    path: `${VARIANT}/redo`,
    summary: 'Makes the last undone change again',
    request: c.undoRequest,
    status: 201,
    answer: c.stepSchema,
  },
  stack: {
    method: 'GET',
    path: `${VARIANT}/stack`,
    summary: 'The next page of what can be undone or redone',
    query: { kind: 'undo or redo', from: 'undoBelow or redoBelow of the page before' },
    answer: c.stackPage,
  },
  past: {
    method: 'GET',
    path: `${VARIANT}/history`,
    summary: 'What happened, newest first, 100 steps a page',
    query: { before: 'revision; the newest when absent' },
    answer: c.pastSchema,
  },
  state: {
    method: 'GET',
    path: `${VARIANT}/states/:revision`,
    summary: 'The document after a step',
    answer: c.stateSchema,
  },
  nameState: {
    method: 'POST',
    path: `${VARIANT}/states`,
    summary: 'Names a state; an empty name removes the name',
    request: c.stateNameRequest,
    answer: c.namedState,
  },
  difference: {
    method: 'GET',
    path: `${VARIANT}/difference`,
    summary: 'What differs between two states, in words',
    query: { from: 'revision', to: 'revision' },
    answer: c.stateDifference,
  },
  goBack: {
    method: 'POST',
    path: `${VARIANT}/go-back`,
    summary: 'Makes the newest state what an earlier one was',
    request: c.goBackRequest,
    status: 201,
    answer: c.stepSchema,
  },
  trees: {
    method: 'GET',
    path: `${VARIANT}/trees`,
    summary: 'The trees of a variant, or one of them solved',
    query: { tree: 'id of a tree; the list when absent' },
    answer: c.treeList.or(c.solutionTree),
  },
  export: {
    method: 'GET',
    path: `${VARIANT}/export`,
    summary: 'The variant as a file',
    query: {
      format:
        'json, graphml, topology, linux-lab, openconfig, ieee-yang, settings, networkd, switches, links, vlans or raw',
    },
    answer: ['application/json', 'application/graphml+xml', 'text/plain', 'text/x-shellscript', 'text/csv'],
  },
  backup: { method: 'GET', path: '/backup', summary: 'The database as one file', answer: ['application/vnd.sqlite3'] },
  archive: { method: 'GET', path: '/archive', summary: 'All designs as one archive', answer: ['application/zip'] },
} as const satisfies Record<string, Operation>;

export type OperationName = keyof typeof OPERATIONS;

/** Requests that the process answers without its database thread. */
export const SERVER_OPERATIONS = {
  review: {
    method: 'POST',
    path: '/review',
    summary: 'Findings of a design, what each failure does, and cables that are missing; with progress: JSON a line',
    request: reviewRequest,
    answer: reviewAnswer,
  },
  plan: {
    method: 'POST',
    path: '/plan',
    summary: 'The steps from one design to another, in the order with the shortest outage; with progress: JSON a line',
    request: planRequest,
    answer: planAnswer,
  },
  observe: {
    method: 'POST',
    path: '/observe',
    summary:
      'Asks devices by SNMP and reads them; progress and what was read, JSON a line; closing the connection ends it',
    request: discoverRequest,
    answer: ['application/x-ndjson'],
  },
  standIn: {
    method: 'POST',
    path: '/stand-in',
    summary: 'Runs a design as a network of SNMP agents, JSON a line; closing the connection ends it',
    request: standInRequest,
    answer: ['application/x-ndjson'],
  },
  standInEvent: {
    method: 'POST',
    path: '/stand-in/:network/events',
    summary: 'Lets a link or a switch of a running network fail, or come back',
    request: standInEvent,
    answer: c.doneAnswer,
  },
  events: {
    method: 'GET',
    path: '/events',
    summary: 'Server-sent events; each is a Notice',
    answer: ['text/event-stream'],
  },
  health: { method: 'GET', path: '/health', summary: 'How the server is', answer: c.healthSchema },
  openapi: { method: 'GET', path: '/openapi.json', summary: 'This description', answer: ['application/json'] },
  signIn: {
    method: 'POST',
    path: '/sign-in',
    summary: 'Sets the session cookie',
    request: c.signInRequest,
    answer: c.signedIn,
  },
  signOut: { method: 'POST', path: '/sign-out', summary: 'Removes the session cookie', answer: c.signedIn },
} as const satisfies Record<string, Operation>;
