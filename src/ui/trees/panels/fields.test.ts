import { costFault, sourceWord } from './fields';

test('a cost is held to its scale, and the nearest legal one is named', () => {
  for (const right of ['', '1', '20 000', '20\u00a0000', '200000000']) expect(costFault(right, 'long')).toBeNull();
  expect(costFault('65536', 'short')).toContain('the nearest is 65\u00a0535');
  expect(costFault('0', 'long')).toContain('the nearest is 1.');
  expect(costFault('2.6', 'long')).toContain('the nearest is 3.');
  expect(costFault('cheap', 'long')).toBe(
    'cheap is not a legal cost: a whole number from 1 to 200\u00a0000\u00a0000 on the 32-bit scale.',
  );
});

test('where a value comes from is said in words', () => {
  expect(sourceWord({ value: 1, source: 'vlan' })).toBe('set for this VLAN');
  expect(sourceWord({ value: 1, source: 'all-trees' })).toBe('set for all trees');
  expect(sourceWord({ value: 1, source: 'default' }, 'by speed')).toBe('by speed');
});
