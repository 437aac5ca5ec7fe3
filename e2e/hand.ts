/** A hand that counts what it does: a click, a key, a text typed into a field, a drag and a paste are one action each. */
import { expect } from '@playwright/test';
import type { Locator, Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { paste } from './support';

export interface Spot {
  readonly x: number;
  readonly y: number;
}

export async function middleOf(locator: Locator): Promise<Spot> {
  const box = (await locator.boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

export async function dragTo(page: Page, from: Spot, to: Spot): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
}

export class Hand {
  actions = 0;
  constructor(private readonly page: Page) {}

  async click(locator: Locator, options: Parameters<Locator['click']>[0] = {}): Promise<void> {
    this.actions++;
    await locator.click(options);
  }

  async press(key: string): Promise<void> {
    this.actions++;
    await this.page.keyboard.press(key);
  }

  async type(locator: Locator, text: string): Promise<void> {
    this.actions++;
    await locator.fill(text);
  }

  /** One of the words of a list that the page has from the browser. */
  async choose(locator: Locator, label: string): Promise<void> {
    this.actions++;
    await locator.selectOption({ label });
  }

  /** One of the words of a list of our own: it is opened, and the word is picked. */
  async pick(field: string, value: string): Promise<void> {
    await this.click(this.page.getByRole('combobox', { name: field, exact: true }));
    await this.click(this.page.getByRole('option', { name: value, exact: true }));
  }

  async paste(text: string): Promise<void> {
    this.actions++;
    await paste(this.page, text);
  }

  async doubleClick({ x, y }: Spot): Promise<void> {
    this.actions++;
    await this.page.mouse.dblclick(x, y);
  }

  async drag(from: Spot, to: Spot): Promise<void> {
    this.actions++;
    await dragTo(this.page, from, to);
  }

  /** The task is done, in as many actions as docs/tasks.md says. */
  done(task: number): void {
    const text = readFileSync(path.join(__dirname, '../docs/tasks.md'), 'utf8');
    const row = text.split('\n').find((line) => new RegExp(`^\\| +${task} `).test(line));
    const said = Number(row?.split('|').at(-2));
    expect(this.actions, `actions of task ${task}`).toBe(said);
  }
}
