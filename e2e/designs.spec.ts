import { expect } from '@playwright/test';
import { complaints, dropFiles, freshDemo, openTrees, saved, test } from './support';

test('the demo waits on the first page and opens', async ({ page }) => {
  const errors = complaints(page);
  await page.goto('/');
  const row = page.getByRole('article', { name: 'Brackwater Ferries', exact: true });
  await expect(row).toContainText('3 variants: as cabled, as meant, core as a pair');
  await expect(row).toContainText('10 switches');
  await expect(row).toContainText('7 trees');
  await row.getByRole('link', { name: 'Brackwater Ferries' }).click();
  await expect(page.locator('svg.chart')).toBeVisible();
  await page.getByRole('button', { name: 'Variant: as cabled' }).click();
  await page.getByRole('menuitem', { name: 'as meant' }).click();
  await expect(page.getByRole('button', { name: 'Variant: as meant' })).toBeVisible();
  await expect(page.locator('[aria-label="Trees"]')).not.toContainText('by MAC address only');
  expect(errors).toEqual([]);
});

test('an example opens as a copy of its own, at its answer; what was open last comes first', async ({ page }) => {
  const errors = complaints(page);
  await page.goto('/');
  const shelf = page.getByRole('region', { name: 'Examples' });
  await expect(shelf.getByRole('button')).toHaveCount(9);
  await shelf.getByRole('button', { name: /^Print shop: .*never come up\?$/ }).click();
  await expect(page).toHaveURL(/\/bundles/);
  await expect(page.getByRole('main')).toContainText('never comes up');
  await page.getByRole('link', { name: /all designs/ }).click();
  await expect(page.getByRole('article', { name: 'Print shop', exact: true })).toBeVisible();
  await shelf.getByRole('button', { name: /^Print shop/ }).click();
  await page.getByRole('link', { name: /all designs/ }).click();
  await expect(page.getByRole('article', { name: 'Print shop 2', exact: true })).toBeVisible();
  await page
    .getByRole('article', { name: 'Print shop', exact: true })
    .getByRole('link', { name: 'Print shop' })
    .click();
  await expect(page.locator('svg.chart')).toBeVisible();
  await page.getByRole('link', { name: /all designs/ }).click();
  // The other one was changed later, but this one was open last.
  const places = async () => {
    const names = await page.getByRole('article').evaluateAll((all) => all.map((e) => e.getAttribute('aria-label')));
    return names.filter((name) => name?.startsWith('Print shop'));
  };
  await expect.poll(places).toEqual(['Print shop', 'Print shop 2']);
  expect(errors).toEqual([]);
});

test('practice never ends: a network is worked out, checked, scored, and another one comes', async ({ page }) => {
  const errors = complaints(page);
  await page.goto('/');
  await page.getByRole('button', { name: /^Practice: / }).click();
  const bar = page.getByRole('region', { name: 'Practice' });
  await expect(bar).toBeVisible();
  // The lowest bridge identifier of the drawing is root.
  const options = await page.getByLabel('Root', { exact: true }).getByRole('option').allTextContents();
  expect(options.filter(Boolean)).toHaveLength(4);
  await page.getByLabel('Root', { exact: true }).selectOption({ index: 1 });
  await page.getByRole('button', { name: 'Check' }).click();
  await expect(bar.getByRole('status', { name: 'Score' })).toContainText(/1 sheet checked, [01] of 1 answer right/);
  await bar.getByLabel('switches').selectOption('7');
  await bar.getByLabel('with').selectOption({ label: 'ties by MAC address' });
  await bar.getByRole('button', { name: 'Next network' }).click();
  await expect(page.getByLabel('Root', { exact: true }).getByRole('option')).toHaveCount(8);
  await expect(page.getByLabel('Root', { exact: true })).toHaveValue('');
  await bar.getByLabel('with').selectOption({ label: 'instances' });
  await bar.getByRole('button', { name: 'Next network' }).click();
  await expect(page.locator('[aria-label="Trees"] .strip-item')).toHaveCount(3);
  await page.keyboard.press('Control+z');
  await expect(page.locator('[aria-label="Trees"] .strip-item')).toHaveCount(1);
  expect(errors).toEqual([]);
});

test('create, rename, duplicate and delete, each with undo', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New design' }).click();
  await page.getByLabel('Name of the design').fill('Harbour light');
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByRole('heading', { name: 'An empty sheet' })).toBeVisible();
  await page.getByRole('link', { name: /all designs/ }).click();
  const row = page.getByRole('article', { name: 'Harbour light', exact: true });
  await row.getByRole('button', { name: 'Rename Harbour light' }).click();
  await page.getByLabel('Name of the design').fill('x'.repeat(300));
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await expect(page.getByText('has 300 characters: at most 100 are allowed')).toBeVisible();
  await page.getByLabel('Name of the design').fill('Lighthouse');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await expect(page.getByRole('article', { name: 'Lighthouse', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row).toBeVisible();
  await row.getByRole('button', { name: 'Duplicate Harbour light' }).click();
  await expect(page.getByRole('article', { name: 'Harbour light copy' })).toBeVisible();
  await row.getByRole('button', { name: 'Delete Harbour light' }).click();
  await expect(row).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row).toBeVisible();
});

test('a variant is copied, and changes in the copy stay in the copy', async ({ page, request }) => {
  const demo = await freshDemo(request, 'variants');
  await openTrees(page, demo, '&tree=vlan-199&sel=switch~gate');
  await page.getByRole('button', { name: 'Variant: as cabled' }).click();
  await page.getByRole('menuitem', { name: 'Copy this variant…' }).click();
  await page.getByLabel('Name of the new variant').fill('what if');
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Variant: what if' })).toBeVisible();
  await expect(page.locator('svg.chart')).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.getByRole('button', { name: /^gate, root/ })).toBeAttached();
  await saved(page);
  await page.getByRole('button', { name: 'Variant: what if' }).click();
  await page.getByRole('menuitem', { name: 'as cabled' }).click();
  await expect(page.getByRole('button', { name: /^workshop, root by MAC address only/ })).toBeAttached();
});

const SWITCHES = 'switch;mac;priority\r\nnorth;00:00:5e:00:53:01;4096\r\nsouth;00:00:5e:00:53:02;\r\n';
const LINKS = 'a_switch;a_port;b_switch;b_port;speed_mbps\r\nnorth;1;south;1;1000\r\nnorth;2;south;2;1000\r\n';
const file = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });

test('tables with semicolons and a byte-order mark come in; wrong rows are shown with the reason and stay out', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Import…' }).click();
  const files = page.getByLabel('Files');
  await files.setInputFiles([
    file('s.csv', SWITCHES.replace('4096', '2478')),
    file('l.csv', LINKS.replace('south;2;1000', 'west;2;1000')),
  ]);
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Refused in s.csv')).toContainText(
    'row 2, priority: Bridge priority 2478 is not legal',
  );
  await expect(dialog.getByLabel('Refused in l.csv')).toContainText(
    "There is no switch 'west' in the table of switches.",
  );
  await expect(dialog.getByRole('region', { name: 's.csv' })).toContainText(
    'switches: 1 switch comes in, 1 is refused',
  );
  await expect(dialog.getByRole('button', { name: 'Import what fits' })).toBeEnabled();
  await files.setInputFiles([file('s.csv', `\uFEFF${SWITCHES}`), file('l.csv', LINKS)]);
  await expect(dialog.getByRole('region', { name: 'l.csv' })).toContainText('links: 2 links come in');
  await page.getByLabel('Name', { exact: true }).fill('Two shores');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('button', { name: /^north, root, priority 4096/ })).toBeAttached();
  await page.goto('/');
  await expect(page.getByRole('article', { name: 'Two shores' })).toContainText('2 links');
});

test('files dropped on the page are shown before they come in; what cannot be read says why', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'New design' })).toBeVisible();
  await dropFiles(page, [
    { name: 'photo.png', text: '\u0089PNG' },
    { name: 'switches.csv', text: SWITCHES },
  ]);
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('region', { name: 'photo.png' })).toContainText('The file is none that can be read');
  await expect(dialog.getByRole('region', { name: 'switches.csv' })).toContainText('2 switches come in');
  await dialog.getByRole('button', { name: 'Import what fits' }).click();
  await expect(page.getByRole('button', { name: /^north, .*priority 4096/ })).toBeAttached();
});

test('an exported design comes in again as it was', async ({ page, request }) => {
  const demo = await freshDemo(request, 'Round trip');
  await openTrees(page, demo);
  await page.getByRole('button', { name: 'Variant: as cabled' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Export: Design (JSON)' }).click();
  const path = await (await download).path();
  await page.goto('/');
  await page.getByRole('button', { name: 'Import…' }).click();
  await page.getByLabel('Files').setInputFiles(path);
  await page.getByLabel('Name', { exact: true }).fill('Round trip back');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.locator('[aria-label="Trees"]')).toContainText('root workshop, by MAC address only');
});

test('an address that leads nowhere says so', async ({ page }) => {
  const response = await page.goto('/d/nothing-here/trees');
  expect(response?.status()).toBe(404);
  await expect(page.getByRole('heading', { name: 'Nothing at this address' })).toBeVisible();
});

test('a variant is renamed, deleted, and brought back', async ({ page, request }) => {
  const demo = await freshDemo(request, 'variant life');
  const copy = await request.post(`/api/designs/${demo.design}/variants`, {
    data: { from: demo.variant, name: 'second' },
  });
  const second = (await copy.json()).variants[1].id as string;
  await openTrees(page, { ...demo, variant: second });
  await page.getByRole('button', { name: 'Variant: second' }).click();
  await page.getByRole('menuitem', { name: 'Rename this variant…' }).click();
  await page.getByLabel('Name of the variant').fill('as cabled');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await expect(page.getByText("This design has a variant 'as cabled' already")).toBeVisible();
  await page.getByLabel('Name of the variant').fill('third');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await page.getByRole('button', { name: 'Variant: third' }).click();
  await page.getByRole('menuitem', { name: 'Delete this variant' }).click();
  await expect(page.getByRole('button', { name: 'Variant: as cabled' })).toBeVisible();
  await expect(page.getByText('Deleted variant third.')).toBeVisible();
  await page.locator('.notice').getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Variant: third' })).toBeVisible();
});

test('an address with a tree or a selection that is not there says so and shows what is', async ({ page, request }) => {
  await openTrees(page, await freshDemo(request, 'lost'), '&tree=vlan-7');
  await expect(
    page.getByText("The address names a tree 'vlan-7', which this design does not have: vlan-110 is shown."),
  ).toBeVisible();
  await expect(page.getByRole('heading', { name: 'VLAN 110 ticketing' })).toBeVisible();
});

test('with no design at all, the first page says what to do', async ({ page }) => {
  // Only this page is shown that all are gone: other tests work on their designs meanwhile.
  await page.route('**/api/designs', (route) => route.fulfill({ json: { designs: [], deleted: [] } }));
  await page.route('**/api/designs/**', (route) => route.fulfill({ json: {} }));
  await page.goto('/');
  const first = page.getByRole('article').first();
  await first.getByRole('button', { name: /^Delete / }).click();
  await expect(page.getByRole('heading', { name: 'No design yet' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Start empty' })).toBeVisible();
  await page.unroute('**/api/designs');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('article').first()).toBeVisible();
});
