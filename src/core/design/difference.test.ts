import fc from 'fast-check';
import { networks } from '../../../tests/support/networks';
import { mstNetworks } from '../../../tests/support/mst-networks';
import { asCabled, asMeant } from '../../demo/brackwater';
import { applyEdits } from './edits';
import { differenceBetween } from './difference';
import { editWords } from './edit-words';
import type { Design, Kind } from './schema';

const sorted = (design: Design) =>
  Object.fromEntries(
    Object.entries(design).map(([key, value]) => [
      key,
      Array.isArray(value)
        ? [...(value as { id: string }[])].sort((a, b) => (a.id < b.id ? -1 : 1))
        : (value as unknown),
    ]),
  );
const led = (from: Design, to: Design): Design => {
  const applied = applyEdits(from, differenceBetween(from, to));
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};

test('the difference leads from one design to any other, but for the order of lists', () => {
  fc.assert(
    fc.property(fc.oneof(networks, mstNetworks), fc.oneof(networks, mstNetworks), (a, b) => {
      expect(sorted(led(a, b))).toEqual(sorted(b));
    }),
    { numRuns: 200 },
  );
  expect(sorted(led(asCabled(), asMeant()))).toEqual(sorted(asMeant()));
});

test('a design does not differ from itself', () => {
  fc.assert(
    fc.property(networks, (design) => {
      expect(differenceBetween(design, structuredClone(design))).toEqual([]);
    }),
    { numRuns: 100 },
  );
});

test('edits are described with the trees they are for', () => {
  const words = (field: string, value: unknown, kind: Kind = 'switch', id = 'gate') =>
    editWords(asCabled(), { type: 'set', kind, id, field, value: value as never });
  expect(words('vlanPriority.110', 4096)).toBe('gate: priority 4096 for VLAN 110');
  expect(words('instancePriority.0', 4096)).toBe('gate: priority 4096 for the CIST');
  expect(words('cost', null, 'port', 'gate:1')).toBe('gate 1: cost back to the default');
  expect(words('members', ['quay-b:8', 'quay-b:9'], 'bundle', 'quay-b:lag102')).toMatch(/members quay-b 8, quay-b 9$/);
  expect(words('a', { port: 'gate:1' }, 'link', 'quay-a:4--gate:1')).toMatch(/: a gate 1$/);
  expect(words('instancePriority.3', 16, 'port', 'gate:1')).toBe('gate 1: port priority 16 for instance 3');
});
