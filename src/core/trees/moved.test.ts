import { applyEdits, linkAt, setField } from '../design';
import type { Design, Edit } from '../design';
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
  test('a filter parts roots and not switches; a guard that holds its port back parts switches and not roots', () => {
    const [closet] = design.switches.filter((s) => s.tier === 'access');
    const [first, second] = design.ports.filter((p) => p.switch === closet!.id && linkAt(design, p.id));
    const single = [setField('link', linkAt(design, second!.id)!.id, 'down', true)];
    const alone = after(single);
    const change = (edits: readonly Edit[]) => {
      const applied = applyEdits(alone.topology.design, [...edits]);
      if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
      return movedBetween(alone, solveDesign(applied.design, alone));
    };
    const filtered = change([setField('port', first!.id, 'bpduFilter', true)]);
    expect(filtered.some((t) => t.ports.length > 0)).toBe(true);
    for (const tree of filtered) expect(tree.cutOff).toEqual([]);
    const link = linkAt(design, first!.id)!;
    const far = [link.a, link.b].flatMap((e) => ('port' in e && e.port !== first!.id ? [e.port] : []))[0]!;
    // Designated, opposite a root port that says nothing.
    const silent = change([setField('port', far, 'silenceGuard', true)]);
    expect(silent.length).toBeGreaterThan(0);
    for (const tree of silent) expect(tree.cutOff).toEqual([closet!.id]);
  });
  test('where regions form or merge, instances get other roots and no switch is cut off', () => {
    const mst: Design = {
      ...design,
      mode: 'mstp',
      regions: [
        { id: 'one', name: 'one', revision: 1, map: { 1: '110-130' } },
        { id: 'two', name: 'two', revision: 1, map: { 1: '110-130' } },
      ],
      switches: design.switches.map((s) => ({ ...s, region: 'one' })),
    };
    const solved = solveDesign(mst);
    for (const s of mst.switches) {
      const applied = applyEdits(mst, [setField('switch', s.id, 'region', 'two')]);
      if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
      for (const tree of movedBetween(solved, solveDesign(applied.design, solved))) expect(tree.cutOff).toEqual([]);
    }
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
