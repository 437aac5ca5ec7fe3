import { createSocket } from 'node:dgram';
import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect } from '@playwright/test';
import { alikeAt, pcapng, portWords } from '../src/core/trace';
import { rehearse } from '../src/core/simulation';
import { StandIn } from '../src/server/snmp/stand-in';
import { asMeant } from '../src/demo/brackwater';
import { complaints, freshDemo, freshDesign, saved, stored, test } from './support';
import type { Page } from '@playwright/test';

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const socket = createSocket('udp4').bind(0, '127.0.0.1', () => {
      const { port } = socket.address();
      socket.close(() => resolve(port));
    });
  });

/** The demo as it is meant, running, with an agent a switch. */
async function running(): Promise<{ network: StandIn; address: string }> {
  const network = new StandIn(asMeant(), {
    port: await freePort(),
    speed: 5,
    credentials: [{ version: '2c', community: 'harbour' }],
  });
  await network.start();
  const [first] = network.switches as [StandIn['switches'][number]];
  return { network, address: `${first.address}:${first.port}` };
}

async function ask(page: Page, address: string, community = 'harbour'): Promise<void> {
  await page.getByRole('button', { name: 'Ask devices…' }).click();
  await page.getByLabel(/^Addresses/).fill(address);
  await page.getByLabel('Community (v2c)').fill(community);
  await page.getByRole('button', { name: 'Ask', exact: true }).click();
}

test('devices are asked from one address on; a difference is accepted, and what was read becomes a variant', async ({
  page,
  request,
}) => {
  const errors = complaints(page);
  const demo = await freshDemo(request, 'asked');
  const { network, address } = await running();
  try {
    await page.goto(`/d/${demo.design}/as-built?variant=${demo.variant}`);
    await expect(page.getByRole('heading', { name: 'The network that is there is not read yet' })).toBeVisible();
    await page.getByRole('button', { name: 'Ask devices…' }).click();
    await page.getByRole('button', { name: 'Ask', exact: true }).click();
    await expect(page.getByRole('alert')).toContainText('Write the address of a device');
    await page.getByLabel(/^Addresses/).fill(address);
    await page.getByLabel('Community (v2c)').fill('harbour');
    await page.getByLabel('Hops at most').fill('far');
    await page.getByRole('button', { name: 'Ask', exact: true }).click();
    await expect(page.getByRole('alert')).toContainText('Hops at most: write a whole number from 0 to 64.');
    await page.getByRole('button', { name: 'Cancel' }).click();
    await ask(page, address);
    await expect(page.getByText(/10 switches read/)).toBeVisible();
    const row = page.getByRole('row', { name: /^quay-a differs priority in VLANs 110, 120, 130 32768 16384/ });
    await row.getByRole('button', { name: 'Accept' }).click();
    await expect(row).toHaveCount(0);
    await saved(page);
    expect((await stored(request, demo)).switches.find((s) => s.name === 'quay-a')?.vlanPriority).toMatchObject({
      110: 16384,
    });
    await page
      .getByRole('row', { name: /cold-store 2 – quay-b 9 unexpected link/ })
      .getByRole('button', { name: 'Accept' })
      .click();
    await saved(page);
    const { violations } = await new AxeBuilder({ page }).include('main').analyze();
    expect(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);
    await page.reload();
    await expect(page.getByText(/10 switches read/)).toBeVisible();
    await page.getByRole('button', { name: 'Draw as a variant' }).click();
    await expect(page.getByText('Variant As built is the network as it was read')).toBeVisible();
    await expect(page.getByText('The network is as designed in everything that was read.')).toBeVisible();
    expect(errors).toEqual([]);
  } finally {
    network.stop();
  }
});

test('a watch notes a link that fails, and a wrong community gets a sentence', async ({ page, request }) => {
  const demo = await freshDesign(request, 'watched', asMeant());
  const { network, address } = await running();
  try {
    await page.goto(`/d/${demo.design}/as-built?variant=${demo.variant}`);
    await ask(page, address, 'not-this-one');
    await expect(page.getByRole('alert').filter({ hasText: 'No answer came from' })).toBeVisible();
    await ask(page, address);
    await expect(page.getByText('The network is as designed in everything that was read.')).toBeVisible();
    await page.getByLabel('watch').selectOption('5');
    const link = asMeant().links.find((l) => l.id === 'quay-a:4--gate:1')!;
    network.happen({ id: 'e', at: 0, kind: 'link-down', link: link.id });
    await page.getByRole('radio', { name: /^Changes/ }).click();
    await expect(page.getByText('The link gate 1 – quay-a 4 is gone.')).toBeVisible({ timeout: 60_000 });
    await expect(page.getByText(/Port gate 2 is root/)).toBeVisible();
  } finally {
    network.stop();
  }
});

test('a capture is read, with its events over time; a file that cannot be read says why', async ({ page, request }) => {
  const design = asMeant();
  const demo = await freshDesign(request, 'captured', design);
  const trace = rehearse(design, {
    id: 'x',
    name: 'x',
    until: 30,
    probes: [],
    events: [{ id: 'e', at: 8, kind: 'switch-off', switch: 'core-east' }],
  });
  const frames = pcapng(trace.frames, {
    names: (p) => portWords(design, p),
    alike: alikeAt(design, trace),
    of: 'every-vlan',
  });
  await page.goto(`/d/${demo.design}/as-built?variant=${demo.variant}`);
  await page.getByLabel('Files that devices wrote').setInputFiles([
    { name: 'wire.pcapng', mimeType: 'application/octet-stream', buffer: Buffer.from(frames) },
    { name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('dear colleague') },
  ]);
  await page.getByRole('radio', { name: 'Over time' }).click();
  const strip = page.getByRole('slider', { name: 'Events over time' });
  await expect(strip).toContainText('core-west');
  const root = page.getByRole('button', { name: /names core-west as root/ }).first();
  await root.click();
  // The frame that says it, field by field, and by keys to what happens next.
  const fields = page.getByRole('region', { name: 'The frame that says it' });
  await expect(fields.getByRole('row', { name: /root/i }).first()).toBeVisible();
  await strip.focus();
  const before = await strip.getAttribute('aria-valuetext');
  await page.keyboard.press('ArrowRight');
  await expect(strip).not.toHaveAttribute('aria-valuetext', before!);
  await page.getByRole('radio', { name: 'Sources' }).click();
  await expect(page.getByText(/notes.txt is none of what can be read/)).toBeVisible();
});

test('a design runs as a network on the server: it is read, watched, and a link fails by hand', async ({
  page,
  request,
}) => {
  const errors = complaints(page);
  const demo = await freshDesign(request, 'running', asMeant());
  const link = 'quay-a:4--gate:1';
  await page.goto(`/d/${demo.design}/as-built?variant=${demo.variant}&sel=link~${link}`);
  await page.getByRole('button', { name: 'Run as a network…' }).click();
  await page.getByRole('menuitem', { name: 'Twenty times as fast' }).click();
  await expect(page.getByText(/Runs as a network: 10 agents from 127\.20\.0\.1/)).toBeVisible();
  await expect(page.getByText('The network is as designed in everything that was read.')).toBeVisible();
  await expect(page.getByLabel('watch')).toHaveValue('5');
  await page.getByRole('button', { name: 'Let fail: quay-a 4 – gate 1' }).click();
  await page.getByRole('radio', { name: /^Changes/ }).click();
  await expect(page.getByText('The link gate 1 – quay-a 4 is gone.')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Bring back: quay-a 4 – gate 1' }).click();
  await expect(page.getByText('The link gate 1 – quay-a 4 is there.')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Stop the network' }).click();
  await expect(page.getByText(/Runs as a network/)).toHaveCount(0);
  // What the watch read last stays in the design, and is a plan from there to the design.
  await page.getByLabel('watch').selectOption('');
  await saved(page);
  expect((await stored(request, demo)).readings).toHaveLength(1);
  expect(errors).toEqual([]);
});

test('what differs becomes a report, and a plan that puts the network right', async ({ page, request }) => {
  const demo = await freshDesign(request, 'put right', asMeant());
  const lists = 'switch,port,neighbour,neighbour_port\ngate,1,quay-a,4\ngate,2,quay-b,5\n';
  await page.goto(`/d/${demo.design}/as-built?variant=${demo.variant}`);
  await page
    .getByLabel('Files that devices wrote')
    .setInputFiles({ name: 'neighbours.csv', mimeType: 'text/csv', buffer: Buffer.from(lists) });
  await expect(page.getByRole('row', { name: /gate 2 – quay-b 5 differs link/ })).toBeVisible();
  await page.getByRole('button', { name: 'Report…' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Markdown' }).click();
  const text = readFileSync(await (await download).path(), 'utf8');
  expect(text).toContain('| differs: link |');
  await page.getByRole('button', { name: 'Plan the change…' }).click();
  await expect(page.getByRole('combobox', { name: /^from/ })).toHaveValue('as-built');
  await expect(page.getByText('cable at gate 2, far end').first()).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('button', { name: 'Work sheet…' })).toBeVisible({ timeout: 60_000 });
});
