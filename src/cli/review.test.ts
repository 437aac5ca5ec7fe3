import { readFileSync } from 'node:fs';
import { file, printed } from '../../tests/support/command-line';
import { asCabled, asMeant } from '../demo/brackwater';
import { emptyDesign } from '../core/design';
import { report } from './report';
import { review } from './review';

const cabled = file('cabled.json', JSON.stringify(asCabled()));

interface Printed {
  findings: { code: string; severity: string; subjects: { kind: string; name: string }[]; accepted: string | null }[];
  failures: {
    elements: { kind: string; name?: string; a?: object; b?: object }[];
    separates: { switches: string[]; hosts: string[]; vlans: number[] };
    avoidable: boolean;
    outage: { kind: string; seconds: number | null; measured: number | null };
  }[];
  missingCables: Record<'link' | 'switch', { a: { switch: string; port: string | null } }[]>;
}

test('review finds the faults of the demo as it is cabled, and ends with 1', async () => {
  expect(await review(cabled, { measure: 'worst', json: true })).toBe(1);
  const found = JSON.parse(printed.out) as Printed;
  expect(found.findings[0]).toMatchObject({
    code: 'vlans-differ',
    severity: 'fault',
    subjects: [{ kind: 'link', name: 'quay-b 4 – gate 2' }],
    accepted: null,
  });
  const gate = found.failures.find(
    (f) => f.elements[0]!.kind === 'link' && JSON.stringify(f.elements).includes('"gate","port":"1"'),
  )!;
  expect(gate.elements).toEqual([
    { kind: 'link', a: { switch: 'quay-a', port: '4' }, b: { switch: 'gate', port: '1' } },
  ]);
  expect(gate.separates).toEqual({ switches: ['gate'], hosts: ['gate-camera'], vlans: [130] });
  expect([gate.avoidable, gate.outage.kind]).toEqual([true, 'separated']);
  const measured = found.failures.filter((f) => f.outage.measured !== null);
  expect(measured).toHaveLength(1);
  expect(measured[0]!.outage.measured!).toBeLessThan(10);
  expect(found.missingCables.link).toEqual([
    // Port 2 of cold-store is free, and a member of the bundle to quay-b: no cable to another switch goes there.
    { a: { switch: 'cold-store', port: null }, b: { switch: 'gate', port: null } },
  ]);
});

test('the demo as it is meant has no fault; its lines say what hangs on one switch', async () => {
  expect(await review(file('as-meant.json', JSON.stringify(asMeant())), { measure: 'none' })).toBe(0);
  expect(printed.out).toContain('Switch quay-b is a single point of failure');
  expect(printed.out).toMatch(/switch quay-b: separates 1 switch, 1 host in 7.VLANs/);
  expect(printed.out).toContain(
    'missing for a switch to fail: cable cold-store (no free port) – core-west (no free port)',
  );
});

test('a design without links, and a measure that is not known', async () => {
  const empty = file('empty.json', JSON.stringify(emptyDesign('nothing')));
  expect(await review(empty, { measure: 'worst' })).toBe(0);
  expect(printed.out).toContain('Nothing that can fail');
  expect(await review(empty, { measure: 'twice' })).toBe(2);
  expect(printed.err).toContain("--measure 'twice' is not known");
});

test('report writes one file, and names what it does not know', async () => {
  const out = file('report.html', '');
  expect(await report(cabled, { out, paper: 'letter', sections: 'summary, findings' })).toBe(0);
  expect(readFileSync(out, 'utf8')).toMatch(/^<!doctype html>[\s\S]*size: Letter[\s\S]*<h2>Findings<\/h2>/);
  expect(await report(cabled, { out, paper: 'A3' })).toBe(2);
  expect(await report(cabled, { out, paper: 'A4', sections: 'summary,weather' })).toBe(2);
  expect(printed.err).toContain("there is no section 'weather': the sections are summary, cabling");
  expect(await report('/nowhere.json', { paper: 'A4' })).toBe(2);
  expect(await report(cabled, { out: '/nowhere/at/all.html', paper: 'A4', sections: 'summary' })).toBe(2);
});

test('with progress the lines hold what is found as it is found, and the last one the whole', async () => {
  expect(await review(cabled, { measure: 'none', progress: true })).toBe(1);
  const lines = printed.out
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, unknown>);
  expect(lines.map((l) => l.kind)).toEqual(['findings', 'failures', 'done']);
  const whole = lines.at(-1)!.answer as Printed;
  expect(lines[0]!.findings).toEqual(whole.findings);
  expect(lines[1]).toMatchObject({ done: whole.failures.length, of: whole.failures.length });
});
