/** Whatever happens to the network, the storage of the browser, or its windows: no change is lost, and the header tells the truth. */
import { expect } from '@playwright/test';
import type { APIRequestContext, Page } from '@playwright/test';
import { asCabled, asMeant } from '../src/demo/brackwater';
import { freshDemo, openTrees, pick, saved, stored, test } from './support';
import type { Opened } from './support';

const GATE = '&tree=vlan-199&sel=switch~gate';
/** Found by its label alone: what lies behind a dialog has no role. */
const saving = (page: Page) => page.locator('[aria-label="State of saving"]');

/** Presses *Try now* until all is saved: it may try by itself just before, and take the button away. */
const tryNow = (page: Page) =>
  expect(async () => {
    const now = page.getByRole('button', { name: 'Try now' });
    if (await now.isVisible()) await now.press('Enter', { timeout: 1000 });
    await expect(saving(page)).toHaveText('saved', { timeout: 2000 });
  }).toPass();
const revision = async (request: APIRequestContext, { variant }: Opened) =>
  ((await (await request.get(`/api/variants/${variant}`)).json()) as { revision: number }).revision;
const isPost = (route: { request: () => { method: () => string } }) => route.request().method() === 'POST';

/** Answers changes with something else than the server would. */
async function answerSteps(at: Page, answer: { status: number; body?: string; json?: unknown }): Promise<void> {
  await at.route('**/steps', (route) => (isPost(route) ? route.fulfill(answer) : route.continue()));
}

/**
 * Lets no change leave a page. From inside: what is done to its requests from outside ends when it begins to close, and
 * it may try once more after that.
 */
const answerInside = (page: Page) =>
  page.evaluate(() => {
    const real = window.fetch;
    window.fetch = (input, init) =>
      init?.method === 'POST' && String(input).endsWith('/steps')
        ? Promise.resolve(new Response('x', { status: 502 }))
        : real(input, init);
  });

test('a storage that is full or forbidden hinders no saving', async ({ page, request }) => {
  await page.addInitScript(() => {
    Storage.prototype.setItem = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
  });
  const demo = await freshDemo(request, 'full storage');
  await openTrees(page, demo, GATE);
  await answerSteps(page, { status: 503, json: { error: { code: 'x', sentence: 'Busy.', faults: [] } } });
  await pick(page, 'Bridge priority', '8192');
  await expect(saving(page)).toHaveText('1 change not saved: server not reached, a reload would lose them');
  await page.unroute('**/steps');
  await tryNow(page);
  expect(await revision(request, demo)).toBe(1);
});

for (const [name, answer] of [
  ['a 500', { status: 500, json: { error: { code: 'internal', sentence: 'Oh.', faults: [] } } }],
  ['a 502 from a proxy', { status: 502, body: '<html>Bad gateway</html>' }],
  ['an answer that is no JSON', { status: 200, body: 'welcome to the ferry network' }],
] as const)
  test(`${name} counts as not reached: the change is kept, and sent when asked`, async ({ page, request }) => {
    const demo = await freshDemo(request, name);
    await openTrees(page, demo, GATE);
    await answerSteps(page, answer);
    await pick(page, 'Bridge priority', '8192');
    await expect(saving(page)).toHaveText('1 change not saved: server not reached');
    await expect(page.getByRole('button', { name: /^gate, root, priority 8192/ })).toBeAttached();
    expect(await revision(request, demo)).toBe(0);
    await page.unroute('**/steps');
    await tryNow(page);
    expect(await revision(request, demo)).toBe(1);
  });

test('twelve windows of one browser all save, and see each other', async ({ browser, request }) => {
  test.slow();
  const demo = await freshDemo(request, 'twelve windows');
  const context = await browser.newContext();
  const pages: Page[] = [];
  for (let i = 0; i < 12; i++) {
    const page = await context.newPage();
    await openTrees(page, demo, GATE);
    pages.push(page);
  }
  for (const [i, page] of pages.entries()) {
    await page.bringToFront();
    // Two windows that change the same thing at once would be a conflict.
    await expect(page.getByRole('combobox', { name: 'Bridge priority' })).toContainText(
      i === 0 ? '32768' : String(4096 * i),
    );
    await pick(page, 'Bridge priority', String(4096 * (i + 1)));
    await saved(page);
  }
  expect(await revision(request, demo)).toBe(12);
  for (const page of pages)
    await expect(page.getByRole('combobox', { name: 'Bridge priority' })).toContainText('49152');
  await context.close();
});

test('an undo whose answer is lost is done once', async ({ page, request }) => {
  const demo = await freshDemo(request, 'lost answer');
  await openTrees(page, demo, GATE);
  await pick(page, 'Bridge priority', '8192');
  await pick(page, 'Bridge priority', '4096');
  // A change that was not sent yet would be taken back without the server.
  await expect.poll(() => revision(request, demo)).toBe(2);
  await saved(page);
  let lost = 0;
  await page.route('**/undo', async (route) => {
    if (lost++ > 0) return route.continue();
    await route.fetch();
    await route.abort();
  });
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('combobox', { name: 'Bridge priority' })).toContainText('8192');
  await expect.poll(() => lost).toBeGreaterThan(0);
  await saved(page);
  expect((await stored(request, demo)).switches.find((s) => s.id === 'gate')!.vlanPriority).toEqual({ '199': 8192 });
  expect(await revision(request, demo)).toBe(3);
});

test('closing a window with unsent changes is warned of, and what it left is offered later', async ({
  browser,
  request,
}) => {
  const demo = await freshDemo(request, 'closed window');
  const context = await browser.newContext();
  const page = await context.newPage();
  await openTrees(page, demo, GATE);
  await answerInside(page);
  await pick(page, 'Bridge priority', '8192');
  await expect(saving(page)).toContainText('1 change not saved');
  const warned = page.waitForEvent('dialog');
  await page.close({ runBeforeUnload: true });
  const dialog = await warned;
  expect(dialog.type()).toBe('beforeunload');
  const gone = page.waitForEvent('close');
  await dialog.accept();
  await gone;
  const next = await context.newPage();
  await openTrees(next, demo, GATE);
  const offer = next.getByRole('dialog', { name: 'A closed window left changes' });
  await expect(offer).toContainText('Priority of gate for VLAN 199: 8192');
  await offer.getByRole('button', { name: 'Apply' }).click();
  await saved(next);
  await expect(next.getByRole('combobox', { name: 'Bridge priority' })).toContainText('8192');
  expect(await revision(request, demo)).toBe(1);
  expect(await next.evaluate(() => Object.keys(localStorage).filter((k) => k.includes('kept')))).toEqual([]);
});

test('what a window leaves that closes is offered in one that is open, and only there where it was not answered', async ({
  browser,
  request,
}) => {
  const demo = await freshDemo(request, 'closed beside');
  const context = await browser.newContext();
  const [page, beside] = [await context.newPage(), await context.newPage()];
  await openTrees(beside, demo, GATE);
  await openTrees(page, demo, GATE);
  await answerInside(page);
  await pick(page, 'Bridge priority', '8192');
  await expect(saving(page)).toContainText('1 change not saved');
  const third = await context.newPage();
  await openTrees(third, demo, GATE);
  const gone = page.waitForEvent('close');
  page.on('dialog', (dialog) => void dialog.accept());
  await page.close({ runBeforeUnload: true });
  await gone;
  const offered = (at: Page) => at.getByRole('dialog', { name: 'A closed window left changes' });
  await expect(offered(beside)).toContainText('Priority of gate for VLAN 199: 8192');
  await expect(offered(third)).toBeVisible();
  await offered(beside).getByRole('button', { name: 'Apply' }).click();
  await saved(beside);
  await expect(offered(third)).toBeHidden();
  await expect(third.getByRole('combobox', { name: 'Bridge priority' })).toContainText('8192');
  expect(await revision(request, demo)).toBe(1);
});

test('a reload while a conflict is open keeps both sides', async ({ browser, request }) => {
  const demo = await freshDemo(request, 'conflict kept');
  const page = await (await browser.newContext()).newPage();
  page.on('dialog', (dialog) => void dialog.accept());
  await openTrees(page, demo, GATE);
  await answerSteps(page, { status: 502, body: 'x' });
  await pick(page, 'Bridge priority', '8192');
  await expect(saving(page)).toContainText('not saved');
  const edits = [{ type: 'set', kind: 'switch', id: 'gate', field: 'vlanPriority.199', value: 20480 }];
  await request.post(`/api/variants/${demo.variant}/steps`, {
    data: { revision: 0, label: 'theirs', client: 'other', edits },
  });
  await page.unroute('**/steps');
  const conflict = page.getByRole('dialog', { name: 'Two windows changed the same thing' });
  await expect(conflict).toBeVisible();
  await page.reload();
  await expect(conflict.getByRole('region', { name: 'Stored' })).toContainText('priority 20480');
  await expect(conflict.getByRole('region', { name: 'Yours' })).toContainText('priority 8192');
  await expect(saving(page)).toHaveText('conflict: choose a version');
  await conflict.getByRole('button', { name: 'Apply mine on top' }).click();
  await saved(page);
  await expect(page.getByRole('combobox', { name: 'Bridge priority' })).toContainText('8192');
});

test('a refused change stays with its reason and content, and can be changed', async ({ page, request }) => {
  const demo = await freshDemo(request, 'refused');
  await openTrees(page, demo, GATE);
  const sentence = 'Not on a Saturday.';
  await answerSteps(page, { status: 422, json: { error: { code: 'refused', sentence, faults: [] } } });
  await pick(page, 'Bridge priority', '8192');
  await expect(saving(page)).toHaveText('1 change refused');
  await expect(page.getByRole('combobox', { name: 'Bridge priority' })).toContainText('32768');
  page.on('dialog', (dialog) => void dialog.accept());
  await page.reload();
  await page.getByRole('button', { name: 'Refused: 1' }).click();
  const dialog = page.getByRole('dialog', { name: 'A change was refused' });
  await expect(dialog).toContainText(sentence);
  await expect(dialog).toContainText('gate: priority 8192 for VLAN 199');
  await page.unroute('**/steps');
  await dialog.getByRole('button', { name: 'Change…' }).click();
  const text = dialog.getByRole('textbox', { name: 'The change as JSON' });
  await text.fill((await text.inputValue()).replace('8192', '100'));
  await dialog.getByRole('button', { name: 'Apply the change' }).click();
  await expect(dialog.getByRole('alert')).toContainText('the nearest is 0');
  await text.fill((await text.inputValue()).replace('100', '12288'));
  await dialog.getByRole('button', { name: 'Apply the change' }).click();
  await saved(page);
  await expect(page.getByRole('combobox', { name: 'Bridge priority' })).toContainText('12288');
});

test('a foreign entry in the storage is set aside and breaks no page', async ({ page, request }) => {
  const demo = await freshDemo(request, 'foreign entry');
  await page.goto('/');
  await page.evaluate((variant) => {
    localStorage.setItem(`knot-path.kept.${variant}.half`, '{"v":1,"left":[{"since":0,"entr');
    localStorage.setItem(`knot-path.pending.${variant}.foreign`, '"<script>"');
    localStorage.setItem('knot-path.steering.limits', '{{');
  }, demo.variant);
  await openTrees(page, demo, GATE);
  await expect(page.locator('.notice')).toContainText('It is set aside as knot-path.set-aside.knot-path.');
  await pick(page, 'Bridge priority', '8192');
  await saved(page);
  await page.goto(`/d/${demo.design}/cabling?variant=${demo.variant}`);
  await expect(page.locator('svg.chart')).toBeVisible();
});

test('a rehearsal whose worker dies says so once, and is run again by a key', async ({ page, request }) => {
  const made = await request.post('/api/designs', { data: { name: 'dead worker', design: asMeant() } });
  const head = (await made.json()) as { id: string; variants: { id: string }[] };
  const demo = { design: head.id, variant: head.variants[0]!.id };
  await page.addInitScript(() => {
    const Real = window.Worker;
    let made = 0;
    window.Worker = class extends Real {
      constructor(url: string | URL, options?: WorkerOptions) {
        super(url, options);
        if (made++ === 0) setTimeout(() => this.dispatchEvent(new ErrorEvent('error', { message: 'out of memory' })));
      }
    };
  });
  await page.goto(`/d/${demo.design}/rehearsal?variant=${demo.variant}`);
  const alert = page.getByRole('alert').filter({ hasText: 'out of memory' });
  await expect(alert).toHaveText(/^The rehearsal stopped: out of memory\. Run it again with A\./);
  await page.locator('body').press('a');
  await expect(alert).toHaveCount(0);
  await expect(page.getByText(/^run of \d+ BPDUs/)).toBeVisible();
});

test('history shows who did what, an earlier drawing, and leads back', async ({ page, request }) => {
  const demo = await freshDemo(request, 'history');
  await openTrees(page, demo, GATE);
  await page.evaluate(() => localStorage.setItem('knot-path.name', 'Mira Holt'));
  await pick(page, 'Bridge priority', '8192');
  await pick(page, 'Bridge priority', '4096');
  await saved(page);
  await page.locator('body').press('h');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('button', { name: /Priority of gate for VLAN 199: 4096.*Mira Holt/ })).toBeVisible();
  await dialog.getByRole('button', { name: /8192/ }).click();
  await expect(dialog.getByRole('heading', { name: 'State 1' })).toBeVisible();
  await expect(dialog.locator('svg.chart').getByRole('button', { name: /^gate.*priority 8192/ })).toBeVisible();
  await expect(dialog.getByRole('region', { name: 'Changed since' })).toContainText('gate: priority 4096 for VLAN 199');
  await dialog.getByRole('button', { name: 'Name this state…' }).click();
  await page.getByRole('textbox', { name: /Name of the state/ }).fill('as agreed');
  await page.getByRole('button', { name: 'Name', exact: true }).click();
  await expect(dialog.getByRole('heading', { name: 'State 1, as agreed' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Go back to it' }).click();
  await saved(page);
  await expect(page.getByRole('combobox', { name: 'Bridge priority' })).toContainText('8192');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('combobox', { name: 'Bridge priority' })).toContainText('4096');
});

test('an unreadable design is listed with the reason, and the others go on', async ({ page }) => {
  const head = { changedAt: Date.now(), switches: 0, links: 0, trees: 0, dots: [], lines: [] };
  const broken = {
    ...head,
    id: 'b',
    name: 'Broken',
    variants: [{ id: 'bv', name: 'v', revision: 3 }],
    unreadable: 'The file is not complete JSON.',
  };
  await page.goto('/');
  await page.route('**/api/designs', async (route) => {
    const real = await (await route.fetch()).json();
    return route.fulfill({ json: { ...real, designs: [broken, ...real.designs] } });
  });
  const row = page.getByRole('article', { name: 'Broken' });
  // The list is asked for again when a design comes, once the page listens for that.
  await expect(async () => {
    const made = await page.request.post('/api/designs', { data: { name: 'beside it', design: asCabled() } });
    expect(made.status()).toBe(201);
    await expect(row).toContainText('Cannot be read: The file is not complete JSON.', { timeout: 5_000 });
  }).toPass();
  await expect(row.getByRole('link', { name: 'Stored text' })).toHaveAttribute(
    'href',
    '/api/variants/bv/export?format=raw',
  );
  await expect(row.getByRole('button', { name: /last readable state/i })).toBeVisible();
  await expect(page.getByRole('article', { name: 'beside it' }).first()).toBeVisible();
  // A list that is asked for just now would otherwise end with the test, and in an error.
  await page.unrouteAll({ behavior: 'wait' });
});
