/** Every operation of the API by name: what it takes, what it does to the database, what it answers. Runs in the thread that owns the database. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { z } from 'zod';
import {
  copyRequest,
  createRequest,
  goBackRequest,
  importRequest,
  recoverRequest,
  renameRequest,
  stateNameRequest,
  stepRequest,
  undoRequest,
} from '../api/contract';
import type { Notice, Step } from '../api/contract';
import type { OperationName } from '../api/operations';
import { DOCUMENT_LIMITS, emptyDesign, faultsOf, jsonFault, readDesign } from '../core/design';
import type { Design } from '../core/design';
import { solutionOf } from '../core/formats';
import { solveDesign } from '../core/trees';
import { EXAMPLES, exampleById } from '../demo/examples';
import { archiveOf } from './archive';
import { backupTo, stampOf } from './backup';
import {
  copyVariant,
  createDesign,
  deleteDesign,
  deleteVariant,
  duplicateDesign,
  findDesign,
  listDeleted,
  listDesigns,
  purgeDesign,
  recoverDesign,
  renameDesign,
  renameVariant,
  restoreDesign,
  restoreVariant,
} from './designs';
import type { NewId } from './designs';
import { currentDesign, rawStates, variantRow } from './documents';
import { exportFile, fileName } from './export';
import { readImport } from './import';
import { differenceOf, nameState, pastOf } from './past';
import { Problem, notFound, refused } from './problem';
import type { Db } from './db';
import { applyStep, goBack, loadVariant, moveStep, stackOf, stateAt, stepsSince } from './variants';

export interface Call {
  readonly db: Db;
  /** Parts of the path, by name. */
  readonly params: Readonly<Record<string, string>>;
  readonly query: Readonly<Record<string, string>>;
  readonly body: string;
  readonly now: number;
  readonly newId: NewId;
  readonly publish: (notice: Notice) => void;
}

/** What is sent: a value as JSON, a text or bytes as a file, or a file on disk that goes once it is sent. */
export interface Outcome {
  readonly status?: number;
  readonly value?: unknown;
  readonly download?: { readonly name: string; readonly type: string; readonly content: string | Uint8Array };
  readonly file?: { readonly name: string; readonly type: string; readonly path: string };
}

/** The body of a request as the schema has it; refused with sentences otherwise. */
export function bodyOf<T extends z.ZodType>(text: string, schema: T): z.output<T> {
  let value: unknown;
  try {
    value = JSON.parse(text === '' ? '{}' : text);
  } catch {
    throw new Problem(400, 'broken-json', 'The request is not complete JSON.');
  }
  const fault = jsonFault(value, DOCUMENT_LIMITS);
  if (fault !== null) throw new Problem(422, 'beyond-limits', fault);
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw refused(faultsOf(parsed.error));
  return parsed.data;
}

/** A whole number of the query; `usual` when it is not given. */
function numberOf(call: Call, name: string, usual?: number): number {
  const text = call.query[name];
  if (text === undefined && usual !== undefined) return usual;
  if (!/^\d{1,15}$/.test(text ?? ''))
    throw new Problem(422, 'query', `The query needs '${name}' as a whole number from 0.`);
  return Number(text);
}

const param = (call: Call, name: string): string => call.params[name] ?? '';
const design = (call: Call): string => param(call, 'design');
const variant = (call: Call): string => param(call, 'variant');

function given(document: unknown): Design | undefined {
  if (document === undefined) return undefined;
  const read = readDesign(document);
  if (!read.ok) throw refused(read.faults);
  return read.design;
}

const made = (value: unknown): Outcome => ({ status: 201, value });
const listed = (call: Call, outcome: Outcome): Outcome => {
  call.publish({ kind: 'designs' });
  return outcome;
};

/** Answers with the step, and tells the windows of it. */
function stepped(call: Call, step: Step): Outcome {
  call.publish({ kind: 'step', variant: variant(call), revision: step.revision, client: step.client });
  return made(step);
}

function move(kind: 'undo' | 'redo') {
  return (call: Call) =>
    stepped(call, moveStep(call.db, variant(call), kind, bodyOf(call.body, undoRequest), call.now));
}

function trees(call: Call): Outcome {
  const solved = solveDesign(currentDesign(call.db, variantRow(call.db, variant(call))));
  const wanted = call.query.tree;
  if (wanted === undefined) return { value: { trees: solved.trees.map(({ tree, fold }) => ({ ...tree, fold })) } };
  const of = solved.byId.get(wanted);
  if (!of) throw notFound('tree', wanted);
  return { value: solutionOf(solved, of) };
}

function exported(call: Call): Outcome {
  const row = variantRow(call.db, variant(call));
  const { name } = findDesign(call.db, row.designId);
  if (call.query.format === 'raw') {
    const file = `${fileName(name)}-${fileName(row.name)}-stored.json`;
    return { download: { name: file, type: 'application/json', content: rawStates(call.db, row.id) } };
  }
  const loaded = { name: row.name, design: currentDesign(call.db, row) };
  const { text, ...file } = exportFile(name, loaded, call.query.format ?? 'json');
  return { download: { ...file, content: text } };
}

function exampleOf(id: string): Design {
  const example = exampleById(id);
  if (!example)
    throw new Problem(422, 'unknown-example', `There is no example '${id}': ${EXAMPLES.map((e) => e.id).join(', ')}.`);
  return example.design();
}

async function backup(call: Call): Promise<Outcome> {
  const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-backup-'));
  const name = `knot-path-${stampOf(call.now)}.sqlite`;
  const file = path.join(folder, name);
  await backupTo(call.db.$client, file);
  return { file: { name, type: 'application/vnd.sqlite3', path: file } };
}

export const OPERATIONS = {
  listDesigns: (call: Call) => ({ value: { designs: listDesigns(call.db), deleted: listDeleted(call.db) } }),
  createDesign: (call: Call) => {
    const { name, variant: called = 'as drawn', design: document, example } = bodyOf(call.body, createRequest);
    const shown = example === undefined ? null : exampleOf(example);
    const documents = [{ name: called, design: shown ?? given(document) ?? emptyDesign(name) }];
    return listed(call, made(createDesign(call.db, name, documents, call.newId, call.now)));
  },
  importDesign: (call: Call) => {
    const asked = bodyOf(call.body, importRequest);
    const documents = [{ name: 'as imported', design: readImport(asked) }];
    return listed(call, made(createDesign(call.db, asked.name, documents, call.newId, call.now)));
  },
  design: (call: Call) => ({ value: findDesign(call.db, design(call)) }),
  renameDesign: (call: Call) => {
    const { name } = bodyOf(call.body, renameRequest);
    return listed(call, { value: renameDesign(call.db, design(call), name, call.now) });
  },
  deleteDesign: (call: Call) => {
    if (call.query['for-good'] === 'yes') purgeDesign(call.db, design(call));
    else deleteDesign(call.db, design(call), call.now);
    return listed(call, { value: { deleted: true } });
  },
  duplicateDesign: (call: Call) => listed(call, made(duplicateDesign(call.db, design(call), call.newId, call.now))),
  restoreDesign: (call: Call) => listed(call, { value: restoreDesign(call.db, design(call)) }),
  recoverDesign: (call: Call) => {
    const { name } = bodyOf(call.body, recoverRequest);
    return listed(call, made(recoverDesign(call.db, design(call), name, call.newId, call.now)));
  },
  copyVariant: (call: Call) => {
    const { from, name, design: document, revision } = bodyOf(call.body, copyRequest);
    const as = { design: given(document), revision };
    return made(copyVariant(call.db, design(call), from, name ?? null, call.newId, call.now, as));
  },
  renameVariant: (call: Call) => {
    const { name } = bodyOf(call.body, renameRequest);
    return { value: renameVariant(call.db, design(call), variant(call), name) };
  },
  deleteVariant: (call: Call) => ({ value: deleteVariant(call.db, design(call), variant(call), call.now) }),
  restoreVariant: (call: Call) => ({ value: restoreVariant(call.db, design(call), variant(call)) }),
  variant: (call: Call) => ({ value: loadVariant(call.db, variant(call)) }),
  steps: (call: Call) => ({ value: { steps: stepsSince(call.db, variant(call), numberOf(call, 'since', 0)) } }),
  step: (call: Call) => {
    const { label, edits, ...request } = bodyOf(call.body, stepRequest);
    return stepped(call, applyStep(call.db, variant(call), request, label, edits, call.now));
  },
  undo: move('undo'),
  redo: move('redo'),
  stack: (call: Call) => {
    const kind = call.query.kind === 'redo' ? 'redo' : 'undo';
    return { value: stackOf(call.db, variant(call), kind, numberOf(call, 'from')) };
  },
  past: (call: Call) => ({ value: pastOf(call.db, variant(call), numberOf(call, 'before', Number.MAX_SAFE_INTEGER)) }),
  state: (call: Call) => {
    const revision = Number(param(call, 'revision'));
    if (!Number.isSafeInteger(revision) || revision < 0) throw notFound('state', param(call, 'revision'));
    return { value: { revision, design: stateAt(call.db, variant(call), revision) } };
  },
  nameState: (call: Call) => {
    const { revision, name } = bodyOf(call.body, stateNameRequest);
    nameState(call.db, variant(call), revision, name);
    return { value: { revision, name } };
  },
  difference: (call: Call) => ({
    value: differenceOf(call.db, variant(call), numberOf(call, 'from'), numberOf(call, 'to')),
  }),
  goBack: (call: Call) => {
    const request = bodyOf(call.body, goBackRequest);
    const step = goBack(call.db, variant(call), request, `Back to state ${request.to}`, call.now);
    return stepped(call, step);
  },
  trees,
  export: exported,
  backup,
  archive: async (call: Call) => ({
    download: {
      name: `knot-path-designs-${stampOf(call.now)}.zip`,
      type: 'application/zip',
      content: await archiveOf(call.db),
    },
  }),
} satisfies Record<OperationName, (call: Call) => Outcome | Promise<Outcome>>;
