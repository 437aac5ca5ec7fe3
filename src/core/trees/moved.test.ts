import { applyEdits, linkAt, setField } from '../design';
import type { Edit } from '../design';
import { asMeant } from '../../demo/brackwater';
import { movedBetween } from './moved';
import { solveDesign } from './state';

const design = asMeant();
const before = solveDesign(design);
const after = (edits: readonly Edit[]) => {
  const applied = applyEdits(design, [...edits]);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return solveDesign(applied.design, before);
};
const downs = (switchId: string) =>
  design.ports
    .filter((p) => p.switch === switchId && linkAt(design, p.id))
    .map((p) => setField('link', linkAt(design, p.id)!.id, 'down', true));

describe('what moved', () => {
  test('a bundle whose members are all lost vanishes from the trees, and the switch behind it is cut off', () => {
    const bundle = design.bundles.find((b) => before.topology.ports.some((p) => p.element.id === b.id))!;
    const lost = after(downs(bundle.switch));
    const moved = movedBetween(before, lost);
    expect(moved.length).toBeGreaterThan(0);
    for (const tree of moved) {
      expect(tree.cutOff).toEqual([bundle.switch]);
      expect(tree.ports).toContainEqual(expect.objectContaining({ id: bundle.id, after: 'disabled' }));
    }
    const back = movedBetween(lost, before);
    for (const tree of back) {
      expect(tree.rejoined).toEqual([bundle.switch]);
      expect(tree.ports).toContainEqual(expect.objectContaining({ id: bundle.id, before: 'disabled' }));
    }
  });
  test('links that fail take their switch with them; one that has another way stays', () => {
    const [closet] = design.switches.filter((s) => s.tier === 'access');
    for (const tree of movedBetween(before, after(downs(closet!.id)))) expect(tree.cutOff).toEqual([closet!.id]);
    for (const tree of movedBetween(before, after(downs(closet!.id).slice(0, 1)))) expect(tree.cutOff).toEqual([]);
  });
  test('a switch that is off is not called cut off', () => {
    const [closet] = design.switches.filter((s) => s.tier === 'access');
    for (const tree of movedBetween(before, after([setField('switch', closet!.id, 'off', true)])))
      expect(tree.cutOff).toEqual([]);
  });
  test('a port that is removed is named by what it was', () => {
    const port = design.ports.find(
      (p) => linkAt(design, p.id) && !design.bundles.some((b) => b.members.includes(p.id)),
    )!;
    const link = linkAt(design, port.id)!;
    const edits: Edit[] = [
      { type: 'remove', kind: 'link', id: link.id },
      { type: 'remove', kind: 'port', id: port.id },
    ];
    const [name] = before.topology.design.switches.filter((s) => s.id === port.switch).map((s) => s.name);
    const gone = movedBetween(before, after(edits)).flatMap((t) => t.ports.filter((p) => p.id === port.id));
    expect(gone.length).toBeGreaterThan(0);
    for (const p of gone) expect(p).toMatchObject({ name: `${name} ${port.name}`, after: 'none' });
  });
});
