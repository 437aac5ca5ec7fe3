import { expect } from '@playwright/test';
import { spawn } from 'node:child_process';
import path from 'node:path';
import { asCabled } from '../src/demo/brackwater';
import { freshDemo, openTrees, pick, saved, test } from './support';

test('two windows on one design see each other without a reload', async ({ browser, request }) => {
  const demo = await freshDemo(request, 'together');
  const [one, two] = [await browser.newPage(), await browser.newPage()];
  await openTrees(one, demo, '&tree=vlan-199&sel=switch~gate');
  await openTrees(two, demo, '&tree=vlan-199&sel=switch~crane-yard');
  await pick(one, 'Bridge priority', '4096');
  await expect(two.getByRole('button', { name: /^gate, root, priority 4096/ })).toBeAttached();
  await expect(two.getByLabel('What the last change moved')).toContainText('Changed in another window');
  await pick(two, 'Bridge priority', '0');
  await expect(one.getByRole('button', { name: /^crane-yard, root, priority 0/ })).toBeAttached();
  await one.keyboard.press('Control+z');
  await expect(two.getByRole('button', { name: /^gate, root, priority 4096/ })).toBeAttached();
});

test('edits made while the server is away are kept; elsewhere they are rebased, on the same field both sides are shown', async ({
  browser,
  request,
}) => {
  const demo = await freshDemo(request, 'conflict');
  const context = await browser.newContext();
  const page = await context.newPage();
  await openTrees(page, demo, '&tree=vlan-199&sel=switch~gate');
  await context.setOffline(true);
  await pick(page, 'Bridge priority', '8192');
  await expect(page.getByRole('status', { name: 'State of saving' })).toContainText('not saved: server not reached');
  const step = (revision: number, id: string, value: number) =>
    request.post(`/api/variants/${demo.variant}/steps`, {
      data: {
        revision,
        label: `by hand: ${id}`,
        client: 'other',
        edits: [{ type: 'set', kind: 'switch', id, field: 'vlanPriority.199', value }],
      },
    });
  expect((await step(0, 'quay-a', 16384)).status()).toBe(201);
  await context.setOffline(false);
  await saved(page);
  const after = await (await request.get(`/api/variants/${demo.variant}`)).json();
  expect(after.revision).toBe(2);
  const priorities = Object.fromEntries(
    after.design.switches.map((s: { id: string; vlanPriority?: object }) => [s.id, s.vlanPriority]),
  );
  expect(priorities.gate).toEqual({ '199': 8192 });
  expect(priorities['quay-a']).toEqual({ '199': 16384 });

  await context.setOffline(true);
  await pick(page, 'Bridge priority', '12288');
  expect((await step(2, 'gate', 20480)).status()).toBe(201);
  await context.setOffline(false);
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('by hand: gate');
  await expect(dialog).toContainText('Priority of gate for VLAN 199: 12288');
  await dialog.getByRole('button', { name: 'Apply mine on top' }).click();
  await saved(page);
  await expect(page.getByRole('combobox', { name: 'Bridge priority' })).toContainText('12288');
});

test('an acknowledged edit survives the server being killed', async () => {
  const port = 4189;
  const base = `http://127.0.0.1:${port}`;
  const env = {
    ...process.env,
    PORT: String(port),
    KNOT_PATH_DB: path.join(process.env.E2E_DIR!, 'killed.sqlite'),
    NODE_ENV: 'production' as const,
  };
  const start = async () => {
    const child = spawn(process.execPath, ['scripts/start.mjs'], { env, detached: true, stdio: 'ignore' });
    await expect
      .poll(
        () =>
          fetch(`${base}/api/designs`).then(
            (r) => r.status,
            () => 0,
          ),
        { timeout: 60_000 },
      )
      .toBe(200);
    return () => process.kill(-child.pid!, 'SIGKILL');
  };
  const post = (url: string, data: unknown) =>
    fetch(base + url, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(data) });
  let kill: () => boolean = await start();
  try {
    const head = await (await post('/api/designs', { name: 'killed', design: asCabled() })).json();
    const variant = head.variants[0].id;
    for (let revision = 0; revision < 70; revision++) {
      const edit = { type: 'set', kind: 'switch', id: 'gate', field: 'priority', value: (revision % 16) * 4096 };
      const answer = await post(`/api/variants/${variant}/steps`, {
        revision,
        label: `edit ${revision}`,
        client: 'c',
        edits: [edit],
      });
      expect(answer.status).toBe(201);
    }
    kill();
    kill = () => true;
    kill = await start();
    const found = await (await fetch(`${base}/api/variants/${variant}`)).json();
    expect(found.revision).toBe(70);
    expect(found.design.switches.find((s: { id: string }) => s.id === 'gate').priority).toBe((69 % 16) * 4096);
    expect([found.history.undo.length, found.history.undoBelow]).toEqual([50, 20]);
    expect((await (await fetch(`${base}/api/variants/${variant}/steps`)).json()).steps).toHaveLength(70);
  } finally {
    kill();
  }
});

test('in a conflict, my side can be put aside as a variant of its own', async ({ browser, request }) => {
  const demo = await freshDemo(request, 'aside');
  const context = await browser.newContext();
  const page = await context.newPage();
  await openTrees(page, demo, '&tree=vlan-199&sel=switch~gate');
  await context.setOffline(true);
  await pick(page, 'Bridge priority', '8192');
  await request.post(`/api/variants/${demo.variant}/steps`, {
    data: {
      revision: 0,
      label: 'theirs',
      client: 'other',
      edits: [{ type: 'set', kind: 'switch', id: 'gate', field: 'vlanPriority.199', value: 20480 }],
    },
  });
  await context.setOffline(false);
  await page.getByRole('dialog').getByRole('button', { name: 'Save mine as a new variant' }).click();
  await expect(page.getByText('Your changes are in the new variant as cabled copy.')).toBeVisible();
  const head = await (await request.get(`/api/designs/${demo.design}`)).json();
  const gateOf = async (variant: string) => {
    const { design } = await (await request.get(`/api/variants/${variant}`)).json();
    return design.switches.find((s: { id: string }) => s.id === 'gate').vlanPriority;
  };
  expect(await gateOf(head.variants[0].id)).toEqual({ '199': 20480 });
  expect(await gateOf(head.variants[1].id)).toEqual({ '199': 8192 });
});

test('what was changed while the server was away survives a reload of the page', async ({ browser, request }) => {
  const demo = await freshDemo(request, 'left over');
  const context = await browser.newContext();
  const page = await context.newPage();
  await openTrees(page, demo, '&tree=vlan-199&sel=switch~gate');
  await page.route('**/steps', (route) => route.abort());
  await pick(page, 'Bridge priority', '8192');
  await expect(page.getByRole('status', { name: 'State of saving' })).toContainText('not saved: server not reached');
  await page.unroute('**/steps');
  page.on('dialog', (dialog) => void dialog.accept());
  await page.reload();
  await saved(page);
  // A connection that was kept from the server before is cut, and made again by the next question.
  const revision = async () => {
    const answer = await request.get(`/api/variants/${demo.variant}`).catch(() => null);
    return answer && ((await answer.json()) as { revision: number }).revision;
  };
  await expect.poll(revision).toBe(1);
  await expect(page.getByRole('button', { name: /^gate, root, priority 8192/ })).toBeAttached();
});
