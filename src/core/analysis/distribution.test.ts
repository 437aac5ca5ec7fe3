import fc from 'fast-check';
import { HASH_FIELDS } from '../design';
import { generated, memberOf, movedByFailure, shares } from './distribution';

const fields = fc.subarray([...HASH_FIELDS], { minLength: 1 });
const sizes = fc.record({ hosts: fc.integer({ min: 1, max: 60 }), servers: fc.integer({ min: 1, max: 6 }) });
const members = fc.integer({ min: 1, max: 8 });

test('a conversation keeps to one member, and nothing is lost or doubled', () => {
  fc.assert(
    fc.property(sizes, fields, members, ({ hosts, servers }, looked, n) => {
      const all = generated(hosts, servers, 2);
      const { load, count } = shares(all, looked, n);
      expect(count.reduce((a, b) => a + b, 0)).toBe(hosts * servers);
      expect(load.reduce((a, b) => a + b, 0)).toBe(2 * hosts * servers);
      for (const c of all) expect(memberOf(c, looked, n)).toBe(memberOf({ ...c, load: 99 }, looked, n));
    }),
  );
});

test('fields that do not differ send everything by one member', () => {
  const all = generated(50, 1, 1);
  expect(shares(all, ['dst-mac'], 4).count.filter((n) => n > 0)).toEqual([50]);
  expect(shares(all, ['dst-mac'], 4).unevenness).toBe(4);
  expect(shares(all, ['src-mac', 'dst-mac'], 4).count.every((n) => n > 0)).toBe(true);
});

test('many conversations with many addresses spread evenly, and the more so the more there are', () => {
  const at = (hosts: number) => shares(generated(hosts, 4, 1), ['src-mac', 'dst-mac'], 4).unevenness;
  expect(at(500)).toBeLessThan(1.15);
  expect(at(5000)).toBeLessThan(1.06);
});

test('the failure of a member moves at least its own conversations, and all with a single one', () => {
  fc.assert(
    fc.property(sizes, fields, fc.integer({ min: 2, max: 8 }), fc.nat(7), ({ hosts, servers }, looked, n, at) => {
      const all = generated(hosts, servers, 1);
      const moved = movedByFailure(all, looked, n, at % n);
      expect(moved).toBeGreaterThanOrEqual(shares(all, looked, n).count[at % n]!);
      expect(moved).toBeLessThanOrEqual(all.length);
    }),
  );
  expect(movedByFailure(generated(7, 1, 1), ['src-mac'], 1, 0)).toBe(7);
});
