/** Figures of the cabling stage at full size: frames while the drawing is moved, zoomed and worked on; a pasted table. */
import type { Page } from '@playwright/test';
import { campus } from '../src/demo/campus';
import { portById, switchById } from '../src/core/design';
import type { Design } from '../src/core/design';
import type { Row } from './core';

/** Gaps between frames in milliseconds, and the long tasks, while something is done. */
async function frames(page: Page, run: () => Promise<void>): Promise<{ gaps: number[]; longest: number }> {
  await page.evaluate(() => {
    const w = window as unknown as { gaps: number[]; tasks: number[]; running: boolean; watcher?: PerformanceObserver };
    w.gaps = [];
    w.tasks = [];
    w.running = true;
    w.watcher = new PerformanceObserver((list) => w.tasks.push(...list.getEntries().map((e) => e.duration)));
    w.watcher.observe({ entryTypes: ['longtask'] });
    let last = performance.now();
    const tick = (now: number) => {
      w.gaps.push(now - last);
      last = now;
      if (w.running) requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  await run();
  return page.evaluate(() => {
    const w = window as unknown as { gaps: number[]; tasks: number[]; running: boolean; watcher: PerformanceObserver };
    w.running = false;
    w.watcher.disconnect();
    return { gaps: w.gaps.slice(2), longest: Math.max(0, ...w.tasks) };
  });
}

const sorted = (list: readonly number[]) => [...list].sort((a, b) => a - b);
const at = (list: readonly number[], share: number) =>
  sorted(list)[Math.min(list.length - 1, Math.floor(list.length * share))]!;

function frameRows(what: string, size: string, { gaps, longest }: { gaps: number[]; longest: number }): Row[] {
  const row = (name: string, medianMs: number, worstMs: number, aim = '') => ({
    what: name,
    size,
    medianMs,
    worstMs,
    runs: gaps.length,
    aim,
  });
  return [
    row(`${what}: frame time`, at(gaps, 0.5), at(gaps, 0.95), '17 ms'),
    row(`${what}: longest task, longest frame`, longest, Math.max(...gaps)),
  ];
}

const STEPS = 60;

async function pan(page: Page): Promise<void> {
  await page.mouse.move(640, 150);
  await page.mouse.down();
  for (let i = 0; i < STEPS; i++) {
    await page.mouse.move(640 + 180 * Math.sin(i / 6), 150 + 60 * Math.sin(i / 9));
    await page.waitForTimeout(16);
  }
  await page.mouse.up();
}
async function zoom(page: Page): Promise<void> {
  await page.mouse.move(640, 350);
  for (let i = 0; i < STEPS; i++) {
    await page.mouse.wheel(0, i % 30 < 15 ? -60 : 60);
    await page.waitForTimeout(16);
  }
}
async function drag(page: Page): Promise<void> {
  const box = (await page.locator('.plate[data-id]').nth(1).locator('.sheet').boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 0; i < STEPS; i++) {
    await page.mouse.move(x + 120 * Math.sin(i / 6), y + 50 * Math.sin(i / 9));
    await page.waitForTimeout(16);
  }
  await page.mouse.up();
}

/** The links of a design as a spreadsheet has them. */
function linkRows(design: Design): string {
  const end = (e: Design['links'][number]['a']) => {
    const port = 'port' in e ? portById(design, e.port)! : null;
    return port ? [switchById(design, port.switch)!.name, port.name] : ['', ''];
  };
  const rows = design.links.map((l) =>
    [...end(l.a), ...end(l.b), 'port' in l.a ? portById(design, l.a.port)!.speed : ''].join('\t'),
  );
  return ['A: switch\tA: port\tB: switch\tB: port\tMb/s', ...rows].join('\n');
}

const create = async (base: string, name: string, design: Design): Promise<string> => {
  const response = await fetch(`${base}/api/designs`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name, design }),
  });
  return ((await response.json()) as { id: string }).id;
};

export async function scaleRows(page: Page, base: string): Promise<Row[]> {
  const whole = campus({ switches: 500, vlans: 1000, outcomes: 40 });
  const size = `${whole.switches.length} switches, ${whole.links.length} links`;
  const rows: Row[] = [];
  const id = await create(base, 'campus to be cabled', whole);
  for (const near of [false, true]) {
    await page.goto(`${base}/d/${id}/cabling`);
    await page.waitForSelector('.bench:not([inert] *) svg.chart .plate');
    await page.waitForTimeout(1500);
    if (near) {
      await page.mouse.move(640, 350);
      for (let i = 0; i < 12; i++) await page.mouse.wheel(0, -120);
      await page.waitForTimeout(1500);
    }
    const sight = near ? 'near' : 'all in sight';
    rows.push(...frameRows(`pan, ${sight}`, size, await frames(page, () => pan(page))));
    if (!near) rows.push(...frameRows(`drag a switch, ${sight}`, size, await frames(page, () => drag(page))));
    rows.push(...frameRows(`zoom, ${sight}`, size, await frames(page, () => zoom(page))));
  }
  const bare = await create(base, 'campus without cables', { ...whole, ports: [], links: [], bundles: [] });
  await page.goto(`${base}/d/${bare}/cabling`);
  await page.waitForSelector('[role=grid]');
  await page.waitForTimeout(1500);
  const time = await page.evaluate(async (text) => {
    const grid = document.querySelector<HTMLElement>('[role=grid]')!;
    grid.focus();
    await new Promise((resolve) => setTimeout(resolve, 100));
    const data = new DataTransfer();
    data.setData('text/plain', text);
    const start = performance.now();
    grid.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve, 0)));
    return performance.now() - start;
  }, linkRows(whole));
  const count = await page.locator('[role=grid]').getAttribute('aria-rowcount');
  if (count !== String(whole.links.length + 2))
    throw new Error(`scaleRows: ${count} rows instead of ${whole.links.length}`);
  rows.push({
    what: `paste a table of ${whole.links.length} links, to redrawn chart`,
    size,
    medianMs: time,
    worstMs: time,
    runs: 1,
    aim: '2000 ms',
  });
  return rows;
}
