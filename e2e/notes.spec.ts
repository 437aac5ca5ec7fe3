import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { dragTo, middleOf } from './hand';
import { freshDemo, openCabling, openTrees, saved, stored, test } from './support';

const plate = (page: Page, id: string) => page.locator(`.plate[data-id="${id}"]`);
const words = (page: Page, text: string) => page.getByRole('note', { name: text });
async function write(page: Page, text: string, layer = ''): Promise<void> {
  await page.getByLabel('Words of the note').fill(text);
  await page.getByLabel('Layer').fill(layer);
  await page.getByRole('button', { name: 'Write', exact: true }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

test('the note tool writes at a switch, draws a box on the sheet and a distance between two switches', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'note-tool');
  await openCabling(page, demo);
  const known = (await stored(request, demo)).notes.length;
  await page.keyboard.press('e');
  await plate(page, 'cold-store').locator('.sheet').click();
  await expect(page.getByText('About cold-store.')).toBeVisible();
  await write(page, 'Ladder needed', 'access');
  const box = (await page.locator('svg.chart').boundingBox())!;
  await dragTo(page, { x: box.x + 40, y: box.y + 30 }, { x: box.x + 200, y: box.y + 120 });
  await write(page, 'Spare racks');
  await dragTo(
    page,
    await middleOf(plate(page, 'gate').locator('.sheet')),
    await middleOf(plate(page, 'crane-yard').locator('.sheet')),
  );
  await write(page, '90 m');
  await saved(page);
  const notes = (await stored(request, demo)).notes.slice(known);
  expect(notes).toMatchObject([
    { text: 'Ladder needed', layer: 'access', about: ['cold-store'] },
    { text: 'Spare racks', form: 'box', about: [] },
    { text: '90 m', form: 'distance', about: ['gate', 'crane-yard'] },
  ]);
  await page.keyboard.press('v');
  const before = await middleOf(words(page, 'Ladder needed').locator('.words'));
  await dragTo(page, before, { x: before.x + 60, y: before.y - 20 });
  await saved(page);
  expect((await stored(request, demo)).notes[known]!.x).toBeGreaterThan(30);
  await page.keyboard.press('Control+z');
  await saved(page);
  expect((await stored(request, demo)).notes[known]!.x).toBeUndefined();
});

test('a note is written about what is selected, changed, and deleted with what it is about', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'note-about');
  await openTrees(page, demo, '&tree=vlan-110&sel=switch~workshop');
  await page.keyboard.press('o');
  await write(page, 'Two fuses');
  await expect(words(page, 'Two fuses')).toBeVisible();
  await page.getByRole('button', { name: 'Change…' }).click();
  await page.getByLabel('Words of the note').fill('Three fuses');
  await page.keyboard.press('Control+Enter');
  await expect(words(page, 'Three fuses')).toBeVisible();
  // Search finds it by its words.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox').fill('three fuses');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/sel=note/);
  await page.getByRole('button', { name: 'workshop', exact: true }).click();
  await openCabling(page, demo, '&sel=switch~workshop');
  await page.keyboard.press('Delete');
  await expect(words(page, 'Three fuses')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(words(page, 'Three fuses')).toBeVisible();
});

test('layers of notes are shown and hidden, on the drawing and in its picture', async ({ page, request }) => {
  const demo = await freshDemo(request, 'note-layers');
  await openTrees(page, demo, '&tree=vlan-110&view=cabling');
  await expect(words(page, 'Operations house, first floor')).toBeVisible();
  await page.getByRole('button', { name: 'Notes' }).click();
  await page.getByRole('menuitemcheckbox', { name: /buildings/ }).click();
  await expect(page.getByRole('menuitemcheckbox', { name: /buildings/ })).toHaveAttribute('aria-checked', 'false');
  await page.keyboard.press('Escape');
  await expect(words(page, 'Operations house, first floor')).toHaveCount(0);
  await page.getByRole('button', { name: /^Variant/ }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Export: Drawing (SVG)' }).click();
  const svg = readFileSync(await (await download).path(), 'utf8');
  expect(svg).toContain('Key with the port office');
  expect(svg).not.toContain('Operations house');
});

test('a printed sheet says what it shows, light and without tools', async ({ page, request }, info) => {
  const demo = await freshDemo(request, 'printed');
  await page.emulateMedia({ colorScheme: 'dark' });
  await openTrees(page, demo, '&tree=vlan-110');
  await expect(page.locator('svg.chart .plate')).toHaveCount(10);
  const pdf = info.outputPath('sheet.pdf');
  await page.pdf({ path: pdf, landscape: true, printBackground: true });
  const text = execFileSync('pdftotext', ['-layout', pdf, '-']).toString();
  expect(text).toMatch(/printed · as cabled · Trees · VLAN 110 ticketing/);
  expect(text).toContain('core-east');
  expect(text).toContain('Key with the port office');
  expect(text).not.toContain('Rehearsal');
  expect(text.split('\f').filter((sheet) => sheet.trim() !== '')).toHaveLength(1);
  await expect(page.locator('svg.chart')).not.toHaveAttribute('viewBox');
});
