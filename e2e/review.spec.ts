import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect } from '@playwright/test';
import { emptyDesign } from '../src/core/design';
import { asMeant } from '../src/demo/brackwater';
import { complaints, freshDemo, freshDesign, pick, saved, stored, test } from './support';

test('a finding is mended by its fix, another one accepted with a reason', async ({ page, request }) => {
  const errors = complaints(page);
  const demo = await freshDemo(request, 'review');
  await page.goto(`/d/${demo.design}/trees?variant=${demo.variant}`);
  await page.getByTitle('Findings of the review').click();
  await expect(page.getByRole('button', { name: /vlans-differ/ })).toContainText('VLAN 130 at one end only');

  await page.getByRole('button', { name: /root-by-mac/ }).click();
  await page.getByRole('button', { name: 'Preview fix' }).click();
  const preview = page.getByRole('status', { name: 'Effect of the previewed change' });
  await expect(preview).toContainText('root of VLAN 199 by its priority');
  await preview.getByRole('button', { name: /Apply/ }).click();
  await expect(page.getByRole('button', { name: /root-by-mac/ })).toBeHidden();

  await page.getByRole('button', { name: /single-switch/ }).click();
  await page.getByRole('button', { name: 'Accept with a reason…' }).first().click();
  await page.getByRole('textbox', { name: 'Reason' }).fill('');
  await page.getByRole('button', { name: 'Accept', exact: true }).click();
  await expect(page.getByText('An accepted finding needs a reason.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Reason' }).fill('the duct is full');
  await page.getByRole('button', { name: 'Accept', exact: true }).click();
  await page.getByRole('button', { name: /^Show 1.accepted finding/ }).click();
  await expect(page.getByText('Accepted: the duct is full')).toBeVisible();
  await saved(page);
  expect((await stored(request, demo)).accepted).toMatchObject([{ code: 'single-switch', reason: 'the duct is full' }]);
  const { violations } = await new AxeBuilder({ page }).include('main').analyze();
  expect(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);
  expect(errors).toEqual([]);
});

test('a failure is seen on the chart before and after, and rehearsed', async ({ page, request }) => {
  const demo = await freshDemo(request, 'failure');
  await page.goto(`/d/${demo.design}/review?variant=${demo.variant}`);
  const table = page.getByRole('table', { name: 'What each failure does' });
  const row = table.getByRole('row', { name: /switch quay-b cold-store 7 freezer-monitor/ });
  await row.click();
  await expect(page.getByRole('heading', { name: 'With quay-b lost' })).toBeVisible();
  await expect(page.getByText('separated: 1 switch, 1 host')).toBeVisible();
  await expect(page.getByRole('button', { name: /^cold-store.*separated/ })).toBeVisible();
  await page.keyboard.press('b');
  await expect(page.getByRole('button', { name: /^cold-store.*separated/ })).toBeHidden();
  await page.getByLabel('Group failures by').selectOption('kind');
  await expect(table.getByRole('rowheader', { name: /^switch \d+$/ })).toBeVisible();
  await expect(table.getByRole('rowheader', { name: /^member \d+$/ })).toBeVisible();
  await page.getByLabel('Group failures by').selectOption('nothing');
  await page.getByLabel('Filter failures').fill('crane');
  await expect(table.getByRole('row', { name: /crane-yard/ }).first()).toBeVisible();
  await expect(row).toBeHidden();
  await page.getByLabel('Filter failures').fill('');
  await page.getByRole('button', { name: 'Rehearse it' }).click();
  await expect(page.getByRole('region', { name: 'Timeline' })).toBeVisible();
  await expect(page.getByText('quay-b lost').first()).toBeAttached();
  expect((await stored(request, demo)).scripts[0]).toMatchObject({
    name: 'quay-b lost',
    events: [{ kind: 'switch-off' }],
  });
});

test('cables that are missing are previewed and added, and what fails together is named', async ({ page, request }) => {
  const demo = await freshDemo(request, 'missing');
  await page.goto(`/d/${demo.design}/review?variant=${demo.variant}`);
  await page.getByRole('radio', { name: /Missing cables/ }).click();
  const links = page.getByRole('region', { name: 'So that any one link can fail' });
  const row = links.getByRole('listitem');
  await expect(row).toHaveText([/^cold-store \(no free port\) – gate \(no free port\) · find another$/]);
  // Where one cannot be laid another is looked for; of those that can the cheapest is taken.
  await row.getByRole('button').click();
  await expect(row).toHaveText([/^core-east .* – cold-store .* costs 21/, /^core-east .* – gate .* costs 21/]);
  const costs = page.getByRole('region', { name: 'What cables cost' });
  await pick(page, 'from', 'cold-store');
  await pick(page, 'to', 'core-west');
  await costs.getByRole('textbox', { name: 'Cost', exact: true }).fill('0.5');
  await costs.getByRole('button', { name: 'Add' }).click();
  await expect(row.first()).toHaveText(/^core-west \(no free port\) – cold-store \(no free port\) costs 20.5/);
  await costs.getByRole('textbox', { name: /cold-store – core-west/ }).fill('-1');
  await costs.getByRole('textbox', { name: /cold-store – core-west/ }).press('Enter');
  await expect(page.getByText('Cost of a cable -1 is not legal')).toBeVisible();
  await costs.getByRole('button', { name: /Delete the cost of a cable cold-store – gate/ }).click();
  await links.getByRole('button', { name: /^Preview 1.cable$/ }).click();
  await page.getByRole('button', { name: /Apply/ }).click();
  await expect(links).toContainText('Any one link can fail without separating a switch in any VLAN.');

  await page.goto(`/d/${demo.design}/review?variant=${demo.variant}&sel=switch~gate&sel=switch~workshop`);
  await page.getByRole('button', { name: 'Risk group of the selection…' }).click();
  await page.getByLabel('Name of the risk group').fill('east duct');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('row', { name: /risk group east duct/ })).toBeVisible();
  await saved(page);
  expect((await stored(request, demo)).risks).toMatchObject([{ name: 'east duct', switches: ['gate', 'workshop'] }]);
  await page.getByRole('row', { name: /risk group east duct/ }).click();
  await page.getByRole('button', { name: 'Remove the risk group' }).click();
  await expect(page.getByRole('row', { name: /risk group east duct/ })).toBeHidden();
});

test('a design with nothing in it has nothing to review', async ({ page, request }) => {
  const demo = await freshDesign(request, 'empty', emptyDesign('empty'));
  await page.goto(`/d/${demo.design}/review?variant=${demo.variant}`);
  await expect(page.getByRole('heading', { name: 'Nothing to review yet' })).toBeVisible();
});

test('the report is saved, and reads the same on paper', async ({ page, request }) => {
  const demo = await freshDemo(request, 'report');
  await page.goto(`/d/${demo.design}/review?variant=${demo.variant}`);
  await page.getByRole('button', { name: 'Report…' }).click();
  await page.getByRole('dialog').getByLabel('Glossary').uncheck();
  await page.getByRole('radio', { name: 'Letter' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the report' }).click(),
  ]);
  const file = await download.path();
  const paper = await page.context().newPage();
  await paper.setContent(readFileSync(file, 'utf8'));
  await expect(paper.getByRole('heading', { name: 'Settings by device' })).toBeVisible();
  await expect(paper.getByRole('heading', { name: 'Glossary' })).toHaveCount(0);
  expect(await paper.content()).toContain('size: Letter');
  const pdf = `${file}.pdf`;
  await paper.pdf({ path: pdf, preferCSSPageSize: true });
  const read = spawnSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' });
  // Where the reader is not installed, that the file was printed is all that is known.
  test.skip(read.error !== undefined, 'pdftotext is not installed: the printed report is not read back');
  expect(read.stdout).toContain('core-east is root: its priority 4096 is the lowest');
  expect(read.stdout).toMatch(/single point of\s+failure/);
  expect(read.stdout).toMatch(/1 \/ \d+/);
});

test('variants are compared figure by figure, and a cell leads to its place', async ({ page, request }) => {
  const errors = complaints(page);
  const demo = await freshDemo(request, 'compared');
  const made = await request.post(`/api/designs/${demo.design}/variants`, {
    data: { from: demo.variant, name: 'as meant', design: asMeant() },
  });
  expect(made.ok()).toBe(true);
  await page.goto(`/d/${demo.design}/review?variant=${demo.variant}`);
  await page.getByRole('radio', { name: /^Variants/ }).click();
  const table = page.getByRole('table', { name: 'Variants compared' });
  await expect(table.getByRole('columnheader')).toHaveText(['', 'as cabled', 'as meant']);
  const goals = table.getByRole('row', { name: /^goals met/ });
  await expect(goals.getByRole('cell')).toHaveText(['4 of 6', '6 of 6']);
  const way = table.getByRole('row', { name: /^to get there/ });
  await expect(way.getByRole('cell').nth(1)).toHaveText(/^\d+ settings, \d+ devices, 1 cable$/);
  await page.getByLabel('as meant').uncheck();
  await expect(page.getByText('Nothing to compare with: tick another variant.')).toBeVisible();
  await page.getByLabel('as meant').check();
  await goals.getByRole('button', { name: '6 of 6' }).click();
  await expect(page).toHaveURL(/\/trees\?.*panel=goals/);
  await expect(page.getByRole('button', { name: /as meant/ })).toBeVisible();
  expect(errors).toEqual([]);
});

test('outages and what failures leave free are drawn, and a bar leads to its failure', async ({ page, request }) => {
  const demo = await freshDemo(request, 'charts');
  await page.goto(`/d/${demo.design}/review?variant=${demo.variant}`);
  await page.getByRole('radio', { name: 'Charts' }).click();
  const outages = page.getByRole('figure', { name: /milliseconds \d+, .*for good \d+/ });
  await expect(outages).toContainText('forward delays');
  const free = page.getByRole('figure', { name: 'Rate that the fullest link has left with each failure' });
  await free.locator('.recharts-bar-rectangle').first().click();
  await expect(page.getByRole('heading', { name: /^With .* lost$/ })).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).include('main').analyze();
  expect(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);
});

test('a failure becomes a goal, which is broken by it and met once the VLAN has its way', async ({ page, request }) => {
  const errors = complaints(page);
  const demo = await freshDemo(request, 'availability');
  await page.goto(`/d/${demo.design}/review?variant=${demo.variant}`);
  const table = page.getByRole('table', { name: 'What each failure does' });
  await table.getByRole('row', { name: /link quay-a 4 – gate 1/ }).click();
  await expect(page.getByRole('button', { name: 'Make a goal of it' })).toBeVisible();
  await page.keyboard.press('a');
  await expect(
    page.getByText('Goal set: After any single failure all switches are still connected in VLAN 130.'),
  ).toBeVisible();
  await page.getByRole('link', { name: 'Trees' }).click();
  await page.getByRole('radio', { name: /Goals/ }).click();
  const goals = page.getByRole('complementary', { name: 'Goals' });
  await expect(goals).toContainText('Switch quay-a lost: separates gate in VLAN 130; so do');
  await expect(page.getByRole('radio', { name: 'Goals 3 broken' })).toBeVisible();
  // A goal of another kind, made by hand.
  await goals.getByRole('button', { name: 'Add a goal' }).click();
  await goals.getByRole('combobox', { name: 'Kind of goal' }).click();
  await page.getByRole('option', { name: 'No link too full after any failure' }).click();
  await goals.getByLabel('percent of the rate').fill('90');
  await goals.getByRole('button', { name: 'Add the goal' }).click();
  await expect(goals).toContainText('No link carries more than 90 % of its rate with any single failure.');
  await expect(goals.locator('.goal-met')).toHaveCount(5);
  await saved(page);
  expect((await stored(request, demo)).goals.slice(-2)).toMatchObject([
    { type: 'stays-connected', among: 'switches', vlans: '130' },
    { type: 'load-left', percent: 90 },
  ]);
  expect(errors).toEqual([]);
});
