import { expect } from '@playwright/test';
import type { APIRequestContext, Page } from '@playwright/test';
import { asCabled } from '../src/demo/brackwater';

export interface Opened {
  design: string;
  variant: string;
}

/** A design of its own for a test, as the demo is cabled. */
export async function freshDemo(request: APIRequestContext, name: string): Promise<Opened> {
  const response = await request.post('/api/designs', { data: { name, variant: 'as cabled', design: asCabled() } });
  expect(response.status()).toBe(201);
  const head = (await response.json()) as { id: string; variants: { id: string }[] };
  return { design: head.id, variant: head.variants[0]!.id };
}

/** Opens the trees stage and waits until the chart is drawn. */
export async function openTrees(page: Page, { design, variant }: Opened, query = ''): Promise<void> {
  await page.goto(`/d/${design}/trees?variant=${variant}${query}`);
  await expect(page.locator('svg.chart')).toBeVisible();
}

export const saved = (page: Page) => expect(page.getByRole('status', { name: 'State of saving' })).toHaveText('saved');

/** Picks a value from one of the select fields of the panel. */
export async function pick(page: Page, field: string, value: string): Promise<void> {
  await page.getByRole('combobox', { name: field, exact: true }).click();
  await page.getByRole('option', { name: value, exact: true }).click();
}

/** Everything that a page complained of: errors thrown, and what the console shows as an error. */
export function complaints(page: Page): string[] {
  const list: string[] = [];
  page.on('pageerror', (error) => list.push(error.message));
  page.on('console', (message) => {
    if (message.type() === 'error') list.push(message.text());
  });
  return list;
}
