import { expect } from '@playwright/test';
import { complaints, freshDemo, openTrees, pick, saved, test } from './support';

const strip = '[aria-label="Trees"]';

test('the strip folds trees of one outcome and names a root by MAC address only', async ({ page, request }) => {
  const errors = complaints(page);
  await openTrees(page, await freshDemo(request, 'strip'));
  await expect(page.locator(`${strip} .strip-item`)).toHaveCount(5);
  await expect(page.locator(`${strip} .strip-item`).first()).toContainText('110 ticketing');
  await expect(page.locator(`${strip} .strip-item`).first()).toContainText('120 crew');
  await expect(page.locator(strip)).toContainText('root workshop, by MAC address only');
  expect(errors).toEqual([]);
});

test('a priority makes a switch root, the drawing follows, and undo brings all back even after a reload', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'priority');
  await openTrees(page, demo, '&tree=vlan-199&sel=switch~core-west');
  await expect(page.locator('.why .sentence').first()).toContainText('core-west reaches the root');
  await pick(page, 'Bridge priority', '4096');
  await expect(page.getByLabel('What the last change moved')).toContainText('root workshop → core-west');
  await expect(page.getByLabel('What the last change moved')).toContainText('6 of 7 trees stay');
  await expect(page.getByRole('button', { name: /^core-west, root, priority 4096/ })).toBeAttached();
  await expect(page.locator('.why .sentence').first()).toContainText('its priority 4096 is the lowest');
  await saved(page);
  await page.reload();
  await expect(page.getByRole('button', { name: /^core-west, root, priority 4096/ })).toBeAttached();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('button', { name: /^workshop, root by MAC address only/ })).toBeAttached();
  await page.keyboard.press('Control+Shift+Z');
  await expect(page.getByRole('button', { name: /^core-west, root, priority 4096/ })).toBeAttached();
});

test('a cost at the receiving end moves a cut, and an illegal one is refused with the nearest legal value', async ({
  page,
  request,
}) => {
  await openTrees(page, await freshDemo(request, 'cost'), '&tree=vlan-110&sel=port~gate:2');
  await expect(page.locator('.why .sentence').first()).toHaveText(
    /^Blocked: the far end reaches the root at 2\s000, this end at 22\s000\.$/,
  );
  const cost = page.getByLabel('Cost of gate 2', { exact: true });
  await cost.fill('0');
  await cost.press('Enter');
  await expect(page.getByText('0 is not a legal cost: a whole number from 1 to')).toBeVisible();
  await expect(page.getByText('the nearest is 1.')).toBeVisible();
  await cost.fill('500');
  await cost.press('Enter');
  await expect(page.getByLabel('What the last change moved')).toContainText('gate 2 A → R');
  await expect(page.getByLabel('What the last change moved')).toContainText('gate 1 R → A');
  await expect(page.locator('.ends')).toContainText('set for this VLAN');
  await saved(page);
});

test('a setting can be for some VLANs or all trees, and says so', async ({ page, request }) => {
  const demo = await freshDemo(request, 'scope');
  await openTrees(page, demo, '&tree=vlan-110&sel=switch~gate');
  await page.getByRole('radio', { name: 'some VLANs' }).click();
  const vlans = page.getByLabel('VLANs that settings are for');
  await vlans.fill('110-12x');
  await expect(page.getByText("'110-12x' is not a VLAN")).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Bridge priority' })).toBeDisabled();
  await vlans.fill('110-120');
  await pick(page, 'Bridge priority', '0');
  await expect(page.getByLabel('What the last change moved')).toContainText('Priority of gate for VLANs 110,120: 0');
  await page.getByRole('radio', { name: 'all trees' }).click();
  await pick(page, 'Bridge priority', '61440');
  await saved(page);
  const { design } = await (await request.get(`/api/variants/${demo.variant}`)).json();
  const gate = design.switches.find((s: { name: string }) => s.name === 'gate');
  expect(gate.priority).toBe(61440);
  expect(gate.vlanPriority).toBeUndefined();
});

test('a press that opens a list and rests chooses nothing; one that is pulled to a line chooses it', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'press');
  await openTrees(page, demo, '&tree=vlan-110&sel=switch~gate');
  const priority = page.getByRole('combobox', { name: 'Bridge priority' });
  const before = await priority.textContent();
  await priority.hover();
  await page.mouse.down();
  await expect(page.getByRole('listbox')).toBeVisible();
  // As long as a slow machine may take to draw the list under the pointer.
  await page.waitForTimeout(700);
  await page.mouse.up();
  await expect(page.getByRole('listbox')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('listbox')).toBeHidden();
  await expect(priority).toHaveText(before!);
  await priority.hover();
  await page.mouse.down();
  await expect(page.getByRole('listbox')).toBeVisible();
  await page.waitForTimeout(700);
  await page.getByRole('option', { name: '16384', exact: true }).hover();
  await page.mouse.up();
  await expect(priority).toHaveText('16384');
});

test('a path between two hosts is listed hop by hop with its cost, and drawn', async ({ page, request }) => {
  await openTrees(page, await freshDemo(request, 'path'), '&tree=vlan-110');
  await page.keyboard.press('p');
  await expect(page.getByLabel('Path from')).toBeFocused();
  await page.getByLabel('Path from').fill('ticket-desk');
  await expect(page.getByRole('option', { name: 'ticket-desk' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.getByLabel('Path to').fill('ferry');
  await expect(page.getByRole('option', { name: 'ferry-server' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'ticket-desk to ferry-server' })).toBeVisible();
  const rows = page.locator('.rows tbody tr');
  await expect(rows).toHaveCount(3);
  await expect(rows.nth(1)).toContainText('quay-a');
  await expect(page.locator('.facts')).toContainText(/22\s000/);
  await expect(page.locator('.plate.on-path')).toHaveCount(3);
});

test('two switches selected show what they have in common; their path is asked for', async ({ page, request }) => {
  await openTrees(page, await freshDemo(request, 'shift'), '&tree=vlan-110&view=cabling');
  await page.locator('.plate[data-id="gate"]').click();
  await page.locator('.plate[data-id="core-west"]').click({ modifiers: ['Shift'] });
  await expect(page.getByRole('heading', { name: '2 selected' })).toBeVisible();
  await expect(page.getByLabel('Bridge priority of 2 switches')).toBeVisible();
  await page.keyboard.press('p');
  await expect(page.getByRole('heading', { name: 'gate to core-west' })).toBeVisible();
  await expect(page).toHaveURL(/path=1/);
  await page.locator('.plate[data-id="quay-a"]').click({ modifiers: ['Shift'] });
  await page.locator('.plate[data-id="core-west"]').click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Path between them' }).click();
  await expect(page.getByRole('heading', { name: 'gate to quay-a' })).toBeVisible();
});

test('keys go through trees, fail and restore a link, and open the search', async ({ page, request }) => {
  await openTrees(page, await freshDemo(request, 'keys'), '&tree=vlan-110&sel=port~ticket-hall:1');
  await page.keyboard.press('x');
  await expect(page.getByLabel('What the last change moved')).toContainText('ticket-hall 2 A → R');
  await expect(page.locator('.wire-down').first()).toBeAttached();
  await page.keyboard.press('x');
  await expect(page.getByLabel('What the last change moved')).toContainText('ticket-hall 2 R → A');
  await page.keyboard.press(']');
  await expect(page).toHaveURL(/tree=vlan-120/);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('workshop');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'workshop' })).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.getByRole('button', { name: /^workshop, root, priority/ })).toBeAttached();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: /^core-east, root, priority/ })).toBeAttached();
});

test('depth moves a switch down when its cost grows', async ({ page, request }) => {
  await page.emulateMedia({ reducedMotion: 'no-preference' });
  await openTrees(page, await freshDemo(request, 'depth'), '&tree=vlan-110&sel=port~cold-store:1');
  const ruler = page.locator('.ruler text');
  await expect(ruler).toHaveText(['0', /1\s000/, /2\s000/, /22\s000/, /42\s000/]);
  const cost = page.getByLabel('Cost of cold-store to-quay-b', { exact: true });
  await cost.fill('90000');
  await cost.press('Enter');
  await expect(ruler).toHaveText(['0', /1\s000/, /2\s000/, /22\s000/, /42\s000/, /92\s000/]);
});

test('arrow keys walk from switch to switch', async ({ page, request }) => {
  await openTrees(page, await freshDemo(request, 'arrows'), '&tree=vlan-110&view=cabling&sel=switch~core-east');
  await page.locator('svg.chart').focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('heading', { name: 'core-west' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'quay-b' })).toBeVisible();
});

test('one tree for all, classic or rapid, and the 16-bit scale are a choice of the design; a cost that does not fit is refused', async ({
  page,
  request,
}) => {
  await openTrees(page, await freshDemo(request, 'modes'));
  await pick(page, 'Spanning tree', 'STP, one tree for all VLANs');
  await expect(page.locator(strip)).toContainText('all VLANs');
  await expect(page.locator(`${strip} .strip-item`)).toHaveCount(1);
  await expect(page.locator('.panel > p').first()).toContainText('STP, one tree for all VLANs');
  await pick(page, 'Cost scale', '16-bit (1 Gb/s is 4)');
  await expect(page.locator('.notice-alarm')).toContainText("port '1' of signal-tower: Port path cost 200000");
  await expect(page.locator('.notice-alarm')).toContainText('from 1 to 65535 on the 16-bit scale');
  await page.goto(page.url().replace(/\?/, '?sel=port~signal-tower:1&'));
  const cost = page.getByLabel('Cost of signal-tower 1', { exact: true });
  await cost.fill('');
  await cost.press('Enter');
  await page.keyboard.press('Escape');
  await saved(page);
  await page.locator('svg.chart').focus();
  await page.keyboard.press('Escape');
  await pick(page, 'Cost scale', '16-bit (1 Gb/s is 4)');
  await expect(page.locator('.ruler text').nth(1)).toHaveText('4');
});

test('what moved is shown since an earlier state, and every command is in the menu', async ({ page, request }) => {
  const demo = await freshDemo(request, 'since');
  await openTrees(page, demo, '&tree=vlan-110&sel=switch~core-west');
  await page.keyboard.press('r');
  await expect(page.getByLabel('What the last change moved')).toContainText('root core-east → core-west');
  await page.locator('.plate[data-id="gate"]').click();
  await page.keyboard.press('x');
  await expect(page.getByLabel('What the last change moved')).toContainText('Fail gate');
  await saved(page);
  await page.getByLabel('What the last change moved').getByRole('button', { name: 'since…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: /As it was made/ }).click();
  await dialog.getByRole('button', { name: 'What moved since' }).click();
  await expect(page.getByLabel('What the last change moved')).toContainText('Since state 0');
  await expect(page.getByLabel('What the last change moved')).toContainText('root core-east → core-west');
  await page.getByRole('button', { name: 'last change' }).click();
  await expect(page.getByLabel('What the last change moved')).toContainText('Fail gate');

  await page.getByRole('button', { name: /^Menu/ }).click();
  await expect(page.getByRole('menuitem', { name: /Bundle the selected cables\s*J/ })).toBeVisible();
  await page.getByRole('menuitem', { name: /Arrange as cabled/ }).click();
  await expect(page).toHaveURL(/view=cabling/);
});
