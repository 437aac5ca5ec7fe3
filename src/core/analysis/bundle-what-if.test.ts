import { designFrom } from '../../../tests/support/networks';
import { asCabled, asMeant, asPair } from '../../demo/brackwater';
import { solveDesign } from '../trees';
import { bundleWhatIfs } from './bundle-what-if';
import { bundleById } from '../design';

const core = (id: string, design = asMeant()) => {
  const solved = solveDesign(design);
  return bundleWhatIfs(
    solved,
    [bundleById(design, 'core-east:lag101')!],
    [bundleById(design, 'core-west:lag101')!],
  ).find((w) => w.id === id)!;
};

test('with one of two links lost the bundle carries half at twice the cost', () => {
  expect(core('one-lost')).toMatchObject({ active: [2, 1], rate: [20_000, 10_000], cost: [1000, 2000] });
  expect(core('one-lost').verdict.outcome).toBe('forms');
});

test('with both links lost it is down, and trees move', () => {
  const both = core('two-lost');
  expect(both).toMatchObject({ active: [2, 0], rate: [20_000, null], cost: [1000, null] });
  expect(both.verdict.outcome).toBe('too-few');
  expect(both.moved.length).toBeGreaterThan(0);
});

test('without a bundle at the far end its members stand by themselves; static, they forward all the same', () => {
  expect(core('far-plain').verdict.outcome).toBe('unanswered');
  expect(core('near-static').verdict.outcome).toBe('one-sided');
});

test('what there is too little for is left out', () => {
  const design = asCabled();
  const ids = bundleWhatIfs(
    solveDesign(design),
    [bundleById(design, 'quay-b:lag102')!],
    [bundleById(design, 'cold-store:lag103')!],
  ).map((w) => w.id);
  expect(ids).toEqual(['one-lost', 'far-plain', 'near-static']);
});

test('an end over both switches of a pair is one: with one of its two links lost the other carries on', () => {
  const design = asPair();
  const end = (id: string) => bundleById(design, id)!;
  const near = [end('core-east:lag110'), end('core-west:lag110')];
  const all = bundleWhatIfs(solveDesign(design), near, [end('quay-a:lag110')]);
  const one = all.find((w) => w.id === 'one-lost')!;
  expect(one.verdict.outcome).toBe('forms');
  expect(one).toMatchObject({ active: [2, 1], rate: [20_000, 10_000], cost: [1000, 2000] });
  expect(all.find((w) => w.id === 'two-lost')!).toMatchObject({ active: [2, 0], rate: [20_000, null] });
});

test('a bundle that is cabled to itself cannot go at its far end alone', () => {
  const end = (port: number) => ({ bridge: 'a', port, cost: 20_000, priority: 128 });
  const design = designFrom([{ id: 'a', mac: '00:00:5e:00:53:01', priority: 32768 }], [{ ends: [end(1), end(2)] }]);
  const bundle = { id: 'lag', switch: 'a', name: 'lag1', number: 1, kind: 'lacp' as const, members: ['a.1', 'a.2'] };
  design.bundles = [bundle];
  const ids = bundleWhatIfs(solveDesign(design), [bundle], [bundle]).map((w) => w.id);
  expect(ids).not.toContain('far-plain');
  expect(ids).toContain('near-static');
});
