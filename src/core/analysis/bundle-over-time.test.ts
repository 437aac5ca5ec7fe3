import { bundleById } from '../design';
import type { Bundle, Design } from '../design';
import { verdictOf } from '../network';
import { rehearse } from '../simulation';
import { asCabled } from '../../demo/brackwater';
import { BUNDLE_TIMES, bundleScript, membersOverTime } from './bundle-over-time';

const SECOND = 1_000_000;

function between(design: Design): Bundle {
  return design.bundles.find((b) => {
    const verdict = verdictOf(design, b.id)!;
    return verdict.partner?.kind === 'bundle' && b.kind === 'lacp' && b.members.length > 1;
  })!;
}
const timesOf = (design: Design, bundle: Bundle) =>
  membersOverTime([bundle], rehearse(design, bundleScript(design, [bundle])!));

test('members join after they are plugged in, the first leaves when it is lost and comes back', () => {
  const design = asCabled();
  const bundle = between(design);
  const active = verdictOf(design, bundle.id)!.members.filter((m) => m.state === 'active');
  const times = timesOf(design, bundle).filter((t) => active.some((m) => m.port === t.port));
  expect(times).toHaveLength(active.length);
  for (const { carried } of times) {
    const joined = carried.find(([from]) => from >= BUNDLE_TIMES.plugged * SECOND)!;
    expect(joined[0]).toBeLessThan(BUNDLE_TIMES.lost * SECOND);
    expect(carried.at(-1)![1]).toBe(BUNDLE_TIMES.end * SECOND);
  }
  const first = times.find((t) => t.port === bundle.members[0])!;
  expect(first.carried.some(([, to]) => Math.abs(to - BUNDLE_TIMES.lost * SECOND) < SECOND / 10)).toBe(true);
  expect(first.carried.at(-1)![0]).toBeGreaterThan(BUNDLE_TIMES.back * SECOND);
});

test('no member ever joins when both ends wait', () => {
  const design = asCabled();
  const bundle = between(design);
  const partner = verdictOf(design, bundle.id)!.partner!.id;
  const passive = {
    ...design,
    bundles: design.bundles.map((b) =>
      b.id === bundle.id || b.id === partner ? { ...b, activity: 'passive' as const } : b,
    ),
  };
  for (const { carried } of timesOf(passive, bundleById(passive, bundle.id)!)) expect(carried).toEqual([]);
});
