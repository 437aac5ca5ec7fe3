/** Windows of a real browser against a server that dies and comes back, and twelve windows at once. */
import path from 'node:path';
import { chromium } from '@playwright/test';
import type { Browser, Page } from '@playwright/test';
import { BROWSER, BROWSER_ARGS } from '../scripts/browser-args.mjs';
import { asCabled } from '../src/demo/brackwater';
import { call, folderOf, pause, startServer } from './server';
import type { Head, Server } from './server';
import type { Row } from './row';

const state = (page: Page) => page.locator('[aria-label="State of saving"]');

async function openWindow(browser: Browser, server: Server, head: Head): Promise<Page> {
  const page = await (
    await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' })
  ).newPage();
  await page.goto(`${server.base}/d/${head.id}/trees?variant=${head.variants[0]!.id}&tree=vlan-199&sel=switch~gate`);
  await page.locator('.bench:not([inert] *) svg.chart').waitFor();
  return page;
}

/** Presses a key that changes the design: the selected switch fails, or is restored. */
const change = (page: Page) => page.locator('body').press('x');

/** Two windows change different switches while the server is killed; in the end both show what is stored. */
export async function dyingServer(rounds: number): Promise<Row> {
  const { dir, remove } = folderOf('windows');
  const file = path.join(dir, 'db.sqlite');
  let server = await startServer(file);
  const { value: head } = await call<Head>(server.base, 'POST', '/api/designs', { name: 'dying', design: asCabled() });
  const browser = await chromium.launch({ executablePath: BROWSER, args: BROWSER_ARGS });
  const one = await openWindow(browser, server, head);
  const two = await openWindow(browser, server, head);
  await two.goto(two.url().replace('gate', 'crane-yard'));
  await two.locator('.bench:not([inert] *) svg.chart').waitFor();
  let [made, bad] = [0, 0];
  for (let i = 0; i < rounds; i++) {
    await Promise.all([change(one), change(two)]);
    await server.kill();
    await Promise.all([change(one), change(two)]);
    made += 4;
    server = await startServer(file, {}, server.port);
    const until = performance.now() + 40_000;
    for (;;) {
      const words = await Promise.all([one, two].map((p) => state(p).textContent()));
      if (words.every((w) => w === 'saved')) break;
      if (performance.now() > until) {
        bad++;
        break;
      }
      await pause(50);
    }
    if ((i + 1) % 20 === 0) process.stderr.write(`  ${i + 1} rounds, ${bad} bad\n`);
  }
  const { value } = await call<{ revision: number; design: { switches: { id: string; off?: boolean }[] } }>(
    server.base,
    'GET',
    `/api/variants/${head.variants[0]!.id}`,
  );
  // Every switch was failed and restored equally often: none may be off.
  const off = value.design.switches.filter((s) => s.off).length;
  await browser.close();
  await server.kill();
  remove();
  return {
    what: 'two windows while the server dies',
    runs: `${rounds} rounds, ${made} changes`,
    result: `${value.revision} stored, ${made - value.revision} lost, ${bad} rounds not saved after 40 s`,
    good: value.revision === made && off === 0 && bad === 0,
  };
}
