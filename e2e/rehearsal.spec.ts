import AxeBuilder from '@axe-core/playwright';
import { expect } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { asMeant } from '../src/demo/brackwater';
import { complaints, saved, stored, test } from './support';

test('a script is made by pointing at the chart, and time is scrubbed, searched and exported', async ({
  page,
  request,
}) => {
  const errors = complaints(page);
  const response = await request.post('/api/designs', {
    data: { name: 'rehearsal', variant: 'v', design: { ...asMeant(), scripts: [] } },
  });
  const head = await response.json();
  const opened = { design: head.id as string, variant: head.variants[0].id as string };
  await page.goto(`/d/${opened.design}/rehearsal?variant=${opened.variant}&sel=link~quay-a:3--ticket-hall:1`);
  await expect(page.getByText('A script is a list of events')).toBeVisible();
  await page.getByRole('button', { name: 'New', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Empty script' }).click();
  await page.getByRole('button', { name: 'Fail this link' }).click();
  const time = page.getByLabel('Time of link quay-a 3 to ticket-hall 1 lost');
  await time.fill('40');
  await time.press('Enter');
  await expect(page.getByText('it would never happen. Move the event, or rehearse longer')).toBeVisible();
  await time.fill('5');
  await time.press('Enter');
  await saved(page);
  expect((await stored(request, opened)).scripts[0]!.events).toMatchObject([{ kind: 'link-down', at: 5 }]);

  const story = page.getByRole('region', { name: 'What happened' });
  await story.getByRole('button', { name: /ticket-hall 2 forwards as root port/ }).click();
  const strip = page.getByRole('slider', { name: 'Time' });
  await expect(strip).toHaveAttribute('aria-valuetext', '5.000 s');
  await expect(page.locator('.rehearsal-chart svg.chart')).toBeVisible();
  await strip.click({ position: { x: 400, y: 30 } });
  await expect(strip).not.toHaveAttribute('aria-valuetext', '5.000 s');

  await page.getByRole('radio', { name: 'Ports' }).click();
  const ports = page.getByRole('table', { name: /^Ports of the tree in view at/ });
  await expect(ports.getByRole('row', { name: /^ticket-hall 2 root forwarding/ })).toBeVisible();
  await strip.press('Home');
  const before = ports.getByRole('row', { name: /^ticket-hall 2 alternate discarding/ });
  await before.getByRole('button', { name: /s$/ }).click();
  await expect(strip).not.toHaveAttribute('aria-valuetext', '0.000 s');
  await strip.click({ position: { x: 400, y: 30 } });

  await page.getByRole('radio', { name: 'Frame' }).click();
  const frame = page.getByRole('region', { name: 'Frame' });
  await expect(frame.getByRole('row', { name: /^root 4096/ })).toBeVisible();
  const number = async () => Number(/frame (\d+) of/.exec((await frame.textContent()) ?? '')![1]);
  const first = await number();
  await frame.getByRole('button', { name: 'later' }).click();
  await expect.poll(number).toBeGreaterThan(first);
  await expect(frame).toContainText(/tree of VLANs? 110/);
  await frame.getByRole('button', { name: 'earlier' }).click();
  await expect.poll(number).toBe(first);
  await frame.getByRole('checkbox', { name: 'every tree' }).check();
  await frame.getByRole('button', { name: 'later' }).click();
  await expect.poll(number).toBe(first + 1);

  await page.getByRole('radio', { name: 'Compare' }).click();
  await page.getByRole('button', { name: 'Under classic spanning tree' }).click();
  const compared = page.getByRole('region', { name: 'Compare runs' });
  await expect(compared.getByRole('row', { name: /^ferry-server – ticket-desk/ })).toContainText('25.0 s');
  await page.getByRole('radio', { name: 'Timers' }).click();
  await expect(page.getByRole('row', { name: /^2 s 20 s 15 s 30 s, 50 s 6 s/ })).toBeVisible();

  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: /^Export/ }).click();
  await page.getByRole('menuitem', { name: 'Frames of what is selected (pcapng)' }).click();
  const octets = readFileSync(await (await download).path());
  expect(octets.subarray(0, 4).toString('hex')).toBe('0a0d0d0a');
  const { violations } = await new AxeBuilder({ page }).include('.rehearsal').analyze();
  expect(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])).toEqual([]);
  expect(errors).toEqual([]);
});

test('a frame says what its receiver held against it, what decided and the result', async ({ page, request }) => {
  const events = [
    { id: 'a', at: 5, kind: 'link-down', link: 'quay-a:3--ticket-hall:1' },
    { id: 'b', at: 10, kind: 'link-up', link: 'quay-a:3--ticket-hall:1' },
  ];
  const scripts = [{ id: 's', name: 'back', until: 20, events }];
  const response = await request.post('/api/designs', {
    data: { name: 'ledger', variant: 'v', design: { ...asMeant(), scripts } },
  });
  const head = await response.json();
  await page.goto(`/d/${head.id}/rehearsal?variant=${head.variants[0].id}`);
  await page.getByRole('button', { name: 'Link quay-a 3 to ticket-hall 1 restored.' }).click();
  await page.getByRole('radio', { name: 'Frame' }).click();
  const why = page.getByRole('region', { name: 'What ticket-hall 1 did with it' });
  await expect(why).toContainText('Superior: its root path cost 2000 is lower than 22000');
  await expect(why.getByRole('row', { name: /^message/ })).toContainText('(decided here)');
  await expect(why.getByRole('row', { name: /^own vector/ })).toContainText('22000');
  const came = why.getByRole('list', { name: 'Result at that moment' });
  await expect(came).toContainText('ticket-hall 1: designated discarding → root forwarding');
  await came
    .getByRole('button', { name: /^ticket-hall 1 sends/ })
    .first()
    .click();
  await expect(page.getByRole('region', { name: 'Frame' }).getByRole('heading', { level: 2 })).toHaveText(
    'ticket-hall 1',
  );
});

test('a run that is stopped shows what happened until then', async ({ page, request }) => {
  const scripts = [{ id: 's', name: 'all day', until: 36_000, events: [] }];
  const response = await request.post('/api/designs', {
    data: { name: 'stopped', variant: 'v', design: { ...asMeant(), scripts } },
  });
  const head = await response.json();
  await page.goto(`/d/${head.id}/rehearsal?variant=${head.variants[0].id}`);
  await expect(page.getByText(/^rehearsed [1-9]\d* of 36000 s/)).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText(/^stopped: run of \d+ BPDUs/)).toBeVisible();
  await expect(page.getByText(/^Cancelled at [\d.]+ s\. The run until then is kept\.$/)).toBeVisible();
});

test('a guard that trips is shown, and the run follows a change of the design', async ({ page, request }) => {
  const response = await request.post('/api/designs', {
    data: { name: 'guards', variant: 'v', design: asMeant() },
  });
  const head = await response.json();
  const opened = { design: head.id as string, variant: head.variants[0].id as string };
  await page.goto(`/d/${opened.design}/rehearsal?variant=${opened.variant}`);
  await page.getByRole('combobox', { name: 'Script' }).selectOption('stranger');
  await expect(
    page.getByText('ticket-hall 10 received a BPDU and was shut down by BPDU guard until 35.001 s.'),
  ).toBeVisible();
  // At any moment the port says how long it stays shut.
  await page.getByRole('button', { name: /was shut down by BPDU guard until 35/ }).click();
  await page.getByRole('slider', { name: 'Time' }).press('PageDown');
  await expect(page.getByRole('region', { name: 'At this moment' })).toHaveText(
    'ticket-hall 10 is shut down by BPDU guard: it received a BPDU; it recovers in 21.0 s, at 35.001 s.',
  );
  await page.goto(`/d/${opened.design}/trees?variant=${opened.variant}&sel=port~ticket-hall:10`);
  await page.getByLabel("BPDU guard at '10' of ticket-hall").uncheck();
  await saved(page);
  await page.getByRole('link', { name: 'Rehearsal' }).click();
  await page.getByRole('combobox', { name: 'Script' }).selectOption('stranger');
  await expect(page.getByText('A rogue switch with priority 0 plugged into ticket-hall 10.')).toBeVisible();
  await expect(page.getByText('was shut down by BPDU guard')).toHaveCount(0);
});

test('goals that an event breaks are shown with it, and no more before it', async ({ page, request }) => {
  const response = await request.post('/api/designs', {
    data: { name: 'goals', variant: 'v', design: asMeant() },
  });
  const head = await response.json();
  await page.goto(`/d/${head.id}/rehearsal?variant=${head.variants[0].id}`);
  await page.getByRole('combobox', { name: 'Script' }).selectOption('core');
  await page.getByRole('button', { name: /The root of VLAN 140, core-west, off\./ }).click();
  const summary = page.getByText('After convergence, 3 of 6 goals are met.');
  await summary.click();
  await expect(
    page.getByText(/^core-west is root of VLANs 140, 150, 160, core-east comes next\. Core-west is off in/),
  ).toBeVisible();
  await page.getByRole('slider', { name: 'Time' }).press('Home');
  await expect(summary).toHaveCount(0);
});

test('events are changed in their rows and pulled on the strip; delays, hellos and pairs are set', async ({
  page,
  request,
}) => {
  const flap = { id: 'f', at: 5, kind: 'flap', link: 'quay-a:3--ticket-hall:1', times: 2, every: 1 };
  const scripts = [{ id: 's', name: 'flapping', until: 30, events: [flap] }];
  const response = await request.post('/api/designs', {
    data: { name: 'flapping', variant: 'v', design: { ...asMeant(), scripts } },
  });
  const head = await response.json();
  const opened = { design: head.id as string, variant: head.variants[0].id as string };
  const script = async () => (await stored(request, opened)).scripts[0]!;
  await page.goto(`/d/${opened.design}/rehearsal?variant=${opened.variant}`);
  await expect(page.getByText('flaps 2 times, every 1 s').first()).toBeVisible();
  await page.getByRole('textbox', { name: 'times', exact: true }).fill('0');
  await page.getByRole('textbox', { name: 'times', exact: true }).press('Enter');
  await expect(page.getByText('Number of flaps 0 is not legal')).toBeVisible();
  await page.getByRole('textbox', { name: 'times', exact: true }).fill('3');
  await page.getByRole('textbox', { name: 'times', exact: true }).press('Enter');
  await expect(page.getByText('flaps 3 times, every 1 s').first()).toBeVisible();

  const mark = page.locator('.event-handle .event-mark');
  const box = (await mark.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + 4);
  await page.mouse.down();
  await page.mouse.move(box.x + 120, box.y + 4, { steps: 4 });
  await page.mouse.up();
  await saved(page);
  const { at } = (await script()).events[0]!;
  expect(at).toBeGreaterThan(7);
  expect(at).toBeLessThan(10);
  await expect(page.getByLabel(/^Time of link quay-a 3/)).toHaveValue(String(at));

  await page.getByText('Delays, hellos and pairs').click();
  const takes = page.getByRole('textbox', { name: 'a switch takes, µs' });
  await takes.fill('-1');
  await takes.press('Enter');
  await expect(page.getByText('Delay -1 is not legal')).toBeVisible();
  await takes.fill('2000');
  await takes.press('Enter');
  await page.getByRole('button', { name: 'Choose the pairs' }).click();
  await page.getByRole('button', { name: 'Remove pair 2' }).click();
  await saved(page);
  const { processingDelay, probes } = await script();
  expect([processingDelay, probes]).toEqual([2000, [{ from: 'ferry-server', to: 'ticket-desk', vlan: 110 }]]);

  // The settings of the one switch that is selected, with a word where they do not go together.
  await page.getByRole('radio', { name: 'Timers' }).click();
  await page.locator('.rehearsal-chart [data-id="quay-a"]').first().click();
  await page.getByRole('textbox', { name: 'max age, s' }).fill('40');
  await page.getByRole('textbox', { name: 'max age, s' }).press('Enter');
  await expect(page.getByText('2 × (forward delay').first()).toBeVisible();
});
