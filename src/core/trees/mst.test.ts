import fc from 'fast-check';
import fixture from '../../../tests/fixtures/mstp.json';
import { classicMstNetworks, mstNetworks } from '../../../tests/support/mst-networks';
import { solveMstNaively } from '../../../tests/support/naive-mst';
import { designFrom } from '../../../tests/support/networks';
import { applyEdits, setField } from '../design';
import type { Design } from '../design';
import { mstConfigOf } from '../network';
import { formatBridgeId } from '../standard';
import { explainPort, explainSwitch } from './ledger';
import { TreeReader } from './candidates';
import { boundaryPorts } from './mst';
import { roleAt, settledState, solveDesign } from './state';
import type { SolvedDesign, SolvedTree } from './solved';

const RUNS = 2000;

interface FixtureEnd {
  bridge: string;
  port: number;
  cost: number;
  priority: number;
  internalCost?: number;
  msti?: Record<string, { cost: number; priority: number }>;
}
interface FixtureBridge {
  id: string;
  mac: string;
  mode: string;
  region?: { name: string; revision: number; vlanMap: Record<string, number[]> };
  priorities: Record<string, number>;
}

/** A case as a design: regions by their content, settings of each tree as its own. */
function designOf(bridges: FixtureBridge[], lans: FixtureEnd[][]): Design {
  const design = designFrom(
    bridges.map(({ id, mac, priorities }) => ({ id, mac, priority: priorities['0']! })),
    lans.map((ends) => ({ ends })),
    'mstp',
  );
  const regions = new Map<string, string>();
  bridges.forEach((b, i) => {
    const s = design.switches[i]!;
    const instances = { ...b.priorities };
    delete instances['0'];
    if (b.mode === 'rstp') return void (s.protocol = 'rstp');
    s.instancePriority = instances;
    const key = JSON.stringify(b.region);
    if (!regions.has(key)) {
      regions.set(key, `r${regions.size}`);
      const map = Object.fromEntries(Object.entries(b.region!.vlanMap).map(([m, vlans]) => [m, vlans.join(',')]));
      design.regions.push({ id: regions.get(key)!, name: b.region!.name, revision: b.region!.revision, map });
    }
    s.region = regions.get(key)!;
  });
  for (const end of lans.flat()) {
    const port = design.ports.find((p) => p.id === `${end.bridge}.${end.port}`)!;
    if (end.internalCost !== undefined) port.internalCost = end.internalCost;
    const table = (field: 'cost' | 'priority') =>
      Object.fromEntries(Object.entries(end.msti ?? {}).map(([m, values]) => [m, values[field]]));
    port.instanceCost = table('cost');
    port.instancePriority = table('priority');
  }
  return design;
}

const treeOf = (solved: SolvedDesign, instance: number): SolvedTree =>
  solved.byId.get(instance === 0 ? 'cist' : `msti-${instance}`)!;

describe('agreement with worked cases', () => {
  type Case = (typeof fixture.cases)[number];
  test.each(fixture.cases.map((c) => [c.name, c] as [string, Case]))('%s', (_, c) => {
    const design = designOf(c.bridges as unknown as FixtureBridge[], c.lans as unknown as FixtureEnd[][]);
    const applied = applyEdits(design, [setField('switch', design.switches[0]!.id, 'x', 1)]);
    expect(applied.ok).toBe(true);
    const solved = solveDesign(design);
    const { topology } = solved;
    const id = (bridge: number) => design.switches[bridge]!.id;
    for (const row of c.expected.bridges) {
      const of = treeOf(solved, row.tree);
      const b = topology.bridgeIndex.get(row.bridge)!;
      const { root, rootPort, rootPathCost, cist } = of.outcome;
      const reader = new TreeReader(solved, of);
      const found = {
        bridgeId: formatBridgeId(reader.bridgeId(b)),
        rootId: formatBridgeId(reader.bridgeId(root[b]!)),
        external: cist ? cist.external[b] : undefined,
        regionalRoot: id(cist ? cist.regionalRoot[b]! : root[b]!),
        internal: cist ? cist.internal[b] : rootPathCost[b],
        rootPort: rootPort[b]! < 0 ? 0 : topology.portNumber[rootPort[b]!],
      };
      const expected = {
        bridgeId: row.bridgeId,
        rootId: row.rootId,
        external: row.tree === 0 ? (row as { externalRootCost?: number }).externalRootCost : undefined,
        regionalRoot: row.regionalRoot,
        internal: row.internalRootCost,
        rootPort: row.rootPort,
      };
      expect({ bridge: row.bridge, tree: row.tree, ...found }).toEqual({
        bridge: row.bridge,
        tree: row.tree,
        ...expected,
      });
    }
    const boundary = boundaryPorts(topology, treeOf(solved, 0).outcome.cist!, treeOf(solved, 0).problem);
    for (const row of c.expected.ports) {
      const of = treeOf(solved, row.tree);
      const p = topology.portIndex.get(`${row.bridge}.${row.port}`)!;
      const lan = topology.portLan[p]!;
      const role = roleAt(of, p);
      const from = of.outcome.designatedPort[lan]!;
      const found = { role, state: settledState(role), boundary: boundary[p]! > 0, boundaryStrict: boundary[p] === 1 };
      expect({ bridge: row.bridge, port: row.port, tree: row.tree, ...found }).toEqual({
        bridge: row.bridge,
        port: row.port,
        tree: row.tree,
        role: row.role,
        state: row.state,
        boundary: row.boundary,
        boundaryStrict: row.boundaryStrict,
      });
      if (row.lanDesignated && of.problem.portTakesPart[p])
        expect([id(topology.portBridge[from]!), topology.portNumber[from]]).toEqual([
          row.lanDesignated.bridge,
          row.lanDesignated.port,
        ]);
    }
    for (const [bridge, digest] of Object.entries(c.expected.digests))
      expect(
        mstConfigOf(
          design,
          design.switches.find((s) => s.id === bridge)!,
        ).digest,
      ).toBe(digest);
  });
});

test('towards a classic switch every switch of a region speaks for itself: the lower of two is its uplink', () => {
  const mac = (n: number) => `00:00:5e:00:53:0${n}`;
  const end = (bridge: string, port: number) => ({ bridge, port, cost: 4, priority: 128 });
  const design = designFrom(
    [
      { id: 'r', mac: mac(1), priority: 4096 },
      { id: 'a', mac: mac(2), priority: 8192 },
      { id: 'b', mac: mac(3), priority: 16384 },
      { id: 'x', mac: mac(4), priority: 32768 },
    ],
    [
      { ends: [end('r', 1), end('a', 1)] },
      { ends: [end('r', 2), end('b', 1)] },
      { ends: [end('b', 2), end('x', 1)] },
      { ends: [end('a', 5), end('x', 2)] },
    ],
    'mstp',
  );
  design.regions = [{ id: 'q', name: 'quay', revision: 1, map: {} }];
  design.switches.find((s) => s.id === 'x')!.protocol = 'stp';
  const solved = solveDesign(design);
  const [cist] = solved.trees;
  const port = (id: string) => solved.topology.portIndex.get(id)!;
  expect(['x.1', 'x.2'].map((id) => roleAt(cist!, port(id)))).toEqual(['alternate', 'root']);
  expect(explainPort(solved, cist!, port('x.2')).sentence).toContain('but a has the lower bridge identifier');
});

describe('agreement with a second, plain implementation', () => {
  test('on random networks of regions and rapid switches every cost, root and role is the same', () => {
    fc.assert(
      fc.property(mstNetworks, (design) => {
        const solved = solveDesign(design);
        const { topology } = solved;
        const plain = solveMstNaively(design);
        expect(solved.trees.map((t) => t.tree.instance!).sort((a, b) => a - b)).toEqual(
          expect.arrayContaining([...plain.bridges.keys()]),
        );
        for (const [instance, bridges] of plain.bridges) {
          const of = treeOf(solved, instance);
          const { root, rootPort, rootPathCost, cist } = of.outcome;
          for (const [switchId, expected] of bridges) {
            const b = topology.bridgeIndex.get(switchId)!;
            const id = (bridge: number) => design.switches[bridge]!.id;
            expect({
              switchId,
              root: id(root[b]!),
              external: cist ? cist.external[b] : 0,
              regionalRoot: id(cist ? cist.regionalRoot[b]! : root[b]!),
              internal: cist ? cist.internal[b] : rootPathCost[b],
              port: rootPort[b]! < 0 ? null : topology.ports[rootPort[b]!]!.element.id,
            }).toEqual({ switchId, ...expected });
          }
          const roles = new Map<string, string>();
          for (const port of plain.roles.get(instance)!.keys())
            roles.set(port, roleAt(of, topology.portIndex.get(port)!));
          expect(roles).toEqual(plain.roles.get(instance));
        }
      }),
      { numRuns: RUNS },
    );
  });

  test.each([
    ['rapid', mstNetworks],
    ['classic', classicMstNetworks],
  ] as const)('every ledger ends with the role that was found, among %s switches', (_, among) => {
    fc.assert(
      fc.property(among, (design) => {
        const solved = solveDesign(design);
        for (const of of solved.trees) {
          design.switches.forEach((_, b) => {
            const { contests } = explainSwitch(solved, of, b);
            const port = of.outcome.rootPort[b]!;
            if (port >= 0) expect(contests[0]!.candidates.find((c) => c.wins)!.port).toBe(port);
          });
          solved.topology.ports.forEach((_, p) => {
            const { contests, sentence } = explainPort(solved, of, p);
            expect(sentence).toMatch(/\.$/);
            const lan = contests.find((c) => c.kind === 'lan');
            const role = roleAt(of, p);
            if (!lan || !of.problem.portTakesPart[p]) return;
            expect(lan.candidates.find((c) => c.wins)!.port === p).toBe(role === 'designated');
          });
        }
      }),
      { numRuns: 150 },
    );
  });

  test('solving after an edit with what was solved before gives what solving again gives', () => {
    fc.assert(
      fc.property(mstNetworks, fc.nat(), fc.constantFrom(1, 4, 19), (design, at, cost) => {
        const before = solveDesign(design);
        const port = design.ports[at % Math.max(1, design.ports.length)];
        if (!port) return;
        const applied = applyEdits(design, [setField('port', port.id, 'instanceCost.1', cost)]);
        if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
        const [warm, cold] = [solveDesign(applied.design, before), solveDesign(applied.design)];
        warm.trees.forEach((t, i) => {
          expect([...t.outcome.role]).toEqual([...cold.trees[i]!.outcome.role]);
          expect([...t.outcome.rootPathCost]).toEqual([...cold.trees[i]!.outcome.rootPathCost]);
        });
      }),
      { numRuns: 150 },
    );
  });
});

test('two switches of a region beside a classic one on a shared LAN are outside of the region there', () => {
  const end = (bridge: string) => ({ bridge, port: 1, cost: 100, priority: 128 });
  const design = designFrom(
    ['a', 'b', 'c'].map((id, i) => ({ id, mac: `00:00:5e:00:53:0${i}`, priority: 4096 * i })),
    [{ ends: ['a', 'b', 'c'].map(end) }],
    'mstp',
    [10],
  );
  design.regions = [{ id: 'r', name: 'r', revision: 1, map: { '1': '10' } }];
  design.switches.forEach((s) => (s.id === 'c' ? (s.protocol = 'stp') : (s.region = 'r')));
  const roles = (solved: SolvedDesign, tree: string) =>
    ['a.1', 'b.1'].map((id) => roleAt(solved.byId.get(tree)!, solved.topology.portIndex.get(id)!));
  const mixed = solveDesign(design);
  expect([roles(mixed, 'cist'), roles(mixed, 'msti-1')]).toEqual([
    ['designated', 'root'],
    ['designated', 'master'],
  ]);
  expect(mixed.byId.get('cist')!.outcome.cist!.external[1]).toBe(100);
  const alone = solveDesign({
    ...design,
    switches: design.switches.map((s) => (s.id === 'c' ? { ...s, off: true } : s)),
  });
  expect(roles(alone, 'msti-1')).toEqual(['designated', 'root']);
});
