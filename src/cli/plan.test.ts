import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { asCabled, asMeant } from '@/demo/brackwater';
import { file, folder, printed } from '../../tests/support/command-line';
import { plan } from './plan';

const from = file('cabled.json', JSON.stringify(asCabled()));
const to = file('meant.json', JSON.stringify(asMeant()));
// Planning takes a second or two each time.
jest.setTimeout(60_000);

const usual = { temporary: true, seconds: '5' };

interface PlanOut {
  steps: { device: string; kind: string; set: { what: string; from: string; to: string }[] }[];
  worstOutage: number;
  exact: boolean;
  unreachable: string[];
}

test('a plan as JSON, with the designs on the way in a folder', async () => {
  const states = path.join(folder, 'states');
  expect(await plan(from, to, { ...usual, json: true, at: 'ticket-desk', states })).toBe(0);
  const out = JSON.parse(printed.out) as PlanOut;
  expect(out).toMatchObject({ exact: true, unreachable: [] });
  expect(out.worstOutage).toBeLessThan(0.01);
  const files = readdirSync(states).sort();
  expect(files).toHaveLength(out.steps.length + 1);
  const read = (name: string) => JSON.parse(readFileSync(path.join(states, name), 'utf8')) as unknown;
  expect(read(files[0]!)).toEqual(JSON.parse(JSON.stringify(asCabled())));
  expect(read(files.at(-1)!)).toEqual(JSON.parse(JSON.stringify(asMeant())));
});

test('with progress the lines say how far it is, and the last one has the plan', async () => {
  expect(await plan(from, to, { ...usual, progress: true })).toBe(0);
  const lines = printed.out
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as { kind: string; answer?: PlanOut });
  expect(lines[0]).toMatchObject({ kind: 'progress', phase: 'table' });
  expect(lines.at(-1)).toMatchObject({ kind: 'done', answer: { exact: true } });
});

test('as lines, Markdown, a table and a page', async () => {
  expect(await plan(from, to, { ...usual, watch: ['ticket-desk,ferry-server'] })).toBe(0);
  expect(printed.out).toContain('12 steps at 10 devices');
  expect(printed.out).toMatch(
    /\d+\. quay-b – cold-store\n {3}set cable quay-b 9 – cold-store 2: not plugged in → plugged in/,
  );
  await plan(from, to, { ...usual, markdown: true });
  expect(printed.out).toContain('- [ ] quay-b to-cold-store: up, 2 of 2 members active');
  await plan(from, to, { ...usual, csv: true });
  expect(printed.out).toContain('step,at,kind,set,moves,outage,see,otherwise,way back,done at,done by');
  await plan(from, to, { ...usual, html: true });
  expect(printed.out).toContain('<title>Change plan: Brackwater Ferries, cabled → meant</title>');
});

test('what does not fit is said in a sentence', async () => {
  expect(await plan(from, to, { ...usual, at: 'attic' })).toBe(2);
  expect(printed.err).toContain("There is no host and no switch called 'attic' in the design");
  expect(await plan(from, to, { ...usual, watch: ['ticket-desk,attic'] })).toBe(2);
  expect(printed.err).toContain("There is no host called 'attic' to watch");
  expect(await plan(from, to, { ...usual, watch: ['ticket-desk,recorder'] })).toBe(2);
  expect(printed.err).toContain('are in different VLANs');
  expect(await plan(from, from, usual)).toBe(2);
  expect(printed.err).toContain('do not differ in anything');
  expect(await plan(from, to, { ...usual, seconds: 'soon' })).toBe(2);
  expect(printed.err).toContain("--seconds 'soon' is no number of seconds.");
});
