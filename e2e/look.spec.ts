import AxeBuilder from '@axe-core/playwright';
import { expect } from '@playwright/test';
import { complaints, dropFiles, freshDemo, openCabling, openTrees, test } from './support';

for (const theme of ['light', 'dark'] as const)
  test(`nothing that assistive technology would stumble over, ${theme} theme`, async ({ browser, request }) => {
    const demo = await freshDemo(request, `axe ${theme}`);
    const context = await browser.newContext({
      colorScheme: theme,
      viewport: { width: 1280, height: 800 },
      bypassCSP: true,
      // What is still fading in has no colour of its own yet.
      reducedMotion: 'reduce',
    });
    const page = await context.newPage();
    await page.goto('/');
    expect(
      (await new AxeBuilder({ page }).analyze()).violations.map((v) => [v.id, v.nodes.map((n) => n.html)]),
    ).toEqual([]);
    const views = [
      '&tree=vlan-110&sel=port~gate:2',
      '&tree=vlan-199',
      '&sel=switch~quay-a&view=cabling',
      '&sel=host~ticket-desk&sel=host~ferry-server',
    ];
    // The themes differ in their colours only: the dark one is looked at for those.
    for (const query of theme === 'light' ? views : views.slice(0, 2)) {
      await openTrees(page, demo, query);
      const axe = new AxeBuilder({ page });
      const { violations } = await (theme === 'light' ? axe : axe.withRules(['color-contrast'])).analyze();
      expect(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);
    }
  });

for (const theme of ['light', 'dark'] as const)
  test(`nor in the cabling stage, its tables and its dialogs, ${theme} theme`, async ({ browser, request }) => {
    const demo = await freshDemo(request, `axe cabling ${theme}`);
    const context = await browser.newContext({
      colorScheme: theme,
      viewport: { width: 1280, height: 800 },
      bypassCSP: true,
      // What is still fading in has no colour of its own yet.
      reducedMotion: 'reduce',
    });
    const page = await context.newPage();
    /** Looks at one part of the page: the whole drawing once is enough. */
    const clean = async (part: string) => {
      const { violations } = await new AxeBuilder({ page }).include(part).analyze();
      expect(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);
    };
    await openCabling(page, demo, '&vlan=130&sel=switch~gate');
    for (const part of ['.head', '.vlan-strip', '.tools', '.plate', '.dock']) await clean(part);
    for (const tab of ['VLANs', 'Neighbour check']) {
      await page.getByRole('tab', { name: new RegExp(`^${tab}`) }).click();
      await clean('.dock');
    }
    await dropFiles(page, [
      {
        name: 'n.csv',
        text: 'switch,port,neighbour,neighbour_port\ngate,1,quay-a,4\ngate,2,quay-a,9\ngate,,quay-a,9\n',
      },
    ]);
    await expect(page.getByRole('dialog')).toContainText('1 is refused');
    await clean('[role=dialog]');
    await page.getByRole('button', { name: 'Import what fits' }).click();
    await expect(page.locator('.neighbours-sum')).toBeVisible();
    await clean('.dock');
    await page.locator('svg.chart').focus();
    await page.keyboard.press('n');
    await expect(page.getByRole('dialog', { name: 'Start from a pattern' })).toBeVisible();
    await page.waitForTimeout(300);
    await clean('[role=dialog]');
  });

test('the theme follows the system, and a choice outlives a reload', async ({ browser }) => {
  const context = await browser.newContext({ colorScheme: 'dark' });
  const page = await context.newPage();
  const errors = complaints(page);
  await page.goto('/');
  await expect(page.locator('html')).toHaveAttribute('data-dark', '');
  await page.getByRole('button', { name: /^Theme: system/ }).click();
  await expect(page.locator('html')).toHaveAttribute('data-light', '');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-light', '');
  expect(errors).toEqual([]);
});

test('the page does not scroll at 1280 × 800, in any stage and arrangement', async ({ page, request }) => {
  const demo = await freshDemo(request, 'no scroll');
  for (const view of ['depth', 'cabling', 'stage']) {
    if (view === 'stage') await openCabling(page, demo);
    else await openTrees(page, demo, `&view=${view}`);
    const { scroll, client } = await page.evaluate(() => ({
      scroll: document.documentElement.scrollHeight,
      client: window.innerHeight,
    }));
    expect(scroll).toBeLessThanOrEqual(client);
  }
});

test('a stage says what it is for when it is first opened, until it was seen or the tour is turned off', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'tour');
  await page.addInitScript(() => {
    if (localStorage.getItem('knot-path:tour') === 'off' && !sessionStorage.getItem('begun'))
      localStorage.removeItem('knot-path:tour');
    sessionStorage.setItem('begun', 'yes');
  });
  await openTrees(page, demo);
  const tour = page.getByRole('complementary', { name: 'Tour' });
  await expect(tour).toContainText('the root is on top');
  await tour.getByRole('button', { name: 'Next' }).click();
  await tour.getByRole('button', { name: 'Next' }).click();
  await tour.getByRole('button', { name: 'Done' }).click();
  await expect(tour).toBeHidden();
  await page.getByRole('link', { name: 'Bundles' }).click();
  await expect(tour).toContainText('worst bundle first');
  await tour.getByRole('button', { name: 'No tour' }).click();
  await page.reload();
  await expect(page.getByRole('heading', { name: /=/ }).first()).toBeVisible();
  await expect(tour).toBeHidden();
});
