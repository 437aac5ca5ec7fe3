import { test as base, expect } from '@playwright/test';
import type { APIRequestContext, Page } from '@playwright/test';
import type { Design } from '../src/core/design';
import { asCabled } from '../src/demo/brackwater';

/** A page that works: not the picture of it that the server sends. */
async function listens(page: Page): Promise<void> {
  await expect(page.locator('body')).toHaveAttribute('aria-busy', 'false', { timeout: 60_000 });
  await expect(page.locator('.opening')).toHaveCount(0, { timeout: 60_000 });
}

/** Asks again over a new connection when one that was kept open is closed just as it is used. */
function keptOpen(request: APIRequestContext): APIRequestContext {
  const ask = request.fetch.bind(request);
  request.fetch = (url, options) => ask(url, { maxRetries: 2, ...options });
  for (const method of ['get', 'post', 'put', 'patch', 'delete', 'head'] as const)
    request[method] = (url, options) => request.fetch(url, { ...options, method: method.toUpperCase() });
  return request;
}

/** Tests in which a page that was gone to listens already: keys and clicks before that would be lost. */
export const test = base.extend({
  request: async ({ request }, provide) => provide(keptOpen(request)),
  page: async ({ page }, provide) => {
    keptOpen(page.request);
    const [goto, reload] = [page.goto.bind(page), page.reload.bind(page)];
    page.goto = async (url, options) => {
      const response = await goto(url, options);
      if ((await page.locator('body[aria-busy]').count()) > 0) await listens(page);
      return response;
    };
    page.reload = async (options) => {
      const response = await reload(options);
      await listens(page);
      return response;
    };
    await provide(page);
  },
});

export interface Opened {
  design: string;
  variant: string;
}

/** A design of its own for a test. */
export async function freshDesign(request: APIRequestContext, name: string, design: Design): Promise<Opened> {
  const data = { name, variant: 'as cabled', design };
  const response = await request.post('/api/designs', { data });
  expect(response.status()).toBe(201);
  const head = (await response.json()) as { id: string; variants: { id: string }[] };
  return { design: head.id, variant: head.variants[0]!.id };
}

/** A design of its own for a test, as the demo is cabled. */
export const freshDemo = (request: APIRequestContext, name: string): Promise<Opened> =>
  freshDesign(request, name, asCabled());

/** Opens the trees stage and waits until the chart is drawn. */
export async function openTrees(page: Page, { design, variant }: Opened, query = ''): Promise<void> {
  await page.goto(`/d/${design}/trees?variant=${variant}${query}`);
  await listens(page);
  await expect(page.locator('svg.chart')).toBeVisible();
}

/** Opens the cabling stage and waits until the drawing is there. */
export async function openCabling(page: Page, { design, variant }: Opened, query = ''): Promise<void> {
  await page.goto(`/d/${design}/cabling?variant=${variant}${query}`);
  await expect(page.locator('svg.chart')).toBeVisible();
  await expect(page.getByRole('grid')).toBeVisible();
}

/** The document of a variant as the server has it. */
export async function stored(request: APIRequestContext, { variant }: Opened): Promise<Design> {
  return ((await (await request.get(`/api/variants/${variant}`)).json()) as { design: Design }).design;
}

/** Drops files on the page as a file manager would. */
export async function dropFiles(page: Page, files: { name: string; text: string }[]): Promise<void> {
  const transfer = await page.evaluateHandle((list) => {
    const data = new DataTransfer();
    for (const { name, text } of list) data.items.add(new File([text], name));
    return data;
  }, files);
  // The page may not listen yet when its text is there already.
  await expect(async () => {
    await page.dispatchEvent('body', 'dragover', { dataTransfer: transfer });
    await expect(page.locator('.drop-here')).toBeVisible({ timeout: 500 });
  }).toPass();
  await page.dispatchEvent('body', 'drop', { dataTransfer: transfer });
}

/** Puts text on the clipboard of the page and pastes it where the focus is. */
export async function paste(page: Page, text: string): Promise<void> {
  await page.evaluate((content) => {
    const data = new DataTransfer();
    data.setData('text/plain', content);
    const target = document.activeElement ?? document.body;
    target.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, text);
}

export const saved = (page: Page) => expect(page.getByRole('status', { name: 'State of saving' })).toHaveText('saved');

/** Picks a value from one of the select fields of the panel. */
export async function pick(page: Page, field: string, value: string): Promise<void> {
  await page.getByRole('combobox', { name: field, exact: true }).click();
  const option = page.getByRole('option', { name: value, exact: true });
  await option.click();
  // A list that is still opening takes no click: then it stays open, and is asked again.
  await expect(async () => {
    if (await option.isVisible()) await option.click({ timeout: 1000 });
    await expect(option).toBeHidden({ timeout: 1000 });
  }).toPass({ timeout: 20_000 });
}

/** Everything that a page complained of: errors thrown, and what the console shows as an error. */
export function complaints(page: Page): string[] {
  const list: string[] = [];
  page.on('pageerror', (error) => list.push(error.message));
  page.on('console', (message) => {
    if (message.type() === 'error' && !message.text().startsWith('Failed to load resource')) list.push(message.text());
  });
  page.on('response', (response) => {
    if (response.status() >= 400) list.push(`${response.status()} ${response.url()}`);
  });
  return list;
}
