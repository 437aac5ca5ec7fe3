import AxeBuilder from '@axe-core/playwright';
import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { complaints, freshDemo, openTrees, paste, pick, saved, stored, test } from './support';
import type { Opened } from './support';

async function openBoard(page: Page, { design, variant }: Opened, board: string, query = ''): Promise<void> {
  await page.goto(`/d/${design}/trees?variant=${variant}&board=${board}${query}`);
  await expect(page.getByRole('radio', { name: new RegExp(`^${board.replace('-', ' ')}$`, 'i') })).toBeChecked();
}
const draft = (page: Page) => page.getByLabel('Effect of the previewed change');
const priority = async (request: Parameters<typeof stored>[0], demo: Opened, id: string, vlan: number) =>
  (await stored(request, demo)).switches.find((s) => s.id === id)?.vlanPriority?.[String(vlan)];

test('a rank placed by key shows what it would move, is applied with one key and undone with one', async ({
  page,
  request,
}) => {
  const errors = complaints(page);
  const demo = await freshDemo(request, 'ranks');
  await openBoard(page, demo, 'roots');
  await expect(page.getByRole('gridcell', { name: /^workshop: rank 1, .* MAC address only/ })).toBeVisible();
  const row = page.getByRole('row', { name: /VLAN 199 management/ });
  await row.getByRole('gridcell', { name: /^core-west/ }).click();
  await page.keyboard.press('1');
  await expect(draft(page)).toContainText('core-west on rank 1 of VLAN 199 management · 1 setting');
  await expect(draft(page)).toContainText('root workshop → core-west');
  await expect(draft(page)).toContainText('6 of 7 trees stay');
  expect(await priority(request, demo, 'core-west', 199)).toBeUndefined();
  await page.keyboard.press('Escape');
  await expect(draft(page)).toHaveCount(0);
  await page.keyboard.press('1');
  await page.keyboard.press('Enter');
  await expect(row.getByRole('gridcell', { name: /^core-west: rank 1, priority 28672$/ })).toBeVisible();
  await saved(page);
  expect(await priority(request, demo, 'core-west', 199)).toBe(28672);
  await row.getByRole('gridcell', { name: /^core-west/ }).press('2');
  await expect(page.getByText('core-west has two ranks in one tree: give it one.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(row.getByRole('gridcell', { name: /^workshop: rank 1/ })).toBeVisible();
  expect(errors).toEqual([]);
});

test('a rank is dragged, trees are picked, a tier is pushed out and the trees balanced over two roots', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'balance');
  await openBoard(page, demo, 'roots');
  const row = page.getByRole('row', { name: /VLAN 199 management/ });
  await row.locator('.rank-1').dragTo(row.getByRole('gridcell', { name: /^core-east/ }));
  await expect(draft(page)).toContainText('core-east on rank 1 of VLAN 199');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'access', exact: true }).click();
  await expect(draft(page)).toContainText('Never root: the access tier · 6 settings');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Balance', exact: true }).click();
  await expect(draft(page)).toContainText('Balance 7 trees over core-east and core-west · 2 settings');
  await page.keyboard.press('Enter');
  await expect(row.getByRole('gridcell', { name: /^core-(east|west): rank 1/ })).toBeVisible();
  await page.getByLabel('Pick VLAN 160 buildings').check();
  await page
    .getByLabel('Pick VLANs 140')
    .or(page.getByLabel(/^Pick VLAN 140/))
    .first()
    .check();
  await expect(page.getByText('3 trees picked:')).toBeVisible();
  await page
    .getByRole('row', { name: /VLAN 160/ })
    .getByRole('gridcell', { name: /^quay-a/ })
    .press('1');
  await expect(draft(page)).toContainText('quay-a on rank 1 of 3 trees');
});

test('what is tried out stays when the answer to the change before it is lost', async ({ page, request }) => {
  const demo = await freshDemo(request, 'lost answer');
  let lost = 0;
  await page.route('**/steps', async (route) => {
    if (route.request().method() !== 'POST' || lost > 0) return route.continue();
    await route.fetch();
    lost++;
    await route.abort();
  });
  await openBoard(page, demo, 'roots');
  await page.getByRole('button', { name: 'Balance', exact: true }).click();
  await expect(draft(page)).toContainText('Balance 7 trees');
  await page.keyboard.press('Enter');
  await expect(draft(page)).toHaveCount(0);
  await page
    .getByRole('row', { name: /VLAN 160/ })
    .getByRole('gridcell', { name: /^quay-a/ })
    .press('1');
  await expect(draft(page)).toContainText('quay-a on rank 1');
  await saved(page);
  expect(lost).toBe(1);
  await expect(draft(page)).toContainText('quay-a on rank 1');
});

test('a cost is tried out while it is typed, and what would move is shown before it is made', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'steering');
  await openTrees(page, demo, '&tree=vlan-110&sel=port~gate:2&sel=port~ticket-hall:2');
  await page.getByLabel('Cost of 2 ports').fill('500');
  await expect(draft(page)).toContainText('Cost of 2 ports for VLAN 110: 500');
  await expect(draft(page)).toContainText('ticket-hall 2 A → R');
  await expect(draft(page)).toContainText('6 of 7 trees stay');
  expect((await stored(request, demo)).ports.find((p) => p.id === 'gate:2')?.vlanCost).toBeUndefined();
  await page.getByLabel('Cost of 2 ports').press('Enter');
  await expect(page.getByLabel('What the last change moved')).toContainText('Cost of 2 ports for VLAN 110: 500');
  await saved(page);
  const { ports } = await stored(request, demo);
  for (const id of ['gate:2', 'ticket-hall:2'])
    expect(ports.find((p) => p.id === id)?.vlanCost).toEqual({ '110': 500 });
});

test('link use describes each cell, names idle links, and takes traffic from a spreadsheet', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'link use');
  await openBoard(page, demo, 'link-use');
  await expect(page.getByText('idle in every tree:')).toBeVisible();
  await expect(page.getByRole('button', { name: 'quay-b 5 – signal-tower 1' })).toBeVisible();
  const board = page.getByRole('application', { name: /^Link use: 5 rows of trees and 17 links/ });
  await board.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByLabel('Cell of link use')).toContainText(
    'VLANs 110, 120 core-east = core-west: forwards · forwards in 6 of 7 trees',
  );
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight');
  await expect(page.getByLabel('Cell of link use')).toContainText(/core-west 4 – quay-a 2: blocked at quay-a 2/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /quay-a · port 2|core-west · port 4/ })).toBeVisible();
  await page.getByRole('radio', { name: 'Traffic' }).click();
  await page.getByRole('grid').getByRole('gridcell').first().click();
  await page.keyboard.press('Control+End');
  await paste(page, 'VLAN\tFrom\tTo\tMb/s\n199\tgate\tcore-east\t1500\n');
  await saved(page);
  expect((await stored(request, demo)).demands.at(-1)).toMatchObject({
    vlan: 199,
    from: { switch: 'gate' },
    to: { switch: 'core-east' },
    load: 1500,
  });
  await page.getByRole('radio', { name: 'Goals' }).click();
  await expect(page.locator('.goal-broken')).toContainText([/access/, /signal-tower/, /No link carries more/]);
});

test('VLANs are grouped into instances as advised, moved between them, and a switch that differs is found', async ({
  page,
  request,
}) => {
  const errors = complaints(page);
  const demo = await freshDemo(request, 'instances');
  await openBoard(page, demo, 'instances');
  const three = page.getByRole('row', { name: /^3 instances/ });
  await expect(three).toContainText('all stay');
  await three.getByRole('button', { name: 'Preview' }).click();
  await expect(draft(page)).toContainText('number of trees then: 4 instead of 7');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Instance 2' })).toContainText('140');
  // The CIST and the first instance go the same way: they are one entry.
  await expect(page.locator('[aria-label="Trees"] .strip-item')).toHaveCount(3);
  await page.getByRole('radio', { name: 'Switches and regions' }).click();
  await expect(page.getByText('the same name, revision and digest')).toBeVisible();

  await page.getByRole('region', { name: 'Instance 2' }).getByRole('button', { name: /^160/ }).click();
  await expect(page.getByLabel('VLANs to move')).toHaveValue('160');
  await pick(page, 'Map of', 'gate alone');
  await pick(page, 'Instance to move to', 'Instance 1');
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await expect(page.getByText('VLAN 160: instance 2 on core-east, instance 1 on gate.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'gate 1', exact: true })).toBeVisible();
  await saved(page);
  expect((await stored(request, demo)).switches.find((s) => s.id === 'gate')?.vlanInstance).toEqual({ '160': 1 });

  await page.getByLabel('VLANs to move').fill('199, 4095');
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await expect(page.getByText("'4095' is not a VLAN: write numbers from 1 to 4094")).toBeVisible();
  await page.getByLabel('revision').fill('65536');
  await page.getByLabel('revision').press('Enter');
  await expect(page.getByText('Revision 65536 is not legal: a whole number from 0 to 65535.')).toBeVisible();
  await page.getByLabel('revision').press('Escape');

  await page.getByRole('radio', { name: 'Chart' }).click();
  await page.getByRole('button', { name: /Tree Instance 2/ }).click();
  await expect(page.locator('.region-name').first()).toBeVisible();
  await page.goto(`/d/${demo.design}/trees?variant=${demo.variant}&tree=msti-2&sel=port~gate:2`);
  await expect(page.locator('.why .sentence').first()).toContainText(
    /Master: here the CIST leaves the region|Boundary of/,
  );
  expect(errors).toEqual([]);
});

test('the protocol load of the modes is compared with limits', async ({ page, request }) => {
  await openBoard(page, await freshDemo(request, 'load'), 'instances');
  await page.getByRole('radio', { name: 'Protocol load' }).click();
  const row = page.getByRole('row', { name: /^RSTP, one tree per VLAN/ });
  await expect(row).toContainText('in use');
  await page.getByLabel('Limit of trees on a switch').fill('5');
  await expect(row).toContainText('over');
  await expect(page.getByRole('row', { name: /^RSTP, one tree for all VLANs/ })).not.toContainText('over');
});

test('trees stand side by side, and a change stands before and after', async ({ page, request }) => {
  await openBoard(page, await freshDemo(request, 'compare'), 'compare', '&tree=vlan-110');
  await expect(page.getByRole('img', { name: /^VLAN/ })).toHaveCount(2);
  await page.getByRole('button', { name: '+ tree' }).click();
  await expect(page.getByRole('img', { name: /^VLAN/ })).toHaveCount(3);
  await pick(page, 'Tree 2 of the comparison', 'VLAN 120 crew');
  await page.getByRole('button', { name: 'Remove tree 3' }).click();
  await expect(page.getByText('They have the same outcome.')).toBeVisible();
  await page.getByRole('radio', { name: 'Roots' }).click();
  await page
    .getByRole('row', { name: /VLAN 160/ })
    .getByRole('gridcell', { name: /^quay-a/ })
    .click();
  await page.keyboard.press('1');
  await page.getByRole('radio', { name: 'Compare' }).click();
  await expect(page.getByRole('img', { name: 'before: root core-west' })).toBeVisible();
  await expect(page.getByRole('img', { name: 'after: root quay-a' })).toBeVisible();
  await expect(page.locator('.mini-marked').first()).toBeAttached();
});

test('a tree is worked out by hand: answers are checked and a wrong one opens its ledger', async ({
  page,
  request,
}) => {
  await openBoard(page, await freshDemo(request, 'predict'), 'predict', '&tree=vlan-110');
  await expect(page.getByRole('navigation', { name: 'Trees' })).not.toContainText('root core-east');
  await page.getByLabel('Root', { exact: true }).selectOption({ label: 'core-east' });
  await page.getByLabel('Root path cost of quay-a').fill('2 000');
  await page.getByLabel('Root port of gate').selectOption({ label: '2' });
  await page.getByLabel('Role of gate 2').selectOption({ label: 'blocked' });
  await page.getByRole('button', { name: 'Check' }).click();
  await expect(page.getByText('3 right')).toBeVisible();
  await expect(page.getByText('1 wrong')).toBeVisible();
  await page.getByRole('button', { name: 'Wrong: why' }).click();
  await expect(page.getByText(/^gate reaches the root through port 1, by quay-a/)).toBeVisible();
});

for (const theme of ['light', 'dark'] as const)
  test(`nothing on the boards that assistive technology would stumble over, ${theme} theme`, async ({
    browser,
    request,
  }) => {
    const demo = await freshDemo(request, `axe boards ${theme}`);
    const context = await browser.newContext({
      colorScheme: theme,
      viewport: { width: 1280, height: 800 },
      bypassCSP: true,
      // What is still fading in has no colour of its own yet.
      reducedMotion: 'reduce',
    });
    const page = await context.newPage();
    await openBoard(page, demo, 'roots', '&panel=goals');
    for (const [board, ready] of [
      ['Roots', '.roots'],
      ['Link use', '.load-chart'],
      ['Instances', '.advisor'],
      ['Compare', '.mini'],
      ['Predict', '.sheet'],
    ] as const) {
      await page.getByRole('radio', { name: board, exact: true }).click();
      await expect(page.locator(ready).first()).toBeVisible();
      const axe = new AxeBuilder({ page }).include('.board').include('.side');
      const { violations } = await (theme === 'light' ? axe : axe.withRules(['color-contrast'])).analyze();
      expect([board, violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])]).toEqual([board, []]);
    }
    await context.close();
  });
