import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { asCabled } from '../src/demo/brackwater';
import { freshDemo, openCabling, paste, saved, stored, test } from './support';

const grid = (page: Page) => page.getByRole('grid');
const row = (page: Page, text: RegExp) => grid(page).getByRole('row', { name: text });
async function openTable(page: Page, name: string): Promise<void> {
  await page.getByRole('tab', { name: new RegExp(`^${name}`) }).click();
  await expect(page.getByRole('grid', { name })).toBeVisible();
}

test('drawing and tables share the selection, both ways', async ({ page, request }) => {
  await openCabling(page, await freshDemo(request, 'share'));
  await openTable(page, 'Switches');
  await page.locator('.plate[data-id="crane-yard"] .sheet').click();
  await expect(row(page, /crane-yard/)).toHaveAttribute('aria-selected', 'true');
  await row(page, /cold-store/)
    .getByRole('gridcell')
    .first()
    .click();
  await expect(page.locator('.plate[data-id="cold-store"]')).toHaveAttribute('aria-pressed', 'true');
  // Rows that do not touch are selected one by one, and let go again.
  const first = (name: RegExp) => row(page, name).getByRole('gridcell').first();
  await first(/crane-yard/).click({ modifiers: ['Control'] });
  await expect(page.locator('.plate[aria-pressed="true"]')).toHaveCount(2);
  await row(page, /cold-store/)
    .getByRole('rowheader')
    .click({ modifiers: ['Control'] });
  await expect(page.locator('.plate[aria-pressed="true"]')).toHaveAttribute('data-id', 'crane-yard');
  await first(/cold-store/).click();
  await openTable(page, 'Ports');
  await page.getByLabel('of the selection only').check();
  await expect(grid(page)).toHaveAttribute('aria-rowcount', '5');
});

test('a cell is edited in place by keys; a wrong value says why and the cell keeps what it had', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'edit');
  await openCabling(page, demo);
  await openTable(page, 'Switches');
  await row(page, /quay-a/)
    .getByRole('gridcell')
    .nth(2)
    .click();
  await page.keyboard.type('2478');
  await page.keyboard.press('Enter');
  await expect(page.locator('.notice')).toContainText('the nearest is 4096');
  await expect(
    row(page, /quay-a/)
      .getByRole('gridcell')
      .nth(2),
  ).toHaveText('32768');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.type('4096');
  await page.keyboard.press('Enter');
  await expect(
    row(page, /quay-a/)
      .getByRole('gridcell')
      .nth(2),
  ).toHaveText('4096');
  await saved(page);
  expect((await stored(request, demo)).switches.find((s) => s.id === 'quay-a')!.priority).toBe(4096);
});

test('a range is filled down and cleared, each in one undo step', async ({ page, request }) => {
  const demo = await freshDemo(request, 'fill');
  await openCabling(page, demo);
  await openTable(page, 'Switches');
  await row(page, /ticket-hall/)
    .getByRole('gridcell')
    .nth(2)
    .click();
  await page.keyboard.type('61440');
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowUp');
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Control+d');
  await saved(page);
  const low = async () => (await stored(request, demo)).switches.filter((s) => s.priority === 61440).length;
  expect(await low()).toBe(6);
  await page.keyboard.press('Control+z');
  await expect.poll(low).toBe(1);
});

test('a block from a spreadsheet goes in cell by cell: what fits is kept, the rest is named, one undo for all', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'block');
  await openCabling(page, demo);
  await openTable(page, 'Ports');
  await grid(page).getByRole('row').nth(1).getByRole('gridcell').nth(4).click();
  await paste(page, '100\nfast\n2.5G\n10-x\n');
  const report = page.locator('.report');
  await expect(report).toContainText('2 cells or rows were not taken, 2 rows were');
  await expect(report).toContainText("row 2, Mb/s: Speed 'fast' is not legal");
  await saved(page);
  expect((await stored(request, demo)).ports.slice(0, 4).map((p) => p.speed)).toEqual([100, 10_000, 2500, 10_000]);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect
    .poll(async () => (await stored(request, demo)).ports.slice(0, 4).map((p) => p.speed))
    .toEqual([10_000, 10_000, 10_000, 10_000]);
});

test('rows with a heading make new switches and links; the new row at the end takes typing', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'rows');
  await openCabling(page, demo);
  await openTable(page, 'Switches');
  await grid(page).focus();
  await paste(page, 'Switch\tTier\neast-1\taccess\neast-2\taccess\ngate\tcore\n');
  await expect(page.getByRole('button', { name: /^east-2, access/ })).toBeAttached();
  await openTable(page, 'Links');
  await grid(page).focus();
  await paste(page, 'A: switch\tB: switch\tMb/s\neast-1\tquay-a\t1000\neast-1\tnowhere\t1000\n');
  await expect(page.locator('.report')).toContainText("There is no switch or host 'nowhere' in this design.");
  await openTable(page, 'VLANs');
  await grid(page).focus();
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Home');
  await page.keyboard.type('4095');
  await page.keyboard.press('Enter');
  await expect(page.locator('.notice')).toContainText('VLAN 4095 is not legal');
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Home');
  await page.keyboard.type('210');
  await page.keyboard.press('Enter');
  await saved(page);
  const design = await stored(request, demo);
  expect(design.switches.find((s) => s.name === 'gate')!.tier).toBe('core');
  expect(design.links.length).toBe(asCabled().links.length + 1);
  expect(design.vlans.at(-1)!.number).toBe(210);
});

test('cells are copied as a spreadsheet takes them; rows are sorted, filtered and deleted', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'copy cells');
  await openCabling(page, demo);
  await openTable(page, 'Switches');
  await page.getByLabel('Filter Switches').fill('tier:core');
  await expect(grid(page)).toHaveAttribute('aria-rowcount', '4');
  await page.getByLabel('Filter Switches').fill('');
  await page.getByRole('columnheader', { name: 'MAC address' }).getByRole('button').click();
  await expect(grid(page).getByRole('row').nth(1)).toContainText('workshop');
  await grid(page).getByRole('row').nth(1).getByRole('gridcell').first().click();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowRight');
  const copied = await page.evaluate(() => {
    const data = new DataTransfer();
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true }),
    );
    return data.getData('text/plain');
  });
  expect(copied).toBe('workshop\t00:00:5e:00:53:05\nquay-a\t00:00:5e:00:53:1a');
  await page.getByRole('button', { name: 'Delete rows' }).click();
  await saved(page);
  expect((await stored(request, demo)).switches.map((s) => s.name)).not.toContain('workshop');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect.poll(async () => (await stored(request, demo)).links.length).toBe(asCabled().links.length);
});
