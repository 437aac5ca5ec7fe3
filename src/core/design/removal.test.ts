import * as fc from 'fast-check';
import { asMeant, asPair } from '../../demo/brackwater';
import { applyEdits } from './edits';
import { integrityFaults } from './rules/integrity';
import { removeAll, removeHost, removePort, removeSwitch } from './removal';
import type { Design } from './schema';
import type { Edit } from './edits';
import type { Removable } from './removal';

const applied = (design: Design, edits: readonly Edit[]): Design => {
  const result = applyEdits(design, edits);
  if (!result.ok) throw new Error(result.faults[0]!.sentence);
  return result.design;
};

describe('what is taken out takes along what cannot stand without it', () => {
  const demo = asMeant();
  test('a switch: its ports, their cables, its bundles, and the ports of hosts stay', () => {
    const after = applied(demo, removeSwitch(demo, 'cold-store'));
    expect(after.switches.some((s) => s.id === 'cold-store')).toBe(false);
    expect(after.ports.some((p) => p.switch === 'cold-store')).toBe(false);
    expect(after.bundles.some((b) => b.switch === 'cold-store')).toBe(false);
    expect(after.links.some((l) => JSON.stringify(l).includes('cold-store'))).toBe(false);
    expect(after.hosts).toHaveLength(demo.hosts.length);
  });
  test('a port: its cable, and its place in a bundle', () => {
    const after = applied(demo, removePort(demo, 'quay-b:9'));
    expect(after.links.some((l) => l.id === 'quay-b:9--cold-store:2')).toBe(false);
    expect(after.bundles.find((b) => b.id === 'quay-b:lag102')!.members).toEqual(['quay-b:8']);
  });
  test('a host: its cable, not the port', () => {
    const after = applied(demo, removeHost(demo, 'ticket-desk'));
    expect(after.ports.some((p) => p.id === 'ticket-hall:10')).toBe(true);
    expect(after.links.length).toBe(demo.links.length - 1);
  });
  test('two members of one bundle leave it together', () => {
    const things: Removable[] = ['quay-b:8', 'quay-b:9'].map((id) => ({ kind: 'port', id }));
    const edits = removeAll(demo, things);
    const members = edits.filter((e) => e.type === 'set' && e.id === 'quay-b:lag102');
    expect(members).toEqual([expect.objectContaining({ field: 'members', value: [] })]);
  });
  test('a switch of a pair: the pair', () => {
    const pair = asPair();
    expect(applied(pair, removeSwitch(pair, 'core-west')).pairs).toEqual([]);
  });
});

test('whatever is taken out together, the design stays right, and undo brings all of it back', () => {
  const demo = asMeant();
  const things: Removable[] = [
    ...demo.switches.map(({ id }): Removable => ({ kind: 'switch', id })),
    ...demo.ports.map(({ id }): Removable => ({ kind: 'port', id })),
    ...demo.links.map(({ id }): Removable => ({ kind: 'link', id })),
    ...demo.hosts.map(({ id }): Removable => ({ kind: 'host', id })),
  ];
  fc.assert(
    fc.property(fc.subarray(things, { maxLength: 12 }), (some) => {
      const result = applyEdits(demo, removeAll(demo, some));
      // A bundle that loses all members has to be taken out by name.
      if (!result.ok) return expect(result.faults[0]!.sentence).toMatch(/bundle/i);
      expect(integrityFaults(result.design)).toEqual([]);
      for (const { id } of some) expect(JSON.stringify(result.design.switches)).not.toContain(`"id":"${id}"`);
      const back = applyEdits(result.design, result.inverse);
      expect(back.ok && back.design).toEqual(demo);
    }),
    { numRuns: 60 },
  );
});

test('a note goes with the last of what it is about', () => {
  const about = ['gate', 'workshop'];
  const demo = { ...asMeant(), notes: [{ id: 'n', text: 'Same duct', about }] };
  const [gate, workshop] = about.map((id): Removable => ({ kind: 'switch', id }));
  expect(applied(demo, removeAll(demo, [gate!])).notes).toHaveLength(1);
  expect(applied(demo, removeAll(demo, [gate!, workshop!])).notes).toEqual([]);
  const note: Removable = { kind: 'note', id: 'n' };
  expect(applied(demo, removeAll(demo, [note, gate!, workshop!])).notes).toEqual([]);
  const free = { ...demo, notes: [{ id: 'n', text: 'Here', about: [], x: 1, y: 2 }] };
  expect(applied(free, removeAll(free, [gate!])).notes).toHaveLength(1);
});
