import { file, printed } from '../../tests/support/command-line';
import { asCabled, asMeant } from '../demo/brackwater';
import { compare } from './compare';

const cabled = file('cabled.json', JSON.stringify(asCabled()));
const meant = file('meant.json', JSON.stringify(asMeant()));

test('designs stand side by side, with what is better or worse than in the first', async () => {
  expect(await compare([cabled, meant], {})).toBe(0);
  const lines = printed.out.split('\n');
  expect(lines[0]).toMatch(/^ +cabled +meant$/);
  expect(lines.find((l) => l.startsWith('goals met'))).toMatch(/4 of 6 +6 of 6 \+$/);
  expect(lines.find((l) => l.startsWith('to get there'))).toMatch(
    /the starting point +\d+ settings, \d+ devices, 1 cable$/,
  );
});

test('as JSON each has its name and its figures', async () => {
  expect(await compare([meant, cabled], { json: true })).toBe(0);
  const found = JSON.parse(printed.out) as { name: string; findings: { fault: number }; touches: unknown }[];
  expect(found.map((f) => f.name)).toEqual(['meant', 'cabled']);
  expect(found[0]!.touches).toBeNull();
  expect(found[1]!.findings.fault).toBeGreaterThan(found[0]!.findings.fault);
});

test('one design is no comparison, and a file that is not there is named', async () => {
  expect(await compare([cabled], {})).toBe(2);
  expect(printed.err).toContain('name two designs or more');
  expect(await compare([cabled, 'nowhere.json'], {})).toBe(2);
  expect(printed.err).toContain('nowhere.json: cannot be opened: there is no such file.');
});
