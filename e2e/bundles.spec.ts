import AxeBuilder from '@axe-core/playwright';
import { expect } from '@playwright/test';
import { asCabled, asMeant } from '../src/demo/brackwater';
import { complaints, freshDemo, freshDesign, openCabling, pick, saved, stored, test } from './support';

test('two parallel cables are bundled, the ends are set, and the verdict says what becomes of them', async ({
  page,
  request,
}) => {
  const errors = complaints(page);
  const design = asCabled();
  const vlans = '110,120,130,140,150,160,199';
  for (const at of ['quay-a', 'quay-b'])
    design.ports.push({ id: `${at}:13`, switch: at, name: '13', number: 13, speed: 1000, vlans });
  design.links.push({ id: 'second', a: { port: 'quay-a:13' }, b: { port: 'quay-b:13' } });
  const response = await request.post('/api/designs', {
    data: { name: 'bundles', variant: 'v', design },
  });
  const head = await response.json();
  const demo = { design: head.id as string, variant: head.variants[0].id as string };
  await page.goto(`/d/${demo.design}/bundles?variant=${demo.variant}`);
  // The bundle with most trouble comes first.
  await expect(page.getByRole('heading', { name: 'quay-b = cold-store: up' })).toBeVisible();
  await page.getByRole('radio', { name: 'All settings' }).click();
  await expect(page.getByRole('row', { name: /Down: nothing is plugged in/ })).toBeVisible();
  await page.getByRole('button', { name: /^core-east = core-west/ }).click();
  await expect(page.getByText('The ends agree. 2 of 2 members are active.')).toBeVisible();

  await page.getByRole('button', { name: 'Bundle', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'quay-a = quay-b: up' })).toBeVisible();
  await pick(page, 'Negotiation at quay-a', 'passive: waits for the partner');
  await pick(page, 'Negotiation at quay-b', 'passive: waits for the partner');
  await expect(page.locator('.sentence', { hasText: 'Both ends are passive, so LACP never starts' })).toBeVisible();
  await pick(page, 'Kind at quay-a', 'static, no negotiation');
  await expect(page.getByRole('heading', { name: 'quay-a = quay-b: up at one end only' })).toBeVisible();
  await expect(page.locator('.sentence', { hasText: 'spanning tree does not detect it' })).toBeVisible();
  await pick(page, 'Kind at quay-a', 'LACP');
  await pick(page, 'Negotiation at quay-a', 'active: starts it');
  const near = page.getByRole('region', { name: 'End at quay-a' });
  await near.getByLabel('maximum links').fill('9');
  await near.getByLabel('maximum links').press('Enter');
  await expect(page.getByText('The maximum of active members 9 is not legal')).toBeVisible();
  await near.getByLabel('maximum links').fill('1');
  await near.getByLabel('maximum links').press('Enter');
  await expect(page.getByRole('row', { name: /^13/ })).toContainText('standby');
  await page.getByLabel("port priority of '13' of quay-a").fill('1');
  await page.getByLabel("port priority of '13' of quay-a").press('Enter');
  await expect(page.getByRole('row', { name: /^12/ })).toContainText('standby');
  await page.getByText('What the two ends send each other').click();
  await expect(page.getByRole('row', { name: /^quay-a 13/ }).last()).toContainText(
    'activity, aggregation, synchronization, collecting, distributing',
  );
  await page.getByRole('radio', { name: 'Distribution' }).click();
  const shared = page.getByRole('region', { name: 'Distribution at quay-a' });
  await expect(shared).toContainText('one conversation, at most1 000 Mb/s'.replace(' ', '\u00a0'));
  await shared.getByLabel('vlan').check();
  await shared.getByLabel('hosts').fill('100');
  await expect(shared).toContainText('of 200');
  await saved(page);
  expect((await stored(request, demo)).bundles.at(-2)?.hash).toEqual(['src-mac', 'dst-mac', 'vlan']);
  expect((await stored(request, demo)).bundles.at(-2)).toMatchObject({ switch: 'quay-a', maxActive: 1 });
  const { violations } = await new AxeBuilder({ page }).include('.bundles').analyze();
  expect(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);

  await page.getByRole('link', { name: 'Trees' }).click();
  await expect(page.getByRole('region', { name: 'Bundle to-quay-b' })).toContainText('standby');
  await page.getByRole('link', { name: 'Bundles' }).click();
  await page.getByRole('button', { name: 'Split' }).click();
  await expect(page.getByText('Parallel, not bundled')).toBeVisible();
  await page.goto(`/d/${demo.design}/trees?variant=${demo.variant}&sel=link~second&sel=link~quay-a:12--quay-b:12`);
  await expect(page.locator('svg.chart')).toBeVisible();
  await page.keyboard.press('j');
  await expect(page.getByRole('heading', { name: /quay-a · bundle to-quay-b/ })).toBeVisible();
  expect(errors).toEqual([]);
});

test('two switches become a pair, the bundle of a third ends on both, and the report says what differs', async ({
  page,
  request,
}) => {
  const errors = complaints(page);
  const response = await request.post('/api/designs', {
    data: { name: 'pair', variant: 'v', design: asMeant() },
  });
  const head = await response.json();
  const demo = { design: head.id as string, variant: head.variants[0].id as string };
  await page.goto(`/d/${demo.design}/bundles?variant=${demo.variant}`);
  await page.getByLabel('primary', { exact: true }).selectOption('core-east');
  await page.getByLabel('second', { exact: true }).selectOption('core-west');
  await page.getByRole('button', { name: 'Make a pair' }).click();
  await expect(page.getByRole('heading', { name: 'core-east + core-west: one bridge' })).toBeVisible();
  await expect(page.getByRole('row', { name: /^keepalive none/ })).toContainText('each switch acts as the only one');
  await page.getByRole('region', { name: 'Roles' }).getByLabel('domain').fill('2000');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Domain 2000 is not legal: a whole number from 1 to 1000.')).toBeVisible();
  await page.keyboard.press('Escape');
  // The next page would else begin with the network from before the pair.
  await saved(page);

  const cables = ['core-east:3--quay-a:1', 'core-west:4--quay-a:2'].map((id) => `&sel=link~${id}`).join('');
  await page.goto(`/d/${demo.design}/trees?variant=${demo.variant}${cables}`);
  await expect(page.locator('svg.chart')).toBeVisible();
  await page.keyboard.press('j');
  await saved(page);
  expect((await stored(request, demo)).bundles.slice(-3).map((b) => b.shared)).toEqual([undefined, 1, 1]);
  await page.getByRole('link', { name: 'Bundles' }).click();
  await expect(page.getByRole('heading', { name: /quay-a = core-east \+ core-west: up/ })).toBeVisible();
  await page.getByRole('radio', { name: 'All settings' }).click();
  await page.getByRole('region', { name: 'End at core-west' }).getByLabel('maximum links').fill('4');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^core-east \+ core-west domain 1/ }).click();
  await expect(page.getByRole('row', { name: /bundle 1, maximum links 8 4/ })).toContainText(
    'to the partner they are one end',
  );
  const { violations } = await new AxeBuilder({ page }).include('.bundles').analyze();
  expect(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);
  expect(errors).toEqual([]);
});

test('options for two parallel cables are compared, and the change steps are there to copy', async ({
  page,
  request,
}) => {
  const response = await request.post('/api/designs', {
    data: { name: 'options', variant: 'v', design: asMeant() },
  });
  const head = await response.json();
  const demo = { design: head.id as string, variant: head.variants[0].id as string };
  await page.goto(`/d/${demo.design}/bundles?variant=${demo.variant}&sel=bundle~quay-b:lag102`);
  await page.getByRole('radio', { name: 'Trees and capacity' }).click();
  await expect(page.getByRole('region', { name: 'With one member down' })).toContainText('10\u00a0000 before');
  await page.getByRole('radio', { name: 'Change steps' }).click();
  await expect(page.getByRole('row', { name: /^4 both ends Bring up ports 9/ })).toContainText(
    'Spanning tree blocks cold-store 2 in every tree.',
  );
  await page.getByRole('radio', { name: 'Compare options' }).click();
  await expect(page.getByRole('row', { name: /^trees over the first/ })).toContainText('7, 04, 37, 7');
  await page.getByRole('button', { name: 'Preview: VLANs split between them' }).click();
  await expect(page.getByText('Two links: VLANs split between them')).toBeVisible();
  await expect(page.locator('svg.chart')).toBeVisible();
});

test('a bundle is drawn as it is cabled, set where its values stand, and shown as it would be', async ({
  page,
  request,
}) => {
  const errors = complaints(page);
  const design = asMeant();
  design.bundles.find((b) => b.id === 'core-west:lag101')!.timeout = 'short';
  const demo = await freshDesign(request, 'drawn', design);
  await page.goto(`/d/${demo.design}/bundles?variant=${demo.variant}&sel=bundle~core-east:lag101`);
  const drawing = page.getByRole('group', { name: 'Drawing of the bundle' });
  const members = drawing.getByRole('list', { name: 'Members as they are cabled' }).getByRole('listitem');
  await expect(members).toHaveText([/port 1active.*10G.*port 1active/, /port 2active.*10G.*port 2active/]);
  await expect(drawing.getByRole('region', { name: 'core-west in the drawing' })).toContainText('timeout ≠');
  await drawing.getByRole('button', { name: 'make alike: 1 setting' }).click();
  await expect(drawing).not.toContainText('≠');

  const lost = page.getByRole('region', { name: 'What if: one link lost' });
  await expect(lost.getByRole('row', { name: /^capacity/ })).toContainText(/20\s000 → 10\s000/);
  await lost.getByRole('button', { name: 'Show on the drawing' }).click();
  await expect(members.first()).toContainText('down');
  await expect(page.getByText('Previewed: one link lost. Nothing is changed.')).toBeVisible();
  await lost.getByRole('button', { name: 'Back to as it is' }).click();
  await expect(members.first()).not.toContainText('down');

  const near = drawing.getByRole('region', { name: 'core-east in the drawing' });
  await near.getByLabel('Negotiation of core-east in the drawing').selectOption({ label: 'LACP passive: waits' });
  await drawing.getByLabel('Negotiation of core-west in the drawing').selectOption({ label: 'LACP passive: waits' });
  await expect(page.getByRole('heading', { name: 'core-east = core-west: never comes up' })).toBeVisible();
  await saved(page);
  expect((await stored(request, demo)).bundles.map((b) => b.activity)).toEqual([
    'passive',
    'passive',
    undefined,
    undefined,
  ]);
  const { violations } = await new AxeBuilder({ page }).include('.bundles').analyze();
  expect(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);
  expect(errors).toEqual([]);
});

test('one end is taken out of its configuration and made again; members are seen over time', async ({
  page,
  request,
}) => {
  const demo = await freshDesign(request, 'one end', asMeant());
  await page.goto(`/d/${demo.design}/bundles?variant=${demo.variant}`);
  await page.getByRole('button', { name: /^core-east = core-west/ }).click();
  await page.getByLabel('Maximum links of core-east in the drawing').fill('1');
  await page.getByLabel('Maximum links of core-east in the drawing').press('Enter');
  await expect(page.locator('.sentence', { hasText: '1 of 2 members' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await page.getByLabel('Negotiation of core-west in the drawing').selectOption('none');
  await expect(page.getByRole('region', { name: 'The other end' })).toContainText('not configured');
  await saved(page);
  expect((await stored(request, demo)).bundles.filter((b) => b.switch === 'core-west')).toEqual([]);
  await page.getByRole('button', { name: 'make a bundle of them' }).click();
  await expect(page.getByRole('heading', { name: 'core-east = core-west: up' })).toBeVisible();
  await page.getByRole('radio', { name: 'Over time' }).click();
  const bars = page.getByRole('img', { name: 'When each member carries' });
  await expect(bars.locator('rect').first()).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: /joins at \d+\.\d+ s and leaves at 14/ })).toBeVisible();
});

test('cables that are unlike are offered to be made alike, or those of them that are', async ({ page, request }) => {
  const demo = await freshDemo(request, 'offers');
  await openCabling(page, demo, '&sel=switch~quay-a&sel=switch~gate');
  await page.keyboard.press('l');
  await saved(page);
  const { links } = await stored(request, demo);
  await openCabling(page, demo, `&sel=link~quay-a:4--gate:1&sel=link~${links.at(-1)!.id}`);
  await page.keyboard.press('j');
  const said = page.getByRole('alert').filter({ hasText: 'VLANs' });
  await said.getByRole('button', { name: 'Make all 2 alike and bundle them' }).click();
  await saved(page);
  const after = await stored(request, demo);
  const made = after.bundles.filter((b) => b.switch === 'gate');
  expect(made).toHaveLength(1);
  expect(made[0]!.members).toHaveLength(2);
  await page.keyboard.press('Control+z');
  await saved(page);
  expect((await stored(request, demo)).bundles.filter((b) => b.switch === 'gate')).toHaveLength(0);
});
