/** Figures of the interface in headless Chromium: from an edit to the redrawn chart, against the production build. */
import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium } from '@playwright/test';
import type { Browser, Page } from '@playwright/test';
import { BROWSER, BROWSER_ARGS } from '../scripts/browser-args.mjs';
import { campus } from '../src/demo/campus';
import type { Row } from './core';
import { scaleRows } from './scale';

const PORT = 4191;
const BASE = `http://127.0.0.1:${PORT}`;
const ROUNDS = 15;
const COLD_ROUNDS = 5;
/** Not in the picture of the page that the server sends. */
const LIVE_CHART = '.bench:not([inert] *) svg.chart .plate';

async function serve(): Promise<() => void> {
  const env = {
    ...process.env,
    PORT: String(PORT),
    KNOT_PATH_DB: path.join(mkdtempSync(path.join(tmpdir(), 'knot-path-bench-')), 'bench.sqlite'),
  };
  const child = spawn(process.execPath, ['scripts/start.mjs'], { env, stdio: 'ignore', detached: true });
  for (let i = 0; i < 300; i++) {
    if (
      await fetch(`${BASE}/api/designs`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return () => process.kill(-child.pid!, 'SIGTERM');
    await new Promise((resolve) => setTimeout(resolve, 1000));
  }
  throw new Error('serve: the server did not come up');
}

/** Milliseconds from a key press to the first frame that was painted after it. */
const pressToPaint = (page: Page, key: string, ctrl = false) =>
  page.evaluate(
    async ([k, c]) => {
      const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
      const pause = () => new Promise((resolve) => setTimeout(resolve, 0));
      await pause();
      const start = performance.now();
      window.dispatchEvent(new KeyboardEvent('keydown', { key: k, ctrlKey: c, bubbles: true }));
      // A task queued in a frame runs when that frame has been laid out and painted.
      await frame();
      await pause();
      return performance.now() - start;
    },
    [key, ctrl] as const,
  );

const settled = (page: Page) =>
  page
    .waitForFunction(() => document.querySelector('[aria-label="State of saving"]')?.textContent === 'saved')
    .then(() => page.waitForTimeout(700));

async function stage(page: Page, switches: number, vlans: number, outcomes: number): Promise<Row[]> {
  const response = await fetch(`${BASE}/api/designs`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: `campus ${switches}`, design: campus({ switches, vlans, outcomes }) }),
  });
  const { id } = (await response.json()) as { id: string };
  const size = `${switches} switches, ${vlans} VLANs`;
  const rows: Row[] = [];
  for (const arrangement of ['depth', 'cabling']) {
    await page.goto(`${BASE}/d/${id}/trees?view=${arrangement}&sel=switch~core-2`);
    await page.waitForSelector(LIVE_CHART);
    await page.waitForTimeout(1500);
    const times: number[] = [];
    for (let round = 0; round < ROUNDS; round++) {
      times.push(await pressToPaint(page, 'x'));
      await settled(page);
    }
    times.sort((a, b) => a - b);
    const aim = { 200: '50 ms', 500: '100 ms' }[switches] ?? '';
    rows.push({
      what: `switch failed or restored, to redrawn chart, ${arrangement}`,
      size,
      medianMs: times[ROUNDS >> 1]!,
      worstMs: times.at(-1)!,
      runs: ROUNDS,
      aim,
    });
    const made: number[] = [];
    for (let round = 0; round < ROUNDS; round++) {
      made.push(round % 2 === 0 ? await pressToPaint(page, 'r') : await pressToPaint(page, 'z', true));
      await settled(page);
    }
    const edits = made.filter((_, i) => i % 2 === 0).sort((a, b) => a - b);
    rows.push({
      what: `root moved, to redrawn chart, ${arrangement}`,
      size,
      medianMs: edits[edits.length >> 1]!,
      worstMs: edits.at(-1)!,
      runs: edits.length,
      aim,
    });
  }
  return rows;
}

/**
 * From the address to the first chart of the demo with nothing in the browser's store, as it is seen and as it works, and
 * how much script that takes.
 */
async function coldLoad(browser: Browser): Promise<Row[]> {
  const { designs } = (await (await fetch(`${BASE}/api/designs`)).json()) as {
    designs: { id: string; name: string }[];
  };
  const demo = designs.find((d) => d.name === 'Brackwater Ferries')!;
  const [seen, works]: [number[], number[]] = [[], []];
  let script = 0;
  for (let round = 0; round < COLD_ROUNDS; round++) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await page.addInitScript(noteFirstChart);
    const start = performance.now();
    await page.goto(`${BASE}/d/${demo.id}/trees`, { waitUntil: 'commit' });
    await page.waitForSelector(LIVE_CHART);
    works.push(performance.now() - start);
    seen.push(await page.evaluate(() => (window as { firstChart?: number }).firstChart!));
    script = await page.evaluate(() =>
      performance
        .getEntriesByType('resource')
        .filter((e) => e.name.includes('.js'))
        .reduce((sum, e) => sum + (e as PerformanceResourceTiming).encodedBodySize, 0),
    );
    await context.close();
  }
  const row = (what: string, size: string, times: number[], aim: string): Row => {
    times.sort((a, b) => a - b);
    return { what, size, medianMs: times[COLD_ROUNDS >> 1]!, worstMs: times.at(-1)!, runs: COLD_ROUNDS, aim };
  };
  return [
    row('first chart of the demo is seen, nothing cached', 'a picture by the server', seen, '1 s'),
    row(
      'first chart of the demo works, nothing cached',
      `${Math.round(script / 1000)} kB of script (aim 450)`,
      works,
      '',
    ),
  ];
}

/** In the page: when the first frame with plates has been painted, since the navigation began. */
function noteFirstChart(): void {
  const look = (): void => {
    if (!document.querySelector('svg.chart .plate')) return void requestAnimationFrame(look);
    // The frame in which they are drawn is on the screen when the next one begins.
    requestAnimationFrame(() => ((window as { firstChart?: number }).firstChart = performance.now()));
  };
  requestAnimationFrame(look);
}

async function stages(page: Page): Promise<Row[]> {
  return [
    ...(await stage(page, 50, 100, 6)),
    ...(await stage(page, 200, 400, 18)),
    ...(await stage(page, 500, 1000, 40)),
  ];
}

export async function browserRows(): Promise<Row[]> {
  const stop = await serve();
  const browser = await chromium.launch({ executablePath: BROWSER, args: BROWSER_ARGS });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    // The loader of this file marks functions by name; inside the page there is no one to do it.
    await page.addInitScript('globalThis.__name = (f) => f');
    const charts = process.argv.includes('--scale') ? [] : [...(await coldLoad(browser)), ...(await stages(page))];
    return process.argv.includes('--charts') ? charts : [...(await scaleRows(page, BASE)), ...charts];
  } finally {
    await browser.close();
    stop();
  }
}
