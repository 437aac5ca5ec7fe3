import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { asMeant } from '../src/demo/brackwater';
import { complaints, freshDemo, freshDesign, openTrees, pick, saved, test } from './support';

const draft = (page: Page) => page.getByLabel('Effect of the previewed change');

test('goals are watched, and a proposal that meets the broken ones is shown before and after, applied and undone', async ({
  page,
  request,
}) => {
  const errors = complaints(page);
  const demo = await freshDemo(request, 'goals');
  await openTrees(page, demo, '&panel=goals');
  await expect(page.locator('.goal-met')).toHaveCount(4);
  await expect(page.locator('.goal-broken')).toHaveCount(2);
  await page.getByRole('button', { name: 'Propose' }).click();
  await expect(page.getByRole('region', { name: 'Proposals' })).toContainText(
    '2 settings on 2 switches nothing else moves',
  );
  await expect(draft(page)).toContainText('Proposal 1 · 2 settings');
  await expect(page.locator('.goal-met')).toHaveCount(6);
  await page.getByRole('radio', { name: 'before' }).click();
  await expect(page.locator('.goal-met')).toHaveCount(4);
  await page.keyboard.press('b');
  await expect(page.locator('.goal-met')).toHaveCount(6);
  await page
    .getByRole('button', { name: /^Apply/ })
    .last()
    .press('Enter');
  await saved(page);
  await expect(page.getByText('All met.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.locator('.goal-broken')).toHaveCount(2);
  expect(errors).toEqual([]);
});

test('a goal for any single failure is met by a proposal of cables, which is tried out and applied', async ({
  page,
  request,
}) => {
  const demo = await freshDesign(request, 'any failure', { ...asMeant(), goals: [] });
  await openTrees(page, demo, '&panel=goals');
  await pick(page, 'Kind of goal', 'Connected after any failure');
  await page.getByRole('textbox', { name: 'VLANs' }).fill('130');
  await page.getByRole('button', { name: 'Add the goal' }).click();
  await expect(page.locator('.goal-broken')).toContainText('lost: separates cold-store');
  await page.getByRole('button', { name: 'Propose' }).click();
  const proposals = page.getByRole('region', { name: 'Proposals' });
  await expect(proposals).toContainText('1 new cable on 2 switches');
  await expect(proposals).toContainText('All goals are met with it.');
  await expect(draft(page)).toContainText('Proposal 1 · 1 new cable');
  await proposals.getByRole('button', { name: /^Apply/ }).click();
  await saved(page);
  await expect(page.locator('.goal-met')).toHaveCount(1);
});

test('a goal is made from what is selected; goals that contradict each other are named; one about a removed port is kept', async ({
  page,
  request,
}) => {
  const demo = await freshDesign(request, 'contradiction', asMeant());
  await openTrees(page, demo, '&tree=vlan-110&sel=port~gate:1&panel=goals');
  await page.getByRole('button', { name: 'Add a goal' }).click();
  await expect(page.getByRole('combobox', { name: 'Kind of goal' })).toHaveText('A port is the blocked one');
  await page.getByRole('button', { name: 'Add the goal' }).click();
  await expect(page.locator('.goal-broken')).toContainText('The port is root in VLAN 110.');
  await page.getByRole('button', { name: 'Add a goal' }).click();
  await pick(page, 'Kind of goal', 'A link carries VLANs');
  await page.getByRole('button', { name: 'Add the goal' }).click();
  await page.getByRole('button', { name: 'Propose' }).click();
  await expect(page.getByRole('region', { name: 'Proposals' })).toContainText('contradict each other in VLAN 110.');
  await page.getByRole('button', { name: 'Add a goal' }).click();
  await pick(page, 'Kind of goal', 'Two places communicate within limits');
  await page.getByRole('button', { name: 'Add the goal' }).click();
  await expect(page.getByText('Choose both ends of the path.')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.goto(`/d/${demo.design}/cabling?variant=${demo.variant}&sel=switch~gate`);
  await expect(page.locator('svg.chart')).toBeVisible();
  await page.locator('svg.chart').focus();
  await page.keyboard.press('Delete');
  await saved(page);
  await openTrees(page, demo, '&panel=goals');
  await expect(page.locator('.goal-void').filter({ hasText: 'a removed port' }).first()).toContainText(
    'Void: the port of this goal is not in the design',
  );
});
