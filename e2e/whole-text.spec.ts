import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { complaints, test } from './support';

/** What shows that a sentence was put together wrongly: code, or a value that is missing. */
const BROKEN = /\$\{|\{[a-z]+ (===|\?)|\bundefined\b|\bNaN\b|\[object|\bnull\b|\bInfinity\b/;

const VIEWS = [
  'cabling?',
  'cabling?vlan=130&',
  'trees?tree=vlan-130&sel=port~gate:2&',
  'trees?tree=vlan-110&sel=switch~quay-a&',
  'trees?tree=vlan-110&sel=host~ticket-desk&sel=host~ferry-server&',
  'trees?panel=goals&',
  ...['roots', 'link-use', 'instances', 'compare', 'predict'].map((board) => `trees?board=${board}&`),
  'bundles?',
  'bundles?sel=bundle~quay-b:lag102&',
  'rehearsal?',
];

/** All that the page shows or says to those who do not see it. */
const textOf = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const labels = [...document.querySelectorAll('[aria-label], [title], [placeholder]')].flatMap((e) =>
      ['aria-label', 'title', 'placeholder'].map((name) => e.getAttribute(name) ?? ''),
    );
    const drawn = [...document.querySelectorAll('svg text, svg title')].map((e) => e.textContent);
    return [document.body.innerText, ...labels, ...drawn].join('\n');
  });

for (const [index, variant] of ['as cabled', 'as meant', 'core as a pair'].entries())
  test(`every view of “${variant}” shows whole sentences`, async ({ page, request }) => {
    const errors = complaints(page);
    const { designs } = (await (await request.get('/api/designs')).json()) as {
      designs: { id: string; name: string; variants: { id: string; name: string }[] }[];
    };
    const demo = designs.find((d) => d.name === 'Brackwater Ferries')!;
    expect(demo.variants[index]!.name).toBe(variant);
    for (const view of VIEWS) {
      await page.goto(`/d/${demo.id}/${view}variant=${demo.variants[index]!.id}`);
      await expect(page.locator('main, .stage, svg.chart, table').first()).toBeVisible();
      await expect(page.getByRole('progressbar')).toHaveCount(0);
      const lines = (await textOf(page)).split('\n');
      expect(
        lines.filter((line) => BROKEN.test(line)),
        view,
      ).toEqual([]);
    }
    expect(errors).toEqual([]);
  });
