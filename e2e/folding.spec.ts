import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { campus } from '../src/demo/campus';
import { complaints, freshDesign, openTrees, stored, test } from './support';

/** Four buildings of 25; in the third the first uplink of a closet costs more than those of its neighbours. */
function design() {
  const made = campus({ switches: 102, vlans: 6, outcomes: 3 });
  const odd = made.switches.find((s) => s.name === 'b03-acc-14')!;
  // Priorities that settle who is next, so that no building is open for that.
  made.switches.find((s) => s.name === 'core-1')!.priority = 4096;
  made.switches.find((s) => s.name === 'core-2')!.priority = 8192;
  made.ports.find((p) => p.switch === odd.id)!.cost = 200_000;
  return made;
}

const plate = (page: Page, name: string | RegExp) =>
  page.locator('svg.chart .plate').and(page.getByRole('button', { name }));
const plates = (page: Page) => page.locator('svg.chart .plate');

test('a large tree is folded until it can be read, opens at a click, and what differs stands out', async ({
  page,
  request,
}) => {
  const errors = complaints(page);
  const opened = await freshDesign(request, 'folded', design());
  await openTrees(page, opened);
  const tools = page.getByRole('radiogroup', { name: 'Fold' });
  await expect(tools).toContainText(/102 switches on \d plates/);
  await expect(plate(page, 'b03')).toContainText('differs inside');
  await expect(plate(page, 'b01-acc')).toHaveCount(0);

  await page.getByRole('button', { name: /^b03, folded/ }).click();
  await expect(plate(page, 'b03-dist-a')).toBeVisible();
  await expect(plate(page, 'b03-acc × 22')).toBeVisible();
  await expect(plate(page, 'b03-acc-14')).toContainText('other root port');
  await tools.getByRole('button', { name: 'fold in' }).click();
  await expect(plate(page, 'b03-dist-a')).toHaveCount(0);

  await tools.getByRole('radio', { name: 'none' }).click();
  await expect(plates(page)).toHaveCount(102);
  await expect(page).toHaveURL(/fold=none/);
  await page.reload();
  await expect(plates(page)).toHaveCount(102);
  expect(errors).toEqual([]);
});

test('what search finds comes out of its fold, says in what it differs, and is made like the others', async ({
  page,
  request,
}) => {
  const opened = await freshDesign(request, 'found', design());
  await openTrees(page, opened);
  await expect(plate(page, 'b03-acc-14')).toHaveCount(0);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox').fill('b03-acc-14');
  await page.keyboard.press('Enter');
  await expect(plate(page, 'b03-acc-14')).toBeVisible();
  const unlike = page.getByRole('region', { name: 'Unlike the others' });
  await expect(unlike.getByRole('row', { name: /root port/ })).toContainText('12');
  await expect(unlike.getByRole('row', { name: /port 1: cost/ })).toContainText('200000');
  await unlike.getByRole('button', { name: 'Make it like the others' }).click();
  await expect(unlike).toHaveCount(0);
  const odd = (d: ReturnType<typeof design>) =>
    d.ports.find((p) => p.switch === d.switches.find((s) => s.name === 'b03-acc-14')!.id)!;
  await expect.poll(async () => odd(await stored(request, opened)).cost).toBeUndefined();
  await page.keyboard.press('Control+z');
  await expect(unlike).toBeVisible();
});

test('folds are opened by key, and several of their switches are set at once', async ({ page, request }) => {
  const opened = await freshDesign(request, 'keys', design());
  await openTrees(page, opened, '&fold=alike');
  const fold = page.getByRole('button', { name: /^b01-acc × 23, 23 switches alike/ });
  await fold.click({ modifiers: ['Control'] });
  await expect(page.getByRole('heading', { name: '23 selected' })).toBeVisible();
  await expect(plate(page, 'b01-acc × 23')).toHaveAttribute('aria-pressed', 'true');
  await fold.focus();
  await page.keyboard.press('Enter');
  await expect(plate(page, 'b01-acc-07')).toBeVisible();
});

test('an overview stands in the corner while part of the drawing is out of sight', async ({ page, request }) => {
  const opened = await freshDesign(request, 'overview', design());
  await openTrees(page, opened, '&fold=none');
  const overview = page.getByTestId('overview');
  await expect(overview).toBeHidden();
  const chart = page.locator('svg.chart');
  await chart.focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press('+');
  await expect(overview).toBeVisible();
  await page.keyboard.press('f');
  await expect(overview).toBeHidden();
});

test('zooming into a fold opens it and shows what was in it', async ({ page, request }) => {
  const opened = await freshDesign(request, 'zoomed', design());
  await openTrees(page, opened);
  const box = (await page.getByRole('button', { name: /^b02, folded/ }).boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  for (let i = 0; i < 4; i++) await page.mouse.wheel(0, -120);
  await expect(plate(page, 'b02-dist-a')).toBeInViewport();
  await expect(plate(page, 'b02-acc × 23')).toBeInViewport();
  await expect(page.getByRole('radiogroup', { name: 'Fold' }).getByRole('button', { name: 'fold in' })).toBeVisible();
});

test('a group is made by hand of what is selected, and folds to one plate', async ({ page, request }) => {
  const opened = await freshDesign(request, 'grouped', design());
  const ids = design()
    .switches.filter((s) => /^b01-acc-0[1-4]$/.test(s.name))
    .map((s) => `&sel=switch~${s.id}`);
  await openTrees(page, opened, `&fold=none${ids.join('')}`);
  await expect(page.getByRole('heading', { name: '4 selected' })).toBeVisible();
  const field = page.getByLabel('Group', { exact: true });
  await expect(field).toHaveAttribute('placeholder', 'b01, as found');
  await field.fill('north hall');
  await field.press('Enter');
  await page.keyboard.press('Escape');
  await page.locator('svg.chart').focus();
  await page.keyboard.press('Escape');
  await page.getByRole('radiogroup', { name: 'Fold' }).getByRole('radio', { name: 'groups', exact: true }).click();
  await expect(page.getByRole('button', { name: /^north hall, folded, 4 switches/ })).toBeVisible();
});

test('an edit in a large design reaches the drawing, the panel and the strip', async ({ page, request }) => {
  const opened = await freshDesign(request, 'seen by all', design());
  await openTrees(page, opened, '&sel=switch~core-2');
  const panel = page.getByRole('complementary', { name: 'Selection' });
  await expect(panel).toContainText('core-2');
  const strip = page.getByRole('navigation', { name: 'Trees' });
  await expect(strip.locator('[aria-current]')).toContainText('root core-1');
  for (const [key, root] of [
    ['r', 'core-2'],
    ['Control+z', 'core-1'],
  ] as const) {
    await page.keyboard.press(key);
    await expect(page.getByRole('button', { name: new RegExp(`^${root}, root`) })).toBeAttached();
    await expect(strip.locator('[aria-current]')).toContainText(`root ${root}`);
    await expect(panel).toContainText(root === 'core-2' ? 'core-2 is root' : 'core-2 reaches the root');
  }
});
