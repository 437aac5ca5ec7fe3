/** Settings of field equipment at ports, switches and bundles, and lists of neighbours in folders. */
import { expect } from '@playwright/test';
import { copyFileSync, mkdirSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { freshDemo, openCabling, openTrees, saved, stored, test } from './support';

test('a silence guard at one end blocks the link, says why, and what it needs', async ({ page, request }) => {
  const demo = await freshDemo(request, 'silence');
  await openTrees(page, demo, '&tree=vlan-110&sel=port~quay-a:4');
  await page.getByLabel("silence guard at '4' of quay-a").check();
  await expect(page.locator('.why .sentence').first()).toContainText('held back: its silence guard receives no BPDUs');
  await expect(page.getByLabel('Selection').getByRole('note').first()).toContainText('needs to be set at both ends');
  await page.getByLabel("silence guard at '1' of gate").check();
  await expect(page.locator('.why .sentence').first()).not.toContainText('silence guard');
  await expect(page.getByLabel('Selection').getByRole('note')).toHaveCount(0);
  await saved(page);
  const set = (await stored(request, demo)).ports.filter((p) => p.silenceGuard).map((p) => p.id);
  expect(set.sort()).toEqual(['gate:1', 'quay-a:4']);
});

test('what a switch gives its edge ports is in force there, and a port can say otherwise', async ({
  page,
  request,
}) => {
  const demo = await freshDemo(request, 'edge');
  await openTrees(page, demo, '&tree=vlan-130&sel=switch~gate');
  await page.getByText('Edge ports, recovery, age step').click();
  await page.getByLabel('BPDU filter at every edge port, yielding').check();
  const recovery = page.getByLabel('from BPDU guard, s');
  await recovery.fill('5');
  await recovery.press('Enter');
  await expect(page.getByText('Recovery after 5 is not legal').first()).toBeVisible();
  await recovery.fill('45');
  await recovery.press('Enter');
  await saved(page);
  await openTrees(page, demo, '&tree=vlan-130&sel=port~gate:10');
  const edge = page.getByLabel("edge at '10' of gate", { exact: true });
  if (!(await edge.isChecked())) await edge.check();
  const filter = page.getByLabel("BPDU filter at '10' of gate");
  await expect(filter).toBeChecked();
  await filter.uncheck();
  await expect(filter).not.toBeChecked();
  await saved(page);
  const now = await stored(request, demo);
  expect(now.ports.find((p) => p.id === 'gate:10')!.bpduFilter).toBe(false);
  expect(now.switches.find((s) => s.id === 'gate')).toMatchObject({ edgeFilter: true, guardRecovery: 45 });
});

test('a folder of lists, one folder a switch, is read with each list under the name of its folder', async ({
  page,
  request,
}) => {
  const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-lldp-'));
  for (const name of ['quay-1', 'quay-2', 'dock-3']) {
    mkdirSync(path.join(folder, name));
    copyFileSync(path.join(__dirname, `../tests/fixtures/lldp/${name}.json`), path.join(folder, name, 'lldp.json'));
  }
  await openCabling(page, await freshDemo(request, 'folders'));
  await page.keyboard.press('i');
  const dialog = page.getByRole('dialog', { name: 'Import files' });
  await dialog.getByLabel('Folder').setInputFiles(folder);
  for (const name of ['quay-1', 'quay-2', 'dock-3']) await expect(dialog).toContainText(`${name}/lldp.json`);
  await dialog.getByRole('button', { name: 'Import' }).click();
  await expect(page.locator('.neighbours-sum')).toContainText('3 switches report');
});
