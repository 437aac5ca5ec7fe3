/** What hands do: pasting, searching, keys, several things at once. */
import { expect } from '@playwright/test';
import { asCabled } from '../src/demo/brackwater';
import { complaints, dropFiles, freshDemo, openCabling, openTrees, paste, saved, stored, test } from './support';

test('a pasted block is known by its heading; what would change names is asked about first', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'pasted');
  await openCabling(page, demo);
  await page.getByRole('tab', { name: /^Switches/ }).click();
  const grid = page.getByRole('grid', { name: 'Switches' });
  await grid.getByRole('gridcell').first().click();
  await paste(page, 'Switch,Priority,Location\ngate,8192,B\nyard,4096,C\n');
  await expect(page.getByRole('alert').filter({ hasText: 'Left out' })).toContainText('Location');
  await saved(page);
  const names = (await stored(request, demo)).switches.map((s) => s.name);
  expect(names).toEqual([...asCabled().switches.map((s) => s.name), 'yard']);
  await grid.getByRole('gridcell').first().click();
  await paste(page, 'north\nsouth\n');
  const asked = page.getByRole('dialog', { name: /Paste over 2 rows/ });
  await expect(asked.getByRole('region', { name: 'What changes' })).toContainText('core-east north');
  await asked.getByRole('button', { name: 'Cancel' }).click();
  await grid.getByRole('gridcell').first().click();
  await paste(page, 'north\nsouth\n');
  await asked.getByRole('button', { name: 'Add 2 new rows' }).click();
  await saved(page);
  expect((await stored(request, demo)).switches.map((s) => s.name)).toEqual([...names, 'north', 'south']);
});

test('search finds exact names first, settings and words, and closes with Escape; keys are listed', async ({
  page,
  request,
}) => {
  const errors = complaints(page);
  await openTrees(page, await freshDemo(request, 'searched'));
  const field = page.getByPlaceholder(/A command, a tree/);
  await page.keyboard.press('Control+k');
  await field.fill('gate');
  await expect(page.getByRole('option').first()).toHaveText(/^gate00:/);
  await field.fill('alternate');
  await expect(
    page
      .getByRole('option')
      .filter({ hasText: /^alternate/ })
      .first(),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(field).toBeHidden();
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys of this screen' });
  await expect(keys).toContainText('Make the selected switch root');
  await keys.getByRole('button', { name: 'Close' }).click();
  await expect(keys).toBeHidden();
  await page.keyboard.press('Control+k');
  await field.fill('guard recovery of switches');
  await page.keyboard.press('Enter');
  const grid = page.getByRole('grid', { name: 'Switches' });
  await expect(grid).toBeFocused();
  await page.keyboard.type('45');
  await page.keyboard.press('Enter');
  await expect(page.locator('.notice')).toBeHidden();
  await expect(grid.getByRole('row').nth(1)).toContainText('45');
  expect(errors).toEqual([]);
});

test('make root heeds which trees settings are for, and asks for one switch where several are selected', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'rooted');
  await openTrees(page, demo, '&tree=vlan-110&sel=switch~quay-a');
  await page.getByRole('radio', { name: 'some VLANs' }).click();
  await page.getByLabel('VLANs that settings are for').fill('110,130');
  await page.getByRole('button', { name: 'Make root' }).click();
  await saved(page);
  const { vlanPriority } = (await stored(request, demo)).switches.find((s) => s.id === 'quay-a')!;
  expect(Object.keys(vlanPriority ?? {})).toEqual(expect.arrayContaining(['110', '130']));
  await openTrees(page, demo, '&tree=vlan-110&sel=switch~quay-a&sel=switch~quay-b');
  await page.keyboard.press('r');
  await expect(page.locator('.notice')).toContainText('2 switches are selected, and a tree has one root');
});

test('a lost bundle says who is cut off; a complaint goes when something went well; the focus stays in the field', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'lost');
  await openTrees(page, demo, '&tree=vlan-110&sel=bundle~quay-b:lag102');
  await page.keyboard.press('x');
  const moved = page.getByRole('status', { name: 'What the last change moved' });
  await expect(moved).toContainText('Cut off: cold-store');
  await page.keyboard.press('Control+z');
  await expect(moved).toContainText('Connected again: cold-store');
  await openTrees(page, demo, '&tree=vlan-110&sel=port~gate:2');
  const cost = page.getByLabel('Cost of gate 2', { exact: true });
  await cost.fill('500');
  await cost.press('Enter');
  await expect(moved).toContainText('Cost of gate 2');
  await expect(cost).toBeFocused();
});

test('a design in a file is merged by names, put beside, or becomes a variant', async ({ page, request }) => {
  const demo = await freshDemo(request, 'merged');
  await openCabling(page, demo);
  const file = asCabled();
  file.switches.find((s) => s.id === 'gate')!.priority = 8192;
  await dropFiles(page, [{ name: 'harbour.json', text: JSON.stringify(file) }]);
  const dialog = page.getByRole('dialog', { name: 'Import files' });
  await expect(dialog).toContainText('1 change of what is here comes in');
  await dialog.getByRole('button', { name: 'Import', exact: true }).click();
  await saved(page);
  const { switches } = await stored(request, demo);
  expect([switches.length, switches.find((s) => s.id === 'gate')!.priority]).toEqual([file.switches.length, 8192]);
  await dropFiles(page, [{ name: 'other-harbour.json', text: JSON.stringify(file) }]);
  await dialog.getByRole('radio', { name: 'new variant' }).click();
  await dialog.getByRole('button', { name: 'Make the variant' }).click();
  await expect(page.getByRole('button', { name: 'Variant: other-harbour' })).toBeVisible();
});

test('a script of no length draws, and an event is put where something stands before it', async ({ page, request }) => {
  const errors = complaints(page);
  const demo = await freshDemo(request, 'short');
  await page.goto(`/d/${demo.design}/rehearsal?variant=${demo.variant}&sel=switch~gate`);
  await page.getByRole('button', { name: 'New', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Empty script' }).click();
  await page.getByRole('button', { name: 'Switch it off' }).click();
  await expect(page.getByLabel(/^Time of/)).toHaveValue('5');
  await page.getByLabel('seconds', { exact: true }).fill('0');
  await page.getByLabel('seconds', { exact: true }).press('Enter');
  await expect(page.getByText(/run of/).first()).toBeVisible();
  expect(await page.locator('svg').evaluateAll((all) => all.some((s) => s.outerHTML.includes('NaN')))).toBe(false);
  expect(errors).toEqual([]);
});
