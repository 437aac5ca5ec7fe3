import fc from 'fast-check';
import { asCabled, asPair } from '../../demo/brackwater';
import { bundleOffers } from './bundle-offers';
import { bundleLinks } from './bundling';
import { applyEdits } from './edits';
import { integrityFaults } from './rules/integrity';
import type { Design } from './schema';

const ids = () => {
  let n = 0;
  return (prefix: string) => `${prefix}-${++n}`;
};
const [FIRST, SECOND] = ['quay-a:3--ticket-hall:1', 'quay-a:13--ticket-hall:3'];
/** The demo with two cables from quay-a to the ticket hall, the second with ports set otherwise. */
function twice(more: object): Design {
  const design = asCabled();
  const port = (sw: string, n: number) => ({
    ...design.ports.find((p) => p.id === (sw === 'quay-a' ? 'quay-a:3' : 'ticket-hall:1'))!,
    id: `${sw}:${n}`,
    name: String(n),
    number: n,
    ...more,
  });
  design.ports.push(port('quay-a', 13), port('ticket-hall', 3));
  design.links.push({ id: SECOND, a: { port: 'quay-a:13' }, b: { port: 'ticket-hall:3' } });
  return design;
}
const after = (design: Design, edits: Parameters<typeof applyEdits>[1]): Design => {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};

test('cables that are alike need no offer', () => {
  expect(bundleOffers(twice({}), [FIRST, SECOND], ids())).toEqual([]);
});

test('where a setting stands in the way, it is made like that of the first and all are bundled', () => {
  for (const more of [{ vlans: '110' }, { native: 120 }, { duplex: 'half' as const }]) {
    const design = twice(more);
    expect(bundleLinks(design, [FIRST, SECOND], ids()).ok).toBe(false);
    const [offer] = bundleOffers(design, [FIRST, SECOND], ids());
    expect(offer!.kind).toBe('made-alike');
    const made = after(design, offer!.edits);
    expect(made.bundles.slice(-2).map((b) => b.members)).toEqual([
      ['quay-a:3', 'quay-a:13'],
      ['ticket-hall:1', 'ticket-hall:3'],
    ]);
    expect(integrityFaults(made)).toEqual([]);
  }
});

test('cables to both switches of a pair are one bundle, once they are made alike', () => {
  const design = asPair();
  const uplinks = design.links.filter((l) => JSON.stringify(l).includes('"quay-a:') && /core-(east|west):/.test(l.id));
  // Without its bundles, and with another untagged VLAN at one switch of the pair.
  design.bundles = [];
  const far = design.ports.find((p) => p.switch === 'core-west' && uplinks[1]!.id.includes(p.id))!;
  far.native = 120;
  const ids2 = uplinks.slice(0, 2).map((l) => l.id);
  expect(bundleLinks(design, ids2, ids()).ok).toBe(false);
  const [offer] = bundleOffers(design, ids2, ids());
  expect(offer!.kind).toBe('made-alike');
  const made = after(design, offer!.edits);
  expect(made.bundles.map((b) => b.switch).sort()).toEqual(['core-east', 'core-west', 'quay-a']);
  expect(made.ports.find((p) => p.id === far.id)!.native).toBeUndefined();
});

test('of cables of several rates or to several switches, those that are alike are offered', () => {
  const design = twice({ speed: 100 });
  expect(bundleOffers(design, [FIRST, SECOND], ids())).toEqual([]);
  const alike = twice({});
  const all = [FIRST, SECOND, 'quay-a:4--gate:1'];
  const [offer] = bundleOffers(alike, all, ids());
  expect(offer).toMatchObject({ kind: 'alike', links: [FIRST, SECOND] });
});

test('whatever is offered can be made, and leaves a design that is whole', () => {
  const design = twice({ vlans: '110' });
  fc.assert(
    fc.property(fc.uniqueArray(fc.constantFrom(...design.links.map((l) => l.id)), { maxLength: 6 }), (chosen) => {
      for (const offer of bundleOffers(design, chosen, ids())) {
        expect(integrityFaults(after(design, offer.edits))).toEqual([]);
        expect(offer.links.every((l) => chosen.includes(l))).toBe(true);
      }
    }),
  );
});
