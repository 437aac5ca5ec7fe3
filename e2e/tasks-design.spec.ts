import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { emptyDesign } from '../src/core/design';
import { docks } from './docks';
import { Hand, middleOf } from './hand';
import { dropFiles, freshDemo, freshDesign, openCabling, openTrees, saved, stored, test } from './support';
import type { Opened } from './support';

/** Tasks of laying out, reading, placing roots and steering, each from the screen on which it begins. */
async function openBoard(page: Page, { design, variant }: Opened, board: string): Promise<void> {
  await page.goto(`/d/${design}/trees?variant=${variant}&board=${board}`);
  await expect(page.getByRole('radio', { name: new RegExp(`^${board}$`, 'i') })).toBeChecked();
}
const chart = 'svg.chart';
const moved = 'What the last change moved';
const preview = 'Effect of the previewed change';

test('1: a sketch of three switches in a ring', async ({ page, request }) => {
  const sheet = await freshDesign(request, 'ring', emptyDesign('ring'));
  await openCabling(page, sheet);
  const hand = new Hand(page);
  const box = (await page.locator(chart).boundingBox())!;
  const name = page.getByRole('textbox', { name: 'Name', exact: true });
  await hand.doubleClick({ x: box.x + 400, y: box.y + 80 });
  await hand.type(name, 'north');
  await hand.press('Enter');
  const pull = async (from: string, to: string, by: { x: number; y: number }) => {
    const grip = await middleOf(page.getByRole('button', { name: new RegExp(`^${from}`) }).locator('.grip'));
    await hand.drag(grip, { x: box.x + by.x, y: box.y + by.y });
    await hand.type(name, to);
    await hand.press('Enter');
    await expect(page.getByRole('button', { name: new RegExp(`^${to}, access`) })).toBeAttached();
  };
  await pull('north', 'east', { x: 700, y: 280 });
  await pull('east', 'west', { x: 150, y: 280 });
  const [west, north] = ['west', 'north'].map((n) => page.getByRole('button', { name: new RegExp(`^${n}`) }));
  await hand.drag(await middleOf(west!.locator('.grip')), await middleOf(north!.locator('.sheet')));
  await saved(page);
  expect((await stored(request, sheet)).links).toHaveLength(3);
  hand.done(1);
});

test('2: six switches pasted from a spreadsheet', async ({ page, request }) => {
  const sheet = await freshDesign(request, 'pasted', emptyDesign('pasted'));
  await openCabling(page, sheet);
  const hand = new Hand(page);
  await hand.click(page.getByRole('tab', { name: /^Switches/ }));
  const rows = Array.from({ length: 6 }, (_, i) => `closet-${i + 1}\t00:00:5e:00:53:0${i + 1}\taccess`);
  await page.getByRole('grid').focus();
  await hand.paste(['Name\tMAC\tTier', ...rows].join('\n'));
  await saved(page);
  const { switches } = await stored(request, sheet);
  expect(switches.map((s) => s.name)).toEqual(rows.map((r) => r.split('\t')[0]));
  hand.done(2);
});

test('3: cabling held against what the switches report', async ({ page, request }) => {
  const { design, files } = docks();
  await openCabling(page, await freshDesign(request, 'docks', design));
  const hand = new Hand(page);
  hand.actions++;
  await dropFiles(page, files);
  await hand.click(page.getByRole('button', { name: 'Import' }));
  await expect(page.locator('.neighbours-sum')).toContainText('0 missing');
  await expect(page.locator('.wire-ghost')).toContainText('not drawn');
  hand.done(3);
});

test('4: who is root of a VLAN, and why', async ({ page, request }) => {
  await openTrees(page, await freshDemo(request, 'why'));
  const hand = new Hand(page);
  await hand.click(page.getByRole('button', { name: /199 management/ }));
  await expect(page.locator('.why .sentence').first()).toContainText('workshop is root');
  await expect(page.locator('.why .sentence').first()).toContainText('MAC address');
  hand.done(4);
});

test('5: a root and its successor placed for the VLAN that has none', async ({ page, request }) => {
  const demo = await freshDemo(request, 'roots');
  await openBoard(page, demo, 'roots');
  const hand = new Hand(page);
  const row = page.getByRole('row', { name: /VLAN 199 management/ });
  await hand.click(row.getByRole('gridcell', { name: /^core-west/ }));
  await hand.press('1');
  await hand.press('Enter');
  await hand.click(row.getByRole('gridcell', { name: /^core-east/ }));
  await hand.press('2');
  await hand.press('Enter');
  await expect(row.getByRole('gridcell', { name: /^core-west: rank 1/ })).toBeVisible();
  await expect(row.getByRole('gridcell', { name: /^core-east: rank 2/ })).toBeVisible();
  hand.done(5);
});

test('6: no access switch can become root', async ({ page, request }) => {
  const demo = await freshDemo(request, 'access');
  await openBoard(page, demo, 'roots');
  const hand = new Hand(page);
  await hand.click(page.getByRole('button', { name: 'access', exact: true }));
  await expect(page.getByLabel(preview)).toContainText('Never root: the access tier');
  await hand.press('Enter');
  await saved(page);
  const access = (await stored(request, demo)).switches.filter((s) => s.tier === 'access');
  expect(access.every((s) => s.priority === 61440)).toBe(true);
  hand.done(6);
});

test('7: the trees balanced over two core switches', async ({ page, request }) => {
  await openBoard(page, await freshDemo(request, 'halves'), 'roots');
  const hand = new Hand(page);
  await hand.click(page.getByRole('button', { name: 'Balance', exact: true }));
  await expect(page.getByLabel(preview)).toContainText('Balance 7 trees over core-east and core-west');
  await hand.press('Enter');
  await expect(page.getByLabel(moved)).toContainText('Balance 7 trees');
  hand.done(7);
});

test('8: this uplink should be the blocked one', async ({ page, request }) => {
  await openTrees(page, await freshDemo(request, 'blocked'), '&tree=vlan-110&sel=port~gate:1');
  const hand = new Hand(page);
  await hand.press('g');
  await hand.click(page.getByRole('button', { name: 'Add a goal' }));
  await hand.click(page.getByRole('button', { name: 'Add the goal' }));
  await hand.click(page.getByRole('button', { name: 'Propose' }));
  await expect(page.getByLabel(preview)).toContainText('gate 1 R → A');
  await hand.press('Enter');
  await expect(page.getByLabel(moved)).toContainText('gate 1 R → A');
  hand.done(8);
});

test('9: one VLAN over the other uplink, and nothing else moves', async ({ page, request }) => {
  await openTrees(page, await freshDemo(request, 'one vlan'), '&tree=vlan-110');
  const hand = new Hand(page);
  await hand.click(page.locator('.peg[data-id="ticket-hall:2"]'));
  await hand.type(page.getByLabel('Cost of ticket-hall 2'), '500');
  await hand.press('Enter');
  await expect(page.getByLabel(moved)).toContainText('ticket-hall 2 A → R');
  await expect(page.getByLabel(moved)).toContainText('6 of 7 trees stay');
  hand.done(9);
});

test('10: VLANs in instances, and the switch whose map differs', async ({ page, request }) => {
  await openBoard(page, await freshDemo(request, 'instances'), 'instances');
  const hand = new Hand(page);
  await hand.click(page.getByRole('row', { name: /^3 instances/ }).getByRole('button', { name: 'Preview' }));
  await hand.press('Enter');
  await expect(page.getByRole('region', { name: 'Instance 2' })).toContainText('140');
  await hand.click(page.getByRole('radio', { name: 'Switches and regions' }));
  await expect(page.getByText('the same name, revision and digest')).toBeVisible();
  hand.done(10);
});
