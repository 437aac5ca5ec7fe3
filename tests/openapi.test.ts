/** The description of the API is up to date, and what the server answers is what it describes. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { z } from 'zod';
import { apiError } from '@/api/contract';
import { openApi } from '@/api/openapi';
import { OPERATIONS, SERVER_OPERATIONS } from '@/api/operations';
import type { Operation, OperationName } from '@/api/operations';
import { asCabled, asMeant } from '@/demo/brackwater';
import { openDatabase } from '@/server/database';
import { handleApi } from '@/server/http';
import { directStore, setStore } from '@/server/store';
import { compilePrograms } from './support/programs';

beforeEach(() => setStore(directStore(openDatabase(':memory:'), ':memory:')));

async function request(method: string, at: string, body?: unknown): Promise<Response> {
  const init =
    body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } };
  return handleApi(new Request(`http://localhost/api${at}`, { method, ...init }));
}

test('docs/openapi.json is the one that is made from the schemas, and the server answers with it', async () => {
  const file = readFileSync(path.join(process.cwd(), 'docs', 'openapi.json'), 'utf8');
  expect(JSON.parse(file)).toEqual(JSON.parse(JSON.stringify(openApi())));
  expect(await (await request('GET', '/openapi.json')).json()).toEqual(JSON.parse(file));
});

test('every reference leads to a schema, and every part of a path is a parameter', () => {
  const text = JSON.stringify(openApi());
  const { components, paths } = openApi() as unknown as {
    components: { schemas: Record<string, unknown> };
    paths: Record<string, Record<string, { parameters: { name: string; in: string }[] }>>;
  };
  for (const [, name] of text.matchAll(/#\/components\/schemas\/(\w+)/g))
    expect(components.schemas).toHaveProperty(name!);
  for (const [at, methods] of Object.entries(paths))
    for (const { parameters } of Object.values(methods))
      expect(parameters.filter((p) => p.in === 'path').map((p) => p.name)).toEqual(
        [...at.matchAll(/\{(\w+)\}/g)].map(([, name]) => name),
      );
});

const SENDER = { client: 'c' };
const edits = (value: number) => [{ type: 'set', kind: 'switch', id: 'gate', field: 'priority', value }];

test('every operation answers as it is described', async () => {
  const seen = new Set<string>();
  const check = async (
    name: OperationName | keyof typeof SERVER_OPERATIONS,
    params: Record<string, string>,
    more: { body?: unknown; query?: string } = {},
  ) => {
    const operation: Operation = { ...OPERATIONS, ...SERVER_OPERATIONS }[name];
    const at = operation.path.replace(/:(\w+)/g, (_, part: string) => params[part]!);
    const response = await request(operation.method, at + (more.query ?? ''), more.body);
    expect([name, response.status]).toEqual([name, operation.status ?? 200]);
    seen.add(name);
    if (Array.isArray(operation.answer)) {
      const type = response.headers.get('content-type')!.split(';')[0];
      expect([name, operation.answer.includes(type)]).toEqual([name, true]);
      await response.body?.cancel();
      return null;
    }
    const value: unknown = await response.json();
    const parsed = (operation.answer as z.ZodType).safeParse(value);
    expect([name, parsed.error?.issues]).toEqual([name, undefined]);
    return value as Record<string, never>;
  };
  const head = (await check('createDesign', {}, { body: { name: 'Harbour', design: asCabled() } }))! as never as {
    id: string;
    variants: { id: string }[];
  };
  const at = { design: head.id, variant: head.variants[0]!.id };
  const source = { file: 'd.json', text: JSON.stringify(asCabled()) };
  await check('importDesign', {}, { body: { name: 'From a file', json: source } });
  await check('design', at);
  await check('renameDesign', at, { body: { name: 'Port' } });
  await check('step', at, { body: { revision: 0, label: 'a', edits: edits(4096), ...SENDER, key: 'k' } });
  await check('undo', at, { body: { revision: 1, ...SENDER } });
  await check('redo', at, { body: { revision: 2, ...SENDER } });
  await check('nameState', at, { body: { revision: 3, name: 'agreed' } });
  await check('goBack', at, { body: { revision: 3, to: 0, ...SENDER } });
  await check('variant', at);
  await check('steps', at, { query: '?since=0' });
  await check('stack', at, { query: '?kind=undo&from=4' });
  await check('past', at);
  await check('state', { ...at, revision: '1' });
  await check('difference', at, { query: '?from=0&to=1' });
  await check('trees', at);
  await check('trees', at, { query: '?tree=vlan-110' });
  for (const format of [
    'json',
    'graphml',
    'topology',
    'linux-lab',
    'openconfig',
    'ieee-yang',
    'settings',
    'networkd',
    'switches',
    'links',
    'vlans',
    'raw',
  ])
    await check('export', at, { query: `?format=${format}` });
  const copied = (await check('copyVariant', at, { body: { from: at.variant } })) as never as {
    variants: { id: string }[];
  };
  const copy = { ...at, variant: copied.variants.at(-1)!.id };
  await check('renameVariant', copy, { body: { name: 'another' } });
  await check('deleteVariant', copy);
  await check('restoreVariant', copy);
  await check('duplicateDesign', at);
  await check('recoverDesign', at, { body: {} });
  await check('deleteDesign', at);
  await check('listDesigns', {});
  await check('restoreDesign', at);
  await check('backup', {});
  await check('archive', {});
  for (const name of ['health', 'events', 'openapi', 'signOut'] as const) await check(name, {});
  await check('signIn', {}, { body: { password: '' } });
  const credentials = { version: '2c', community: 'none' };
  await check('observe', {}, { body: { addresses: ['127.0.0.1:1'], credentials, fence: {} } });
  await check('standIn', {}, { body: { design: asCabled() } });
  compilePrograms();
  await check('review', {}, { body: { design: asCabled() } });
  const plan = await check('plan', {}, { body: { from: asCabled(), to: asMeant(), seconds: 0, at: 'ferry-server' } });
  expect((plan as unknown as { steps: unknown[] }).steps.length).toBeGreaterThan(3);
  const nowhere = await request('POST', '/plan', { from: asCabled(), to: asMeant(), at: 'nowhere' });
  expect([nowhere.status, await nowhere.text()]).toEqual([422, expect.stringContaining('nowhere')]);
  const running = (await request('POST', '/stand-in', { design: asCabled() })).body!.getReader();
  const { value: line } = (await running.read()) as { value: Uint8Array };
  const { id } = JSON.parse(new TextDecoder().decode(line)) as { id: string };
  await check('standInEvent', { network: id }, { body: { kind: 'off', switch: asCabled().switches[0]!.id } });
  await running.cancel();
  expect([...seen].sort()).toEqual(Object.keys({ ...OPERATIONS, ...SERVER_OPERATIONS }).sort());
}, 120_000);

test('a refusal is as it is described', async () => {
  const response = await request('GET', '/designs/nothing');
  const { error } = (await response.json()) as { error: unknown };
  expect([response.status, apiError.safeParse(error).success]).toEqual([404, true]);
});
