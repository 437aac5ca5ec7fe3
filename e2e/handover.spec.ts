import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect } from '@playwright/test';
import { asMeant } from '../src/demo/brackwater';
import { complaints, freshDemo, freshDesign, saved, stored, test } from './support';
import type { APIRequestContext, Page } from '@playwright/test';

/** The demo as cabled and, as a second variant, as meant. */
async function bothVariants(request: APIRequestContext, name: string) {
  const demo = await freshDemo(request, name);
  const made = await request.post(`/api/designs/${demo.design}/variants`, {
    data: { from: demo.variant, name: 'as meant', design: asMeant() },
  });
  expect(made.ok()).toBe(true);
  return demo;
}
const steps = (page: Page) => page.getByRole('table', { name: 'Steps in their order' }).locator('tbody tr');

test('a plan leads from one variant to another, is carried out step by step, and remembers how far', async ({
  page,
  request,
}) => {
  const errors = complaints(page);
  const demo = await bothVariants(request, 'plan');
  await page.goto(`/d/${demo.design}/hand-over?variant=${demo.variant}`);
  await expect(steps(page)).toHaveCount(12);
  await expect(page.getByText('no order is better')).toBeVisible();
  await page.getByLabel('working from').selectOption({ label: 'ticket-desk' });
  await expect(page.getByText('no order is better')).toBeVisible();
  await saved(page);
  expect((await stored(request, demo)).workplaces).toMatchObject([{ at: 'ticket-desk' }]);

  await steps(page).filter({ hasText: 'cable quay-b 9 – cold-store 2' }).click();
  await expect(page.getByRole('heading', { name: /^Step \d+ at quay-b – cold-store$/ })).toBeVisible();
  await page.getByLabel('quay-b to-cold-store: up, 2 of 2 members active').check();
  await page.getByRole('button', { name: 'Done, next step' }).click();
  const done = steps(page).filter({ hasText: '✓' });
  await expect(done).toHaveCount(1);
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('button', { name: /is not done$/ })).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).include('main').analyze();
  expect(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);
  await page.reload();
  await expect(done).toHaveCount(1);
  expect(errors).toEqual([]);
});

test('steps are moved, split and joined, and the figures follow; the plan is rehearsed as a whole', async ({
  page,
  request,
}) => {
  const demo = await bothVariants(request, 'arranged');
  await page.goto(`/d/${demo.design}/hand-over?variant=${demo.variant}`);
  await expect(steps(page)).toHaveCount(12);
  const nth = (n: number) => steps(page).nth(n).getByRole('rowheader');
  const [first, second] = [await nth(0).innerText(), await nth(1).innerText()];
  await nth(0).click();
  await page.getByRole('button', { name: 'Later' }).click();
  await expect(nth(0)).toHaveText(second);
  await expect(nth(1)).toHaveText(first);
  await nth(1).click();
  await page.getByRole('button', { name: 'Split' }).click();
  await expect(steps(page)).toHaveCount(13);
  await nth(1).click();
  await page.getByRole('button', { name: 'Join' }).click();
  await expect(steps(page)).toHaveCount(12);
  await page.getByRole('button', { name: 'Join' }).click();
  await expect(page.getByText('only steps at one device are joined')).toBeVisible();

  // A step that is pinned stays where it was moved to when the order is searched again.
  await page.getByRole('button', { name: 'Pin', exact: true }).click();
  await expect(nth(1)).toHaveText(`${first} pinned`);
  await page.getByRole('button', { name: 'Plan again' }).click();
  await expect(page.getByText('no order is better')).toBeVisible({ timeout: 60_000 });
  await expect(nth(1)).toHaveText(`${first} pinned`);

  await page.getByRole('button', { name: 'Rehearse the plan' }).click();
  await expect(page.getByRole('region', { name: 'Timeline' })).toBeVisible();
  const [script] = (await stored(request, demo)).scripts;
  expect(script).toMatchObject({ name: 'plan as cabled → as meant' });
  expect(script!.events).toHaveLength(12);
});

test('the work sheet is a page to print, with a box for each thing to see', async ({ page, request, context }) => {
  const demo = await bothVariants(request, 'sheet');
  await page.goto(`/d/${demo.design}/hand-over?variant=${demo.variant}`);
  await expect(steps(page)).toHaveCount(12);
  await page.getByRole('button', { name: 'Work sheet…' }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'To print (HTML)' }).click(),
  ]);
  const sheet = await context.newPage();
  await sheet.setContent(readFileSync(await file.path(), 'utf8'));
  await expect(sheet.locator('.boxes li').first()).toBeVisible();
  const pdf = await sheet.pdf({ preferCSSPageSize: true });
  const read = spawnSync('pdftotext', ['-layout', '-', '-'], { input: pdf, encoding: 'utf8' });
  test.skip(read.error !== undefined, 'pdftotext is not installed: the printed sheet is not read back');
  expect(read.stdout).toContain('Change plan: as cabled → as meant');
  expect(read.stdout).toContain('cold-store');
});

test('without a second variant, or a difference, it says what is missing', async ({ page, request }) => {
  const demo = await freshDemo(request, 'alone');
  await page.goto(`/d/${demo.design}/hand-over?variant=${demo.variant}`);
  // Maintenance needs no second variant.
  await expect(steps(page).first()).toContainText('power: on → off');
  await page.getByRole('radio', { name: 'Change' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing to plan yet' })).toBeVisible();
  const same = await freshDesign(request, 'same', asMeant());
  const made = await request.post(`/api/designs/${same.design}/variants`, {
    data: { from: same.variant, name: 'copy', design: asMeant() },
  });
  expect(made.ok()).toBe(true);
  await page.goto(`/d/${same.design}/hand-over?variant=${same.variant}`);
  await expect(page.getByText('do not differ in anything that is set on a device or plugged in')).toBeVisible();
});

test('a link is taken out and put back, and a migration is compared by its orders', async ({ page, request }) => {
  const demo = await freshDemo(request, 'maintained');
  await page.goto(`/d/${demo.design}/hand-over?variant=${demo.variant}`);
  await page.getByLabel('take out').selectOption({ label: 'workshop' });
  await expect(page.getByRole('heading', { name: 'Step 1 at workshop' })).toBeVisible();
  // It is a root: it steps down first, since its neighbours then need not find out that it is gone.
  await expect(steps(page).nth(0)).toContainText('temporary: priority: 32768, the default → 61440');
  await expect(steps(page).nth(1)).toContainText('power: on → off');
  await expect(steps(page).nth(2)).toContainText('power: off → on');
  await expect(steps(page).last()).toContainText('priority: 61440 → 32768, the default');

  await page.getByRole('radio', { name: 'Migration' }).click();
  const ways = page.getByRole('table', { name: 'Ways of the migration' }).locator('tbody tr');
  await expect(ways.filter({ hasText: 'core first' })).toBeVisible({ timeout: 60_000 });
  await ways.filter({ hasText: 'core first' }).click();
  await expect(steps(page).first().getByRole('rowheader')).toHaveText(/^core-/);
  await ways.filter({ hasText: 'edge first' }).click();
  await expect(steps(page).last().getByRole('rowheader')).toHaveText(/^core-/);
  await page.getByLabel(/^to\b/).selectOption({ label: 'RSTP, one tree per VLAN' });
  await expect(page.getByText('Every switch runs this mode already')).toBeVisible({ timeout: 60_000 });
});
