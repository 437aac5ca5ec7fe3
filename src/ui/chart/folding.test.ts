import fc from 'fast-check';
import { networks } from '../../../tests/support/networks';
import { applyEdits, setField } from '../../core/design';
import type { Design } from '../../core/design';
import { rootsOf, solveDesign } from '../../core/trees';
import { asMeant } from '../../demo/brackwater';
import { campus } from '../../demo/campus';
import { arrangeAsCabled } from './arrange';
import { isFold } from './cells';
import type { FoldBy } from './cells';
import { MOST_PLATES, foldedCells, sheetOf } from './folded';
import { PLATE } from './geometry';
import { groupsOf } from './groups';

const AREA = { width: 860, height: 640 };
const NONE: ReadonlySet<never> = new Set<never>();
const BUILDING = 25;

interface Told {
  solved?: ReturnType<typeof solveDesign>;
  tree?: string;
  fold?: FoldBy | 'auto';
  byDepth?: boolean;
  keep?: readonly string[];
  open?: readonly string[];
}

function sheet(
  design: Design,
  { solved = solveDesign(design), tree, fold = 'auto', byDepth = true, keep = [], open = [] }: Told = {},
) {
  const of = tree === undefined ? solved.trees[0]! : solved.byId.get(tree)!;
  const index = (id: string) => design.switches.findIndex((s) => s.id === id);
  return sheetOf({
    solved,
    of,
    cabled: arrangeAsCabled(design, AREA),
    byDepth,
    area: AREA,
    fold,
    groups: groupsOf(design),
    keep: new Set([...rootsOf(of), ...keep.map(index)]),
    open: new Set(open),
    moved: NONE,
  });
}

const large = campus({ switches: 202, vlans: 20, outcomes: 6 });
const named = (design: Design, name: string) => design.switches.find((s) => s.name === name)!;
const plate = (s: ReturnType<typeof sheet>, name: string) => s.scene.plates.find((p) => p.name === name);

test('a small design is never folded by itself', () => {
  const { scene, by } = sheet(asMeant());
  expect(by).toBe('none');
  expect(scene.plates).toHaveLength(asMeant().switches.length);
});

test('buildings are found by their names, and a group that was set goes before them', () => {
  const groups = groupsOf(large);
  expect(new Set(groups)).toEqual(new Set([null, 'b01', 'b02', 'b03', 'b04', 'b05', 'b06', 'b07', 'b08']));
  const set = { ...large, switches: large.switches.map((s, i) => (i < 5 ? { ...s, group: 'hall' } : s)) };
  expect(new Set(groupsOf(set))).toEqual(new Set(['hall', null]));
});

test('where names tell nothing, groups are what hangs together without the core', () => {
  const plain = { ...large, switches: large.switches.map((s, i) => ({ ...s, name: `switch ${i}` })) };
  const groups = groupsOf(plain);
  expect(new Set(groups).size).toBe(9);
  const sizes = [...new Set(groups)].filter(Boolean).map((g) => groups.filter((own) => own === g).length);
  expect(sizes).toEqual(Array(8).fill(BUILDING));
});

test('closets alike are one plate, which says how many ends are blocked there; its wires carry numbers', () => {
  const own = sheet(large, { fold: 'alike' });
  const closets = plate(own, 'b01-acc × 23')!;
  expect(closets.fold!.switches).toHaveLength(23);
  expect(closets.second).toBe('69 blocked');
  const wires = own.scene.wires.filter((w) => w.count && closets.fold!.switches.includes(w.portB?.split(':')[0] ?? ''));
  expect(wires.every((w) => w.label?.startsWith('× '))).toBe(true);
});

test('a switch that differs stands beside the others, and says in what', () => {
  const odd = named(large, 'b03-acc-14');
  const port = large.ports.find((p) => p.switch === odd.id)!;
  const applied = applyEdits(large, [setField('port', port.id, 'cost', 200_000)]);
  if (!applied.ok) throw new Error('not applied');
  const { design } = applied;
  const own = sheet(design, { fold: 'alike' });
  expect(plate(own, 'b03-acc × 22')).toBeDefined();
  expect(own.scene.plates.filter((p) => p.unlike).map((p) => [p.name, p.unlike])).toEqual([
    ['b03-acc-14', expect.stringMatching(/^(other root port|other states|other cost)$/)],
  ]);
  const cells = foldedCells({
    solved: solveDesign(design),
    of: solveDesign(design).trees[0]!,
    groups: groupsOf(design),
    by: 'groups-alike',
  });
  expect(cells.find((c) => c.kind === 'group' && c.unlike)?.name).toBe('b03');
});

test('what is selected leaves its fold, opens its group, and is not called unlike for that', () => {
  const { id } = named(large, 'b02-acc-03');
  const alike = sheet(large, { fold: 'alike', keep: [id] });
  expect(plate(alike, 'b02-acc-03')).toMatchObject({ id });
  expect(plate(alike, 'b02-acc-03')!.unlike).toBeUndefined();
  expect(plate(alike, 'b02-acc × 22')).toBeDefined();
  const groups = sheet(large, { fold: 'groups', keep: [id] });
  expect(plate(groups, 'b02-acc-03')).toBeDefined();
  expect(plate(groups, 'b02')).toBeUndefined();
  expect(plate(groups, 'b01')).toBeDefined();
});

test('what is wrong is never hidden in a group, and a priority of one VLAN tells switches apart', () => {
  const odd = named(large, 'b04-acc-02');
  const link = large.links.find((l) => 'port' in l.b && l.b.port.startsWith(`${odd.id}:`))!;
  const failed = applyEdits(large, [setField('link', link.id, 'down', true)]);
  if (!failed.ok) throw new Error('not applied');
  expect(plate(sheet(failed.design, { fold: 'groups-alike' }), 'b04-acc-02')).toBeDefined();
  const set = applyEdits(large, [setField('switch', odd.id, 'vlanPriority.10', 61440)]);
  if (!set.ok) throw new Error('not applied');
  expect(plate(sheet(set.design, { fold: 'alike' }), 'b04-acc-02')).toBeDefined();
});

test('a fold that is opened shows what it stood for', () => {
  expect(plate(sheet(large, { fold: 'groups', open: ['group b04'] }), 'b04-dist-a')).toBeDefined();
  const closets = large.switches.filter((s) => s.name.startsWith('b01-acc')).map((s) => `alike ${s.id}`);
  expect(plate(sheet(large, { fold: 'alike', open: closets }), 'b01-acc-07')).toBeDefined();
});

test('campuses of any size fit on few plates, in every tree and both arrangements', () => {
  for (const switches of [60, 200, 500]) {
    const design = campus({ switches, vlans: 12, outcomes: 12 });
    const solved = solveDesign(design);
    for (const { tree } of solved.trees.slice(0, switches > 200 ? 3 : 12))
      for (const byDepth of [true, false])
        expect(sheet(design, { solved, tree: tree.id, byDepth }).scene.plates.length).toBeLessThanOrEqual(MOST_PLATES);
  }
});

const kinds = fc.constantFrom<FoldBy>('alike', 'groups', 'groups-alike');

test('in any network every switch is on one plate, no plate lies on another, and every blocked end is counted', () => {
  fc.assert(
    fc.property(networks, kinds, fc.boolean(), (design, fold, byDepth) => {
      const own = sheet(design, { fold, byDepth });
      const { cells, cellOf } = own.drawn.folding;
      expect(cells.flatMap((c) => c.members).sort((a, b) => a - b)).toEqual([...design.switches.keys()]);
      cells.forEach((c, i) => expect(c.members.every((m) => cellOf[m] === i)).toBe(true));
      const { plates } = own.scene;
      plates.forEach((a, i) =>
        plates.slice(i + 1).forEach((b) => {
          const apart = Math.abs(a.x - b.x) >= (a.width + b.width) / 2 || Math.abs(a.y - b.y) >= PLATE.height;
          if (!apart) throw new Error(`${a.id} and ${b.id} overlap`);
        }),
      );
      const within = (end: (typeof own.drawn.ends)[number]) => 'port' in end.a && 'port' in end.b;
      const counted = own.drawn.ends.filter(within).reduce((sum, e) => sum + e.count, 0);
      const all = sheet(design, { fold: 'none' }).drawn.ends.filter(within);
      const inner = all.filter((e) => {
        if (!('port' in e.a && 'port' in e.b)) return false;
        return cellOf[e.a.home] === cellOf[e.b.home] && isFold(cells[cellOf[e.a.home]!]!);
      });
      expect(counted + inner.length).toBe(all.length);
    }),
    { numRuns: Number(process.env.RUNS ?? 60) },
  );
});
