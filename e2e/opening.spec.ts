/** What is seen of a design before the page works: a picture by the server, in the same places. */
import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { freshDemo, openCabling, openTrees, test } from './support';

/** Places of all plates and tags of hosts in the window, by their ids. */
const places = (page: Page) =>
  page.locator('svg.chart').evaluate((chart) =>
    Object.fromEntries(
      [...chart.querySelectorAll('.plate, .spot')].map((element) => {
        const { x, y, width, height } = element.querySelector('.sheet, .tag')!.getBoundingClientRect();
        return [element.getAttribute('data-id')!, [x, y, width, height]] as const;
      }),
    ),
  );

const OPENS = { trees: openTrees, cabling: openCabling } as const;

for (const stage of ['trees', 'cabling'] as const)
  test(`the ${stage} of a design are drawn without any script, where they are drawn with it`, async ({
    browser,
    page,
    request,
  }) => {
    const demo = await freshDemo(request, `picture of the ${stage}`);
    const plain = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
    const window = { width: 1280, height: 800 };
    await plain.setViewportSize(window);
    await page.setViewportSize(window);
    await plain.goto(`/d/${demo.design}/${stage}?variant=${demo.variant}`);
    await expect(plain.locator('.plate')).toHaveCount(10);
    await expect(plain.getByText('cold-store').first()).toBeVisible();
    await expect(plain.locator('.knot').first()).toBeVisible({ visible: stage === 'trees' });
    const complaints: string[] = [];
    page.on('console', (message) => message.type() === 'error' && complaints.push(message.text()));
    page.on('pageerror', (error) => complaints.push(error.message));
    await OPENS[stage](page, demo);
    const [seen, works] = [await places(plain), await places(page)];
    expect(Object.keys(seen)).toEqual(Object.keys(works));
    for (const [id, box] of Object.entries(seen))
      box.forEach((n, i) => expect(Math.abs(n - works[id]![i]!), `${id} ${i}`).toBeLessThan(3));
    expect(complaints).toEqual([]);
  });

/** Keeps the script of lists to choose from back; gives how to let it through. */
async function withoutLists(page: Page): Promise<() => void> {
  let letThrough = () => {};
  const held = new Promise<void>((resolve) => (letThrough = resolve));
  await page.route('**/*.js', async (route) => {
    const response = await route.fetch();
    const body = await response.text();
    // The script itself: others only name it.
    if (body.split('MuiAutocomplete').length > 8) await held;
    await route.fulfill({ response, body });
  });
  return letThrough;
}

test('what is typed into the search before its list is there is kept, and so is the Enter', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'typed ahead');
  const letThrough = await withoutLists(page);
  await openTrees(page, demo);
  await page.keyboard.press('Control+k');
  const field = page.getByRole('dialog').getByRole('textbox');
  await expect(field).toBeFocused();
  await page.keyboard.type('cold');
  await expect(field).toHaveValue('cold');
  letThrough();
  const search = page.getByRole('dialog').getByRole('combobox');
  await expect(search).toBeFocused();
  await page.keyboard.type('-st');
  await expect(search).toHaveValue('cold-st');
  await page.keyboard.press('Enter');
  const panel = page.getByRole('complementary', { name: 'Selection' });
  await expect(panel).toContainText('cold-store');
  await page.unrouteAll({ behavior: 'ignoreErrors' });

  const again = await withoutLists(page);
  await page.reload();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('workshop');
  await expect(field).toHaveValue('workshop');
  await page.keyboard.press('Enter');
  again();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(panel.getByRole('heading', { name: 'workshop' })).toBeVisible();
  await page.unrouteAll({ behavior: 'ignoreErrors' });
});

test('a path asked for before its fields are there leads to them when they are', async ({ page, request }) => {
  const demo = await freshDemo(request, 'asked ahead');
  const letThrough = await withoutLists(page);
  await openTrees(page, demo);
  await page.keyboard.press('p');
  await expect(page.getByLabel('Path from')).toBeDisabled();
  letThrough();
  await expect(page.getByLabel('Path from')).toBeFocused();
  await page.unrouteAll({ behavior: 'ignoreErrors' });
});
