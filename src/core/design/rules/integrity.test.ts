/** Only the rules that an edit can break are checked after it: that must be as good as checking all of them. */
import fc from 'fast-check';
import { runs } from '../../../../tests/support/runs';
import { asMeant, asPair } from '../../../demo/brackwater';
import { applyEdits } from '../edits';
import type { Edit } from '../edits';
import { COLLECTIONS, KINDS } from '../schema';
import type { Design, Kind } from '../schema';
import { integrityFaults } from './integrity';

const designs: readonly Design[] = [asMeant(), asPair()];

/** Every value that stands anywhere in the design: references, names, numbers and lists turn up where they may clash. */
function valuesOf(design: Design): unknown[] {
  const found = new Set<string>();
  for (const kind of KINDS)
    for (const element of design[COLLECTIONS[kind].list])
      for (const value of Object.values(element)) found.add(JSON.stringify(value));
  return [...[...found].map((text): unknown => JSON.parse(text)), null, 0, 1, 'all', '10', true];
}

const fieldsOf = (design: Design, kind: Kind): string[] => [
  ...new Set(design[COLLECTIONS[kind].list].flatMap((e) => Object.keys(e)).filter((f) => f !== 'id')),
];

/** One edit of a design that is right: an element changed, removed, or added once more under another id. */
function editOf(design: Design): fc.Arbitrary<Edit> {
  const values = valuesOf(design);
  const kinds = KINDS.filter((kind) => design[COLLECTIONS[kind].list].length > 0);
  return fc.constantFrom(...kinds).chain((kind) => {
    const list = design[COLLECTIONS[kind].list];
    const id = fc.constantFrom(...list.map((e) => e.id));
    const set = fc.record({
      type: fc.constant('set' as const),
      kind: fc.constant(kind),
      id,
      field: fc.constantFrom(...fieldsOf(design, kind)),
      value: fc.constantFrom(...values),
    });
    const remove = fc.record({ type: fc.constant('remove' as const), kind: fc.constant(kind), id });
    const add = fc.constantFrom(...list).map((e) => ({ type: 'add' as const, kind, value: { ...e, id: 'another' } }));
    return fc.oneof({ weight: 6, arbitrary: set }, { weight: 2, arbitrary: remove }, { weight: 1, arbitrary: add });
  }) as fc.Arbitrary<Edit>;
}

test.each(designs.map((design) => [design.name, design] as const))(
  '%s: what passes the rules that edits can break passes all rules',
  (_, design) => {
    let passed = 0;
    fc.assert(
      fc.property(fc.array(editOf(design), { minLength: 1, maxLength: 4 }), (edits) => {
        const applied = applyEdits(design, edits);
        if (!applied.ok) return;
        passed++;
        expect([edits, integrityFaults(applied.design)]).toEqual([edits, []]);
      }),
      runs(1500),
    );
    // Enough of them get that far for the comparison to mean something.
    expect(passed).toBeGreaterThan(50);
  },
);
