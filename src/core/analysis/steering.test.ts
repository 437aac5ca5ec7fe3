import fc from 'fast-check';
import { asCabled, asMeant } from '../../demo/brackwater';
import { networks } from '../../../tests/support/networks';
import { network } from '../../../tests/support/wishes';
import { applyEdits, setField } from '../design';
import type { Design } from '../design';
import { ROLE, isMacOnlyRoot, rootsOf, solveDesign } from '../trees';
import type { SolvedDesign } from '../trees';
import { CELL, linkUseOf } from './link-use';
import { advices, advise, adviseBalanced } from './grouping';
import { balanceEdits, rankEdits, ranking, tierLastEdits } from './root-placement';
import { protocolLoads } from './protocol-load';
import { loadsOf } from './load';
import { orderPriorities } from './bridge-priorities';
import type { RankResult } from './root-placement';

const after = (solved: SolvedDesign, result: RankResult): SolvedDesign => {
  if (!result.ok) throw new Error(result.sentence);
  const applied = applyEdits(solved.topology.design, result.edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return solveDesign(applied.design);
};
const rootName = (solved: SolvedDesign, tree: string) =>
  solved.topology.design.switches[rootsOf(solved.byId.get(tree)!)[0]!]!.name;

describe('priorities in a wanted order', () => {
  test('one below the others needs one change, just below', () => {
    expect(orderPriorities([[32768], [32768, 32768]])).toEqual([[28672], [32768, 32768]]);
  });
  test('what holds already is left alone', () => {
    expect(orderPriorities([[4096], [8192], [32768]])).toEqual([[4096], [8192], [32768]]);
  });
  test('a switch at 0 gives way, since nothing is below', () => {
    expect(orderPriorities([[32768], [0, 36864]])).toEqual([[32768], [36864, 36864]]);
    expect(orderPriorities([[4096], [0]])).toEqual([[4096], [8192]]);
  });
  test('sixteen ranks fit and seventeen do not', () => {
    const groups = (n: number) => Array.from({ length: n }, () => [32768]);
    expect(orderPriorities(groups(16))!.map((g) => g[0])).toEqual(Array.from({ length: 16 }, (_, i) => i * 4096));
    expect(orderPriorities(groups(17))).toBeNull();
  });
  test('any groups come out in order, with legal values, and with no fewer changes possible by brute force', () => {
    const step = fc.integer({ min: 0, max: 15 }).map((n) => n * 4096);
    fc.assert(
      fc.property(
        fc.array(fc.array(step, { minLength: 1, maxLength: 2 }), { minLength: 1, maxLength: 3 }),
        (groups) => {
          const found = orderPriorities(groups)!;
          for (let i = 1; i < found.length; i++)
            expect(Math.max(...found[i - 1]!)).toBeLessThan(Math.min(...found[i]!));
          const changes = found.flat().filter((v, i) => v !== groups.flat()[i]).length;
          // With the bounds between the groups given, everyone outside the bounds of the group has to change.
          let fewest = Infinity;
          const tryBounds = (at: number, low: number, count: number) => {
            if (at === groups.length) return void (fewest = Math.min(fewest, count));
            for (let high = low; high <= 61440; high += 4096) {
              const outside = groups[at]!.filter((v) => v < low || v > high).length;
              tryBounds(at + 1, high + 4096, count + outside);
            }
          };
          tryBounds(0, 0, 0);
          expect(changes).toBe(fewest);
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('ranks', () => {
  const solved = solveDesign(asCabled());
  const tree = (id: string) => solved.byId.get(id)!;
  test('the ranking of a tree names who is placed by address only', () => {
    const order = ranking(solved, tree('vlan-199'));
    expect(order.slice(0, 2)).toEqual([
      { switch: 'workshop', priority: 32768, byMac: false },
      { switch: 'quay-a', priority: 32768, byMac: true },
    ]);
  });
  test('two switches on the first ranks of one tree take two settings and leave the other trees alone', () => {
    const result = rankEdits(solved, [tree('vlan-199')], ['core-east', 'core-west']);
    expect(result.ok && result.edits.map((e) => e.type === 'set' && `${e.id} ${e.field} ${String(e.value)}`)).toEqual([
      'core-east vlanPriority.199 24576',
      'core-west vlanPriority.199 28672',
    ]);
    const then = after(solved, result);
    expect(
      ranking(then, then.byId.get('vlan-199')!)
        .slice(0, 2)
        .map((r) => r.switch),
    ).toEqual(['core-east', 'core-west']);
    expect(isMacOnlyRoot(then, then.byId.get('vlan-199')!, 0)).toBe(false);
  });
  test('a value that all trees want alike is set once for all', () => {
    const design: Design = {
      ...asCabled(),
      switches: asCabled().switches.map((s) => ({ ...s, vlanPriority: undefined })),
    };
    for (const s of design.switches) delete s.vlanPriority;
    const plain = solveDesign(design);
    const result = rankEdits(plain, plain.trees, ['quay-a']);
    expect(result.ok && result.edits).toEqual([setField('switch', 'quay-a', 'priority', 28672)]);
  });
  test('two ranks on one switch and a rank in a tree that it is not in are refused with a sentence', () => {
    expect(rankEdits(solved, [tree('vlan-110')], ['gate', 'gate'])).toEqual({
      ok: false,
      sentence: 'gate has two ranks in one tree: give it one.',
    });
    const absent = rankEdits(solved, [tree('vlan-140')], ['workshop']);
    expect(absent.ok ? '' : absent.sentence).toMatch(/^workshop is not in tree 140/);
  });
  test('on random networks the ranking holds by priority against all others', () => {
    fc.assert(
      fc.property(networks, fc.nat(), fc.nat(), (design, a, b) => {
        const now = solveDesign(design);
        const of = now.trees[0]!;
        const members = ranking(now, of).map((r) => r.switch);
        const order = [...new Set([members[a % members.length], members[b % members.length]])].filter(
          (s) => s !== undefined,
        );
        if (members.length === 0) return;
        const then = after(now, rankEdits(now, [of], order));
        const found = ranking(then, then.byId.get(of.tree.id)!);
        expect(found.slice(0, order.length).map((r) => r.switch)).toEqual(order);
        for (let i = 0; i <= order.length; i++)
          expect(found[i]?.byMac === true && i > 0 && i <= order.length).toBe(false);
        const others = now.trees.slice(1);
        for (const t of others) expect(ranking(then, then.byId.get(t.tree.id)!)).toEqual(ranking(now, t));
      }),
      { numRuns: 300 },
    );
  });
  test('a tier that never becomes root comes after all others in every tree, by one setting a switch', () => {
    const result = tierLastEdits(solved, solved.trees, 'access');
    const then = after(solved, result);
    for (const of of then.trees) {
      const tiers = ranking(then, of).map((r) => then.topology.design.switches.find((s) => s.id === r.switch)!.tier);
      expect(tiers.indexOf('access')).toBeGreaterThan(
        Math.max(tiers.lastIndexOf('core'), tiers.lastIndexOf('distribution')),
      );
    }
    expect(result.ok && result.edits).toHaveLength(6);
    expect(tierLastEdits(solveDesign(network(1, 3)), [], 'access')).toEqual({
      ok: false,
      sentence: 'No switch of the design is in the access tier.',
    });
  });
});

describe('balance over two roots', () => {
  const solved = solveDesign(asCabled());
  test('shares the trees evenly, each root the successor of the other, and moves as few as it can', () => {
    const result = balanceEdits(solved, solved.trees, ['core-east', 'core-west']);
    const then = after(solved, result);
    const roots = then.trees.map((t) => rootName(then, t.tree.id));
    expect([3, 4]).toContain(roots.filter((r) => r === 'core-east').length);
    for (const of of then.trees)
      expect(
        ranking(then, of)
          .slice(0, 2)
          .map((r) => r.switch)
          .sort(),
      ).toEqual(['core-east', 'core-west']);
    const moved = then.trees.filter((t) => rootName(solved, t.tree.id) !== rootName(then, t.tree.id));
    expect(moved.map((t) => t.tree.id)).toEqual(['vlan-199']);
  });
  test('by load, no share is heavier than the other by more than the lightest tree that could change sides', () => {
    const loads = loadsOf(solved);
    const weight = (of: { tree: { id: string } }) => loads.offered.get(of.tree.id) ?? 0;
    const result = balanceEdits(solved, solved.trees, ['core-east', 'core-west'], weight);
    expect(result.ok).toBe(true);
    if (!result.ok) throw new Error(result.sentence);
    const [a, b] = result.shares.map((share) => share.reduce((sum, of) => sum + weight(of), 0));
    const heavier = a! > b! ? 0 : 1;
    const least = Math.min(...result.shares[heavier].map(weight).filter((w) => w > 0));
    expect(Math.abs(a! - b!)).toBeLessThanOrEqual(2 * least);
  });
  test('needs two different switches', () => {
    expect(balanceEdits(solved, solved.trees, ['gate', 'gate'])).toMatchObject({ ok: false });
  });
  test('passes over trees in which one of the two has no part, and names them', () => {
    const solved = solveDesign(asMeant());
    const apart = solved.trees.filter((of) => of.outcome.root[solved.topology.bridgeIndex.get('workshop')!]! < 0);
    expect(apart.length).toBeGreaterThan(0);
    const result = balanceEdits(solved, solved.trees, ['core-east', 'workshop']);
    if (!result.ok) throw new Error(result.sentence);
    expect(result.passed).toEqual(apart);
    const shared = new Set(result.shares.flat());
    expect(solved.trees.filter((of) => shared.has(of))).toEqual(solved.trees.filter((of) => !apart.includes(of)));
    expect(balanceEdits(solved, apart, ['core-east', 'workshop'])).toMatchObject({ ok: false });
  });
});

describe('loads', () => {
  test('each demand loads the ports that it leaves by, in its own tree', () => {
    const solved = solveDesign(asMeant());
    const loads = loadsOf(solved);
    const at = (id: string) => loads.out[solved.topology.portIndex.get(id)!];
    // ferry-server → core-east → quay-a → ticket-hall → ticket-desk
    expect([at('core-east:3'), at('quay-a:3'), at('ticket-hall:10')]).toEqual([180, 180, 180]);
    expect(loads.offered.get('vlan-130')).toBe(400);
    expect(loads.lost).toEqual([]);
  });
  test('a demand of a removed host, and one without a path, are listed', () => {
    const design = asMeant();
    design.demands = [
      { id: 'a', vlan: 110, from: { host: 'missing' }, to: { host: 'ticket-desk' }, load: 5 },
      { id: 'b', vlan: 140, from: { switch: 'workshop' }, to: { switch: 'core-west' }, load: 5 },
    ];
    const { lost } = loadsOf(solveDesign(design));
    expect(lost.map((l) => l.demand.id)).toEqual(['a', 'b']);
    expect(lost[1]!.sentence).toMatch(/workshop is not in this tree/);
  });
});

describe('link use', () => {
  test('a cell says what the roles at both ends say, on random networks', () => {
    fc.assert(
      fc.property(networks, (design) => {
        const solved = solveDesign(design);
        const linkUse = linkUseOf(solved);
        expect(linkUse.rows.flatMap((r) => r.trees).length).toBe(solved.trees.length);
        for (const { trees, cells } of linkUse.rows)
          for (const of of trees)
            linkUse.columns.forEach(({ a, b }, c) => {
              const open = (p: number) => [ROLE.root, ROLE.designated].includes(of.outcome.role[p] as 1 | 2);
              expect(cells[c] === CELL.carries).toBe(open(a) && open(b));
            });
      }),
      { numRuns: 200 },
    );
  });
  test('the idle uplink of the demo is found, and the link that carries everything', () => {
    const solved = solveDesign(asCabled());
    const { columns, idle, everything, rows } = linkUseOf(solved);
    const ends = (c: number) => [columns[c]!.a, columns[c]!.b].map((p) => solved.topology.ports[p]!.element.id);
    expect(idle.map(ends)).toContainEqual(['quay-b:5', 'signal-tower:1']);
    expect(everything).toHaveLength(1);
    expect(rows.map((r) => r.trees.map((t) => t.tree.vlan))).toEqual([[110, 120], [130], [140, 150], [160], [199]]);
  });
});

describe('the advisor', () => {
  const solved = solveDesign(asCabled());
  test('as many instances as there are different ways keep every way', () => {
    const advice = advise(solved, 16)!;
    expect(advice.changed).toEqual([]);
    expect(advice.parted).toEqual([]);
    expect(advice.instances.map((i) => i.vlans)).toEqual([[110, 120], [130], [140, 150], [160], [199]]);
    expect(advice.treesAfter).toBeLessThan(advice.treesBefore);
  });
  test('what it says of a grouping is what solving it gives', () => {
    for (const advice of advices(solved, 64)) {
      const applied = applyEdits(solved.topology.design, advice.edits);
      if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
      const then = solveDesign(applied.design);
      expect(then.trees).toHaveLength(advice.treesAfter);
      for (const i of advice.instances)
        expect(then.topology.design.switches[rootsOf(then.byId.get(`msti-${i.instance}`)!)[0]!]!.id).toBe(i.root);
    }
  });
  test('balanced, two instances differ in load by no more than the heaviest VLAN, on two roots', () => {
    const advice = adviseBalanced(solved, 2, ['core-east', 'core-west'])!;
    const [a, b] = advice.instances;
    expect([a!.root, b!.root]).toEqual(['core-east', 'core-west']);
    expect(Math.abs(a!.load - b!.load)).toBeLessThanOrEqual(420);
  });
  test('a VLAN that its instance would partition is named', () => {
    const design = asMeant();
    // VLAN 140 alone keeps away from the link that the common tree of both leaves open.
    for (const p of design.ports)
      if (p.id === 'quay-a:3' || p.id === 'ticket-hall:1') p.vlans = '110,120,130,150,160,199';
    const found = advise(solveDesign(design), 1)!;
    expect(found.parted).toContain(140);
  });
});

describe('the protocol load of the modes', () => {
  test('one tree sends one BPDU a hello and link; trees per VLAN one for each VLAN on it', () => {
    const [perVlan, one] = protocolLoads(asMeant(), ['per-vlan-rstp', 'rstp']);
    expect([perVlan!.trees, one!.trees]).toEqual([7, 1]);
    expect([perVlan!.trees1.count, one!.trees1.count]).toEqual([7, 1]);
    expect(one!.link1.rate).toBe(0.5);
    expect(perVlan!.link1.rate).toBe(3.5);
  });
  test('with instances one BPDU speaks for all, so links carry no more than with one tree twice over', () => {
    const advice = advise(solveDesign(asMeant()), 64)!;
    const applied = applyEdits(asMeant(), advice.edits);
    if (!applied.ok) throw new Error('unfit');
    const [mstp] = protocolLoads(applied.design, ['mstp']);
    expect(mstp!.trees1.count).toBe(advice.instances.length + 1);
    expect(mstp!.link1.rate).toBeLessThanOrEqual(1);
  });
});
