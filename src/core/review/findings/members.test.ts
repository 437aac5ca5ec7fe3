/** Rules that depend on which members of a bundle carry, on pairs, and on what the fixes add. */
import { setField } from '../../design';
import type { Design } from '../../design';
import { solveDesign } from '../../trees';
import { asCabled, asMeant, asPair } from '../../../demo/brackwater';
import { missingCableEdits } from '../cable-edits';
import { missingCables } from '../missing-cables';
import { RULES } from '.';
import { NEAR, after, codesOf, sentencesOf } from '../../../../tests/support/findings';

const meant = asMeant();

const waiting: Design = { ...meant, bundles: meant.bundles.map((b) => ({ ...b, maxActive: 1 })) };

test('a member that waits is a spare: such a bundle has more than one cable, and its minimum holds', () => {
  expect(codesOf(waiting)).not.toContain('bundle-one-cable');
  expect(codesOf(waiting)).not.toContain('bundle-minimum');
  expect(codesOf({ ...waiting, bundleCost: 'configured' })).not.toContain('single-link');
});

test('a bundle counts by its members that carry, also where its cost follows those that are configured', () => {
  const configured: Design = { ...asCabled(), bundleCost: 'configured' };
  expect(sentencesOf(configured, 'single-link').join()).toContain('One link holds cold-store');
});

test('a bundle over both switches of a pair is one bundle, and the peer link is one too', () => {
  const pair = asPair();
  expect(codesOf(pair)).not.toContain('bundle-one-cable');
  expect(sentencesOf(pair, 'bundle-down')).toEqual([expect.stringContaining('quay-a to-quay-b – quay-b to-quay-a')]);
});

test('a host port with a BPDU filter asks for no BPDU guard, and classic ends say nothing of rapid ones', () => {
  const filtered = {
    ...meant,
    ports: meant.ports.map(({ bpduGuard: _, ...p }) => (p.edge ? { ...p, bpduFilter: true } : p)),
  };
  expect(codesOf(filtered)).not.toContain('host-no-guard');
  const classic: Design = { ...after(meant, setField('port', NEAR, 'duplex', 'half')), mode: 'per-vlan-stp' };
  expect(codesOf(classic)).not.toContain('half-duplex');
});

test('cables that are missing go into ports of no bundle; with them nothing is missing, and no fault is new', () => {
  let n = 0;
  for (const design of [asCabled(), meant, asPair()])
    for (const what of ['link', 'switch'] as const) {
      const cables = missingCables(solveDesign(design))[what];
      for (const port of cables.flatMap(({ a, b }) => [a.port, b.port]))
        expect(design.bundles.some((b) => port !== null && b.members.includes(port))).toBe(false);
      const mended = solveDesign(
        after(design, ...missingCableEdits(design, cables, (prefix) => `${prefix}-new-${++n}`)),
      );
      expect(missingCables(mended)[what]).toEqual([]);
      const faults = (of: Design) =>
        codesOf(of).filter((code) => RULES.find((r) => r.code === code)!.severity === 'fault');
      expect(faults(mended.topology.design)).toEqual(faults(design));
    }
});
