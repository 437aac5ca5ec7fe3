import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import type { Design } from '../src/core/design';
import { asCabled, asMeant } from '../src/demo/brackwater';
import { quarryAsItIs } from '../src/demo/quarry';
import { Hand } from './hand';
import { freshDemo, freshDesign, openCabling, saved, stored, test } from './support';
import type { Opened } from './support';

/** Tasks of bundling, guarding, rehearsing, reviewing and handing over, each from the screen on which it begins. */
const openStage = (page: Page, { design, variant }: Opened, stage: string, query = '') =>
  page.goto(`/d/${design}/${stage}?variant=${variant}${query}`);
const steps = (page: Page) => page.getByRole('table', { name: 'Steps in their order' }).locator('tbody tr');

/** The demo with a second cable between the quays. */
function twoCables(): Design {
  const design = asCabled();
  const vlans = '110,120,130,140,150,160,199';
  for (const at of ['quay-a', 'quay-b'])
    design.ports.push({ id: `${at}:13`, switch: at, name: '13', number: 13, speed: 1000, vlans });
  design.links.push({ id: 'second', a: { port: 'quay-a:13' }, b: { port: 'quay-b:13' } });
  return design;
}

test('11: two parallel cables become one bundle', async ({ page, request }) => {
  const demo = await freshDesign(request, 'parallel', twoCables());
  await openStage(page, demo, 'bundles');
  const hand = new Hand(page);
  await hand.click(page.getByRole('button', { name: 'Bundle', exact: true }));
  await expect(page.getByRole('heading', { name: 'quay-a = quay-b: up' })).toBeVisible();
  const lost = page.getByRole('region', { name: 'What if: one link lost' });
  await expect(lost.getByRole('row', { name: /^cost by speed/ })).toContainText('→');
  hand.done(11);
});

test('12: a bundle that never comes up is found and mended', async ({ page, request }) => {
  const design = asMeant();
  for (const b of design.bundles.slice(0, 2)) b.activity = 'passive';
  await openStage(page, await freshDesign(request, 'passive', design), 'bundles');
  const hand = new Hand(page);
  await expect(page.getByRole('heading', { name: 'core-east = core-west: never comes up' })).toBeVisible();
  await hand.choose(page.getByLabel('Negotiation of core-east in the drawing'), 'LACP active: starts it');
  await expect(page.getByRole('heading', { name: 'core-east = core-west: up' })).toBeVisible();
  hand.done(12);
});

test('13: what a lost member costs', async ({ page, request }) => {
  await openStage(page, await freshDesign(request, 'member', asMeant()), 'bundles');
  const hand = new Hand(page);
  await hand.click(page.getByRole('button', { name: /^core-east = core-west/ }));
  const lost = page.getByRole('region', { name: 'What if: one link lost' });
  await expect(lost.getByRole('row', { name: /^capacity/ })).toContainText(/20\s000 → 10\s000/);
  hand.done(13);
});

test('14: the two cards of a server become a bundle', async ({ page, request }) => {
  const design = asMeant();
  const first = design.ports.find((p) => p.id === 'core-east:20')!;
  design.ports.push({ ...first, id: 'core-east:21', name: '21', number: 21 });
  design.links.push({ id: 'card', a: { port: 'core-east:21' }, b: { host: 'ferry-server', card: '2' } });
  const demo = await freshDesign(request, 'cards', design);
  await openCabling(page, demo);
  const hand = new Hand(page);
  await hand.click(page.locator('.spot[data-id="ferry-server"]'));
  await hand.press('j');
  await saved(page);
  expect((await stored(request, demo)).bundles.at(-1)!.members).toEqual(['core-east:20', 'core-east:21']);
  hand.done(14);
});

test('15: edge ports of all switches guarded, and back by themselves after 300 s', async ({ page, request }) => {
  const demo = await freshDemo(request, 'guarded');
  await openCabling(page, demo);
  const hand = new Hand(page);
  const all = async (setting: string, value: string) => {
    await hand.press('Control+k');
    await hand.type(page.getByRole('combobox'), setting);
    await hand.press('Enter');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await hand.press('Control+Shift+ArrowDown');
    hand.actions++;
    await page.keyboard.type(value);
    await hand.press('Control+Enter');
  };
  await all('edge guard', 'yes');
  await all('guard recovery', '300');
  await saved(page);
  const { switches } = await stored(request, demo);
  expect(switches.every((s) => s.edgeGuard === true && s.guardRecovery === 300)).toBe(true);
  expect(switches).toHaveLength(10);
  hand.done(15);
});

test('16: an uplink lost, and how long a pair is without contact', async ({ page, request }) => {
  const demo = await freshDesign(request, 'outage', { ...asMeant(), scripts: [] });
  await openStage(page, demo, 'rehearsal', '&tree=vlan-110&sel=switch~ticket-hall');
  const hand = new Hand(page);
  await hand.click(page.getByRole('button', { name: 'New', exact: true }));
  await hand.click(page.getByRole('menuitem', { name: 'each uplink of ticket-hall' }));
  await expect(page.getByText(/Still reachable, over another path: ferry-server to ticket-desk/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Timeline' }).getByText(/^\d+ µs$/)).toBeVisible();
  hand.done(16);
});

test('17: a rogue switch at a guarded port, and the time until the port comes back', async ({ page, request }) => {
  await openStage(page, await freshDesign(request, 'rogue', asMeant()), 'rehearsal');
  const hand = new Hand(page);
  await hand.choose(page.getByRole('combobox', { name: 'Script' }), 'rogue switch at the ticket hall');
  await hand.click(page.getByRole('button', { name: /was shut down by BPDU guard until 35/ }));
  await expect(page.getByRole('region', { name: 'At this moment' })).toContainText('it recovers in');
  hand.done(17);
});

test('18: the worst single failure, and the cable that is missing', async ({ page, request }) => {
  await openStage(page, await freshDemo(request, 'worst'), 'review');
  const hand = new Hand(page);
  const table = page.getByRole('table', { name: 'What each failure does' });
  await hand.click(table.locator('tbody tr').first());
  await expect(page.getByRole('heading', { name: /^With .* lost$/ })).toBeVisible();
  await expect(page.getByText(/^separated: \d/)).toBeVisible();
  await hand.click(page.getByRole('radio', { name: /Missing cables/ }));
  await hand.click(page.getByRole('button', { name: /^Preview 1.cable$/ }).first());
  await expect(page.getByRole('status', { name: 'Effect of the previewed change' })).toBeVisible();
  hand.done(18);
});

test('19: the change into service, planned from where one works, and its work sheet', async ({ page, request }) => {
  const demo = await freshDemo(request, 'service');
  const data = { from: demo.variant, name: 'as meant', design: asMeant() };
  expect((await request.post(`/api/designs/${demo.design}/variants`, { data })).ok()).toBe(true);
  await openStage(page, demo, 'hand-over');
  const hand = new Hand(page);
  await hand.choose(page.getByLabel('working from'), 'ticket-desk');
  await expect(page.getByText('no order is better')).toBeVisible({ timeout: 60_000 });
  await hand.click(page.getByRole('button', { name: 'Work sheet…' }));
  const download = page.waitForEvent('download');
  await hand.click(page.getByRole('menuitem', { name: 'To print (HTML)' }));
  expect(readFileSync(await (await download).path(), 'utf8')).toContain('cold-store');
  hand.done(19);
});

test('20: ways out of a mixed network compared', async ({ page, request }) => {
  const demo = await freshDesign(request, 'mixed', quarryAsItIs());
  await openStage(page, demo, 'hand-over');
  const hand = new Hand(page);
  await hand.click(page.getByRole('radio', { name: 'Migration' }));
  await hand.choose(page.getByLabel(/^to\b/), 'RSTP, one tree per VLAN');
  const ways = page.getByRole('table', { name: 'Ways of the migration' }).locator('tbody tr');
  await expect(ways.filter({ hasText: 'core first' })).toBeVisible({ timeout: 60_000 });
  await expect(ways.filter({ hasText: 'least outage' })).toBeVisible({ timeout: 60_000 });
  await hand.click(ways.filter({ hasText: 'core first' }));
  await expect(steps(page).first()).toBeVisible();
  hand.done(20);
});
