import { asMeant } from '../../demo/brackwater';
import { untaggedWords } from './untagged-words';
import type { Design } from './schema';

const natives = (of: Record<string, number>): Design => {
  const design = asMeant();
  return {
    ...design,
    ports: design.ports.map((p) => (of[p.id] === undefined ? p : { ...p, native: of[p.id]! })),
    bundles: design.bundles.map((b) => (of[b.id] === undefined ? b : { ...b, native: of[b.id]! })),
  };
};
const bundle = asMeant().bundles.find((b) => b.switch === 'core-east')!;
const other = asMeant().bundles.find((b) => b.switch === 'core-west')!;

test('a cable: what is untagged here, and at the other end', () => {
  const design = natives({ 'quay-a:3': 110, 'ticket-hall:1': 120 });
  expect(untaggedWords(design, 'quay-a:3')).toBe(
    'untagged frames belong to VLAN 110 here, and to VLAN 120 at ticket-hall 1',
  );
  expect(untaggedWords(design, 'ticket-hall:1')).toBe(
    'untagged frames belong to VLAN 120 here, and to VLAN 110 at quay-a 3',
  );
});
test('no VLAN at one end', () => {
  expect(untaggedWords(natives({ 'quay-a:3': 110 }), 'ticket-hall:1')).toBe(
    'untagged frames belong to no VLAN here, and to VLAN 110 at quay-a 3',
  );
});
test('bundles are called by their names, from the bundle and from a member', () => {
  const design = natives({ [bundle.id]: 110, [other.id]: 120 });
  const said = `untagged frames belong to VLAN 110 here, and to VLAN 120 at core-west ${other.name}`;
  expect(untaggedWords(design, bundle.id)).toBe(said);
  expect(untaggedWords(design, bundle.members[0]!)).toBe(said);
});
test('ends that agree by now, a host and a free port: in general words', () => {
  const general = 'the ends differ in their untagged VLAN';
  for (const id of ['quay-a:3', 'ticket-hall:10', 'no-such-port']) expect(untaggedWords(asMeant(), id)).toBe(general);
});
