import { expect } from '@playwright/test';
import type { Locator, Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { emptyDesign } from '../src/core/design';
import type { Design } from '../src/core/design';
import { docks } from './docks';
import { complaints, dropFiles, freshDemo, openCabling, paste, saved, stored, test } from './support';
import type { Opened } from './support';

const plate = (page: Page, id: string) => page.locator(`.plate[data-id="${id}"]`);
const named = (design: Design, name: string) => design.switches.find((s) => s.name === name)!;

async function middle(locator: Locator): Promise<{ x: number; y: number }> {
  const box = (await locator.locator('.sheet, .tag, .bar').first().boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}
async function drag(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.waitForTimeout(50);
  await page.mouse.up();
}
async function fresh(page: Page, design = emptyDesign('sheet')): Promise<Opened> {
  const response = await page.request.post('/api/designs', { data: { name: design.name, design } });
  const head = (await response.json()) as { id: string; variants: { id: string }[] };
  return { design: head.id, variant: head.variants[0]!.id };
}
const undo = (page: Page) => page.getByRole('button', { name: 'Undo', exact: true }).click();

test('a sketch: double-click makes a switch, its name is typed, a pulled cable makes the next one', async ({
  page,
}) => {
  const errors = complaints(page);
  const sheet = await fresh(page);
  await openCabling(page, sheet);
  await expect(page.getByRole('heading', { name: 'An empty sheet' })).toBeVisible();
  const box = (await page.locator('svg.chart').boundingBox())!;
  await page.mouse.dblclick(box.x + 200, box.y + 60);
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('north');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^north, access/ })).toBeAttached();
  const north = page.getByRole('button', { name: /^north/ });
  const from = (await north.locator('.grip').boundingBox())!;
  await drag(page, { x: from.x + 5, y: from.y + 5 }, { x: box.x + 420, y: box.y + 330 });
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('north');
  await expect(page.getByText("Two switches are called 'north'")).toBeVisible();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('south');
  await page.keyboard.press('Enter');
  await page.getByRole('radio', { name: 'Cable', exact: true }).click();
  const south = page.getByRole('button', { name: /^south/ });
  await drag(page, await middle(north), await middle(south));
  await drag(page, await middle(south), { x: (await middle(south)).x + 8, y: (await middle(south)).y + 4 });
  await saved(page);
  const design = await stored(page.request, sheet);
  expect(design.switches.map((s) => s.name)).toEqual(['north', 'south']);
  expect(design.links).toHaveLength(3);
  expect(design.ports.map((p) => p.number)).toEqual([1, 1, 2, 2, 3, 4]);
  expect(errors).toEqual([]);
});

test('a dragged switch stands in line with another, its cables follow, and undo puts it back', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'drag');
  await openCabling(page, demo);
  const [workshop, gate] = [await middle(plate(page, 'workshop')), await middle(plate(page, 'gate'))];
  await drag(page, workshop, { x: workshop.x - 40, y: gate.y + 3 });
  await saved(page);
  const moved = named(await stored(request, demo), 'workshop');
  expect(moved.y).toBe(420);
  expect(moved.x).not.toBe(570);
  await expect
    .poll(async () => Math.round((await middle(plate(page, 'workshop'))).y - (await middle(plate(page, 'gate'))).y))
    .toBe(0);
  await undo(page);
  await expect.poll(async () => named(await stored(request, demo), 'workshop')).toMatchObject({ x: 570, y: 560 });
});

test('by keys alone: select, cable, rename, one more, delete', async ({ page, request }) => {
  const demo = await freshDemo(request, 'keys');
  await openCabling(page, demo, '&sel=switch~gate');
  await page.locator('svg.chart').focus();
  await page.keyboard.press('l');
  await page.getByRole('combobox', { name: 'To' }).fill('worksh');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Cables' }).fill('2');
  await page.keyboard.press('Enter');
  await saved(page);
  expect((await stored(request, demo)).links).toHaveLength(26);
  await openCabling(page, demo, '&sel=switch~gate');
  await page.locator('svg.chart').focus();
  await page.keyboard.press('F2');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('main-gate');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^main-gate/ })).toBeAttached();
  await page.keyboard.press('m');
  await expect(page.getByRole('button', { name: /^main-gate-2/ })).toBeAttached();
  await page.keyboard.press('Control+ArrowRight');
  await saved(page);
  const grown = await stored(request, demo);
  expect(grown.links).toHaveLength(26 + 2 + 2 + 1);
  await page.keyboard.press('Delete');
  await expect(page.getByRole('button', { name: /^main-gate-2/ })).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^main-gate-2/ })).toBeAttached();
  await saved(page);
  expect((await stored(request, demo)).links).toHaveLength(grown.links.length);
});

test('a part is copied and pasted, also into another design', async ({ page, request }) => {
  const demo = await freshDemo(request, 'copy');
  await openCabling(page, demo, '&sel=switch~gate&sel=host~gate-camera');
  await page.locator('svg.chart').focus();
  const text = await page.evaluate(() => {
    const data = new DataTransfer();
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true }),
    );
    return data.getData('text/plain');
  });
  await paste(page, text);
  await expect(page.getByRole('button', { name: /^gate-2/ })).toBeAttached();
  const sheet = await fresh(page);
  await openCabling(page, sheet);
  await page.locator('svg.chart').focus();
  await paste(page, text);
  await expect(page.getByRole('button', { name: /^gate, access/ })).toBeAttached();
  await saved(page);
  expect((await stored(request, sheet)).vlans.length).toBeGreaterThan(6);
  await paste(page, 'some words');
  await expect(page.getByText('holds no part of a network')).toBeVisible();
});

test('a pattern is laid out in one step and taken back in one', async ({ page }) => {
  const sheet = await fresh(page);
  await openCabling(page, sheet);
  await page.getByRole('button', { name: 'Start from a pattern…' }).click();
  await page.getByRole('radio', { name: 'Core – distribution – access' }).click();
  await page.getByRole('textbox', { name: 'Closets' }).fill('200');
  await expect(page.getByText('Closets: a whole number from 1 to 120.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Lay it out' })).toBeDisabled();
  await page.getByRole('textbox', { name: 'Closets' }).fill('9');
  await page.getByRole('textbox', { name: 'VLANs on all links' }).fill('10-x');
  await expect(page.getByText("cannot be read at '10-x'")).toBeVisible();
  await page.getByRole('textbox', { name: 'VLANs on all links' }).fill('10-12');
  await page.getByRole('button', { name: 'Lay it out' }).click();
  await expect(page.locator('.plate')).toHaveCount(15);
  await saved(page);
  expect((await stored(page.request, sheet)).vlans.map((v) => v.number)).toEqual([1, 10, 11, 12]);
  await undo(page);
  await expect(page.locator('.plate')).toHaveCount(0);
});

test('a VLAN laid over the drawing shows where it is, where it ends, and is painted along a link', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'paint');
  await openCabling(page, demo);
  await page.getByRole('radio', { name: '130 cameras' }).click();
  await expect(page.locator('.lens-words')).toContainText('1 link carries it at one end only');
  await expect(page.locator('.wire-half')).toHaveCount(1);
  await page.getByRole('radio', { name: 'Paint VLAN' }).click();
  await page.locator('.wire-half .hit').dispatchEvent('pointerdown', { button: 0, bubbles: true });
  await page.mouse.up();
  await expect(page.locator('.wire-half')).toHaveCount(0);
  await expect(page.locator('.lens-words')).not.toContainText('one end only');
  await saved(page);
  expect((await stored(request, demo)).ports.find((p) => p.id === 'gate:2')!.vlans).toContain('130');
  await undo(page);
  await expect(page.locator('.wire-half')).toHaveCount(1);
  await page.getByRole('tab', { name: /^Links/ }).click();
  await page.getByLabel('Filter Links').fill('gate quay-b');
  // The table follows the filter when the page has time for it.
  await expect(page.getByRole('grid').getByRole('row').nth(1)).toContainText(/quay-b.*gate/);
  await page.getByRole('grid').getByRole('row').nth(1).getByRole('rowheader').click();
  await page.locator('svg.chart').focus();
  await page.keyboard.press('p');
  await expect(page.locator('.wire-half')).toHaveCount(0);
  await page.getByRole('radio', { name: '140 crane telemetry' }).click();
  await page.keyboard.press('Escape');
  await expect(plate(page, 'workshop')).toHaveClass(/plate-outside/);
  await page.getByRole('link', { name: 'Trees' }).click();
  await expect(page.getByRole('heading', { name: 'VLAN 140 crane telemetry' })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('radio', { name: '140 crane telemetry' })).toHaveAttribute('aria-checked', 'true');
});

test('switches are arranged in a worker, by tiers, and aligned', async ({ page, request }) => {
  const demo = await freshDemo(request, 'arrange');
  await openCabling(page, demo);
  const before = await stored(request, demo);
  for (const name of ['In layers, core at the top', 'Freely, by distance', 'In rows by tier']) {
    await page.getByRole('button', { name: 'Arrange' }).click();
    await page.getByRole('menuitem', { name }).click();
    await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeEnabled({ timeout: 20_000 });
    await saved(page);
    const now = await stored(request, demo);
    expect(now.switches.map((s) => [s.x, s.y])).not.toEqual(before.switches.map((s) => [s.x, s.y]));
    const y = (n: string) => named(now, n).y!;
    if (!name.startsWith('Freely')) {
      expect(y('core-east')).toBeLessThan(y('quay-a'));
      expect(y('quay-a')).toBeLessThan(y('gate'));
    }
    await undo(page);
    await expect.poll(async () => (await stored(request, demo)).switches).toEqual(before.switches);
  }
});

test('what the switches hear is held against the drawing, and a difference is accepted with a click', async ({
  page,
}) => {
  const { design, files } = docks((at, port) => (at === 'dock-4' && port === 'p4' ? 'p5' : port));
  const sheet = await fresh(page, design);
  await openCabling(page, sheet);
  await dropFiles(page, files);
  await expect(page.getByRole('dialog')).toContainText('neighbours: 4 neighbours come in');
  await page.getByRole('button', { name: 'Import' }).click();
  const sum = page.locator('.neighbours-sum');
  await expect(sum).toContainText('5 switches report: 7 cables as drawn, 0 missing, 1 in another port, 1 unexpected');
  await expect(page.locator('.wire-ghost')).toContainText('not drawn');
  await expect(page.locator('.wire.has-alarm', { hasText: 'other port' })).toHaveCount(1);
  await page.getByRole('button', { name: 'Move the cable' }).click();
  await expect(sum).toContainText('8 cables as drawn');
  await page.getByRole('button', { name: 'Draw it' }).click();
  await expect(sum).toContainText('9 cables as drawn, 0 missing, 0 in another port, 0 unexpected');
  await saved(page);
  const now = await stored(page.request, sheet);
  expect(now.links.find((l) => l.id === 'l7')!.b).toEqual({ port: 'dock-4:p4' });
  await page.keyboard.press('Control+z');
  await expect(sum).toContainText('1 unexpected');
});

test('the drawing goes out as a picture, the network as GraphML and RFC 8345', async ({ page, request }) => {
  const demo = await freshDemo(request, 'pictures');
  await openCabling(page, demo);
  const take = async (item: string) => {
    await page.getByRole('button', { name: /^Variant/ }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name: item }).click();
    return readFileSync(await (await download).path());
  };
  const svg = (await take('Export: Drawing (SVG)')).toString();
  expect(svg).toContain('core-east');
  expect(svg).not.toContain('var(--');
  const png = await take('Export: Drawing (PNG)');
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  expect(png.length).toBeGreaterThan(20_000);
  expect((await take('Export: Graph (GraphML)')).toString()).toContain('<graphml');
  expect((await take('Export: Topology (RFC 8345 JSON)')).toString()).toContain('ietf-network:networks');
});
