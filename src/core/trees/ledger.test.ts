import fc from 'fast-check';
import { designFrom, networks } from '../../../tests/support/networks';
import type { BridgeSpec, LanSpec } from '../../../tests/support/networks';
import { applyEdits, setField } from '../design';
import { asCabled } from '../../demo/brackwater';
import { explainPort, explainSwitch, explainTree, isMacOnlyRoot, nextRoot } from './ledger';
import { makeRootEdits, makeRootOfEdits, treesInScope } from './make-root';
import { movedBetween } from './moved';
import { roleAt, rootsOf, solveDesign } from './state';

const mac = (n: number) => `00:00:5e:00:53:${n.toString(16).padStart(2, '0')}`;
const bridge = (id: string, n: number, priority = 32768): BridgeSpec => ({ id, mac: mac(n), priority });
const end = (at: string, port: number, cost: number, priority = 128) => ({ bridge: at, port, cost, priority });
const link = (...ends: LanSpec['ends']): LanSpec => ({ ends });

function solve(bridges: BridgeSpec[], lans: LanSpec[]) {
  const solved = solveDesign(designFrom(bridges, lans));
  const of = solved.trees[0]!;
  const port = (id: string) => solved.topology.portIndex.get(id)!;
  return { solved, of, why: (id: string) => explainPort(solved, of, port(id)), port };
}

describe('why a port is cut', () => {
  test('the far end reaches the root at 4, this end at 23', () => {
    const { why } = solve(
      [bridge('root', 1, 4096), bridge('near', 2), bridge('far', 3)],
      [
        link(end('root', 1, 4), end('near', 1, 4)),
        link(end('near', 2, 19), end('far', 1, 23)),
        link(end('near', 3, 19), end('far', 2, 99)),
        link(end('root', 2, 4), end('far', 3, 23)),
      ],
    );
    const ledger = why('far.2');
    expect(ledger.sentence).toBe('Blocked: the far end reaches the root at 4, this end at 23.');
    expect(ledger.contests[0]).toMatchObject({ kind: 'lan', decidedBy: 'rootPathCost' });
  });

  test('at equal cost the lower bridge identifier keeps the link open at its end', () => {
    const { why } = solve(
      [bridge('root', 1, 4096), bridge('a', 2), bridge('b', 3)],
      [
        link(end('root', 1, 4), end('a', 1, 4)),
        link(end('root', 2, 4), end('b', 1, 4)),
        link(end('a', 2, 4), end('b', 2, 4)),
      ],
    );
    expect(why('b.2').sentence).toBe('Blocked: both ends reach the root at 4, and a has the lower bridge identifier.');
    expect(why('a.2').sentence).toBe(
      'Designated: both ends reach the root at 4, and this end has the lower bridge identifier.',
    );
  });

  test('of two ports of one switch on one segment the higher is backup', () => {
    const { why, of, port } = solve(
      [bridge('root', 1, 4096), bridge('a', 2)],
      [link(end('root', 1, 4), end('a', 1, 4)), link(end('a', 2, 4), end('a', 3, 4), end('root', 2, 4))],
    );
    expect(roleAt(of, port('root.2'))).toBe('designated');
    const loop = solve(
      [bridge('root', 1), bridge('a', 2)],
      [link(end('root', 1, 4), end('a', 1, 4)), link(end('root', 2, 4), end('root', 3, 4))],
    );
    expect(loop.why('root.3').sentence).toBe(
      'Blocked: port 2 of the same switch is on this LAN too and has the lower port identifier.',
    );
    expect(why('root.2').sentence).toBe('Designated: every port of the root is designated.');
  });
});

describe('why a root port was chosen', () => {
  const parallel = (a: number, b: number, near = [128, 128]) =>
    solve(
      [bridge('root', 1, 4096), bridge('s', 2)],
      [link(end('root', 1, 4, a), end('s', 1, 4, near[0])), link(end('root', 2, 4, b), end('s', 2, 4, near[1]))],
    );
  test('between parallel links the far end decides by its port identifier', () => {
    const { why, of, solved } = parallel(128, 64);
    expect(solved.topology.ports[of.outcome.rootPort[1]!]!.element.id).toBe('s.2');
    expect(why('s.2').sentence).toContain("the far end's port identifier is lower on port 2");
    expect(why('s.2').contests[0]!.decidedBy).toBe('designatedPort');
  });
  test('the priority of the own port does not matter there', () => {
    const { of, solved } = parallel(128, 128, [240, 0]);
    expect(solved.topology.ports[of.outcome.rootPort[1]!]!.element.id).toBe('s.1');
  });
  test('on one shared segment the own port identifier decides last', () => {
    const { why, of, port } = solve(
      [bridge('root', 1, 4096), bridge('s', 2)],
      [link(end('root', 1, 4), end('s', 1, 4), end('s', 2, 4, 64))],
    );
    expect(roleAt(of, port('s.2'))).toBe('root');
    expect(why('s.2').contests[0]!.decidedBy).toBe('receivingPort');
    expect(why('s.2').sentence).toContain('its own port identifier is higher');
  });
});

describe('why a root is root', () => {
  const demo = solveDesign(asCabled());
  test('by priority, or by MAC address only', () => {
    expect(explainTree(demo, demo.byId.get('vlan-110')!).sentence).toBe(
      'core-east is root: its priority 4096 is the lowest, core-west comes next with 8192.',
    );
    const management = demo.byId.get('vlan-199')!;
    expect(explainTree(demo, management).sentence).toMatch(
      /^workshop is root by MAC address only: it has the same priority 32768 as quay-a/,
    );
    const root = rootsOf(management)[0]!;
    expect(isMacOnlyRoot(demo, management, root)).toBe(true);
    expect(demo.topology.design.switches[nextRoot(management, root)]!.name).toBe('quay-a');
  });
  test('a network in two parts has two roots, and says so', () => {
    const { solved, of } = solve(
      [bridge('a', 1), bridge('b', 2), bridge('c', 3)],
      [link(end('b', 1, 4), end('c', 1, 4))],
    );
    expect(rootsOf(of).map((b) => solved.topology.design.switches[b]!.id)).toEqual(['b', 'a']);
    expect(explainTree(solved, of).sentence).toMatch(/^The tree is partitioned into 2 parts/);
  });
  test('an end whose far end lacks the VLAN stands alone, and says so', () => {
    const cameras = demo.byId.get('vlan-130')!;
    const why = (id: string) => explainPort(demo, cameras, demo.topology.portIndex.get(id)!).sentence;
    expect(why('quay-b:4')).toBe(
      'Designated, without a peer: the far end does not carry VLAN 130, so its frames are lost on this link.',
    );
    expect(why('gate:2')).toBe('Not in this tree: port 2 does not carry VLAN 130.');
    expect(why('gate:10')).toBe('Designated: no other switch is on this LAN.');
  });
  test('a switch without the VLAN, a switch that is off and a port without a cable say why', () => {
    const design = asCabled();
    const guests = demo.byId.get('vlan-150')!;
    const workshop = demo.topology.bridgeIndex.get('workshop')!;
    expect(explainSwitch(demo, guests, workshop).sentence).toMatch(/none of its ports carries the VLAN/);
    const off = applyEdits(design, [setField('switch', 'gate', 'off', true)]);
    if (!off.ok) throw new Error('refused');
    const solved = solveDesign(off.design);
    const of = solved.trees[0]!;
    const sentence = (id: string) => explainPort(solved, of, solved.topology.portIndex.get(id)!).sentence;
    expect(sentence('gate:1')).toBe('Down: the switch is off.');
    expect(sentence('quay-a:4')).toBe('Down: gate at the far end is off.');
    expect(sentence('quay-b:9')).toBe('Down: nothing is plugged in.');
  });
});

test('every ledger of every port names a winner that the outcome agrees with', () => {
  fc.assert(
    fc.property(networks, (design) => {
      const solved = solveDesign(design);
      for (const of of solved.trees)
        solved.topology.ports.forEach((_, port) => {
          const ledger = explainPort(solved, of, port);
          expect(ledger.sentence).toMatch(/\.$/);
          for (const contest of ledger.contests) {
            const winners = contest.candidates.filter((c) => c.wins);
            expect(winners).toHaveLength(1);
            if (contest.kind === 'lan')
              expect(winners[0]!.port).toBe(of.outcome.designatedPort[solved.topology.portLan[port]!]);
            if (contest.kind === 'received')
              expect(winners[0]!.port).toBe(of.outcome.rootPort[solved.topology.portBridge[port]!]);
          }
        });
    }),
    { numRuns: 400 },
  );
});

describe('making a switch the root', () => {
  test('it becomes root of the tree by priority, on every random network', () => {
    fc.assert(
      fc.property(networks, fc.nat(), (design, pick) => {
        const solved = solveDesign(design);
        const of = solved.trees[pick % solved.trees.length]!;
        const taking = [...of.outcome.root.keys()].filter((b) => of.outcome.root[b]! >= 0);
        if (taking.length === 0) return;
        const wanted = taking[pick % taking.length]!;
        const applied = applyEdits(design, makeRootEdits(solved, of, design.switches[wanted]!.id));
        if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
        const after = solveDesign(applied.design, solved).byId.get(of.tree.id)!;
        expect(after.outcome.root[wanted]).toBe(wanted);
      }),
      { numRuns: 600 },
    );
  });
  test('a switch is made root of several trees, or of all, where it has a part in them', () => {
    fc.assert(
      fc.property(networks, fc.nat(), fc.boolean(), (design, pick, all) => {
        const solved = solveDesign(design);
        const wanted = pick % design.switches.length;
        const s = design.switches[wanted]!;
        const scope = all ? 'all' : solved.trees.flatMap(({ tree }, i) => (i % 2 ? [] : [tree.vlan!]));
        const applied = applyEdits(design, makeRootOfEdits(solved, scope, s.id));
        if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
        const after = solveDesign(applied.design, solved);
        for (const of of treesInScope(after, scope))
          if (of.outcome.root[wanted]! >= 0) expect(of.outcome.root[wanted]).toBe(wanted);
        expect(makeRootOfEdits(after, scope, s.id)).toEqual([]);
      }),
      { numRuns: 300 },
    );
  });
  test('no one with priority 0 is left in the way', () => {
    const { solved, of } = solve([bridge('low', 1, 0), bridge('high', 2)], [link(end('low', 1, 4), end('high', 1, 4))]);
    expect(makeRootEdits(solved, of, 'high')).toEqual([
      { type: 'set', kind: 'switch', id: 'high', field: 'priority', value: 0 },
      { type: 'set', kind: 'switch', id: 'low', field: 'priority', value: 4096 },
    ]);
    expect(makeRootEdits(solved, of, 'low')).toEqual([]);
  });
});

test('what moved names roots and ports with their roles before and after', () => {
  const design = asCabled();
  const before = solveDesign(design);
  const edit = applyEdits(design, [setField('port', 'gate:2', 'vlanCost.110', 500)]);
  if (!edit.ok) throw new Error('refused');
  const moved = movedBetween(before, solveDesign(edit.design, before));
  expect(moved).toHaveLength(1);
  expect(moved[0]).toMatchObject({ tree: 'vlan-110', rootBefore: 'core-east', rootAfter: 'core-east' });
  expect(moved[0]!.ports).toEqual([
    { id: 'gate:1', switch: 'gate', name: 'gate 1', before: 'root', after: 'alternate' },
    { id: 'gate:2', switch: 'gate', name: 'gate 2', before: 'alternate', after: 'root' },
  ]);
  const same = movedBetween(before, solveDesign(structuredClone(design)));
  expect(same).toEqual([]);
});
