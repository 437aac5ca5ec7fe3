import fc from 'fast-check';
import { mstNetworks } from '../../../tests/support/mst-networks';
import { designFrom, networks } from '../../../tests/support/networks';
import type { EndSpec } from '../../../tests/support/networks';
import { solveNaively } from '../../../tests/support/naive';
import type { Design } from '../design';
import { explainPort } from './ledger';
import { findPath } from '../analysis';
import { roleAt, solveDesign } from './state';

const end = (bridge: string, port: number, more: Partial<EndSpec> = {}): EndSpec => ({
  bridge,
  port,
  cost: 4,
  priority: 128,
  ...more,
});
const bridge = (id: string, last: number, priority = 32768) => ({
  id,
  mac: `00:00:5e:00:53:0${last}`,
  priority,
});
const roles = (design: Design, tree: string) => {
  const solved = solveDesign(design);
  const of = solved.byId.get(tree)!;
  return Object.fromEntries(design.ports.map((p) => [p.id, roleAt(of, solved.topology.portIndex.get(p.id)!)]));
};

/** Two core switches with a tree per VLAN, a closet of two rapid switches with one tree, uplinked once or twice. */
function closet(twice: boolean): Design {
  const design = designFrom(
    [bridge('p', 1, 4096), bridge('q', 2, 8192), bridge('a', 3), bridge('b', 4)],
    [
      { ends: [end('p', 1), end('q', 1)] },
      { ends: [end('p', 2), end('a', 1)] },
      { ends: [end('a', 2), end('b', 1)] },
      ...(twice ? [{ ends: [end('q', 2), end('b', 2, { cost: 19 })] }] : []),
    ],
    'per-vlan-rstp',
    [1, 20],
  );
  for (const s of design.switches) if (s.id === 'a' || s.id === 'b') s.protocol = 'rstp';
  return design;
}

describe('switches with a tree per VLAN beside switches with one tree', () => {
  test('meet in the common tree, which is VLAN 1 on the one side', () => {
    const solved = solveDesign(closet(true));
    expect(solved.trees.map((t) => t.tree.id)).toEqual(['cist', 'vlan-20']);
    expect(roles(closet(true), 'cist')).toMatchObject({ 'p.2': 'designated', 'a.1': 'root', 'b.2': 'alternate' });
  });
  test('the single-tree part is one LAN to the tree of another VLAN, through what it leaves open', () => {
    // With one uplink nothing is doubled: all as drawn.
    expect(roles(closet(false), 'vlan-20')).toEqual({
      'p.1': 'designated',
      'q.1': 'root',
      'p.2': 'designated',
      'a.1': 'root',
      'a.2': 'designated',
      'b.1': 'root',
    });
    // With two, the closet cuts its own second uplink by the common tree, and VLAN 20 of the core receives nothing there.
    expect(roles(closet(true), 'vlan-20')).toMatchObject({ 'q.2': 'designated', 'b.2': 'alternate', 'q.1': 'root' });
  });
  test('a VLAN whose core link is dear goes through the closet, and a cut appears where two cores meet over it', () => {
    const design = closet(true);
    // The common tree opens both uplinks of the closet when the link between the cores is the dear one.
    for (const id of ['p.1', 'q.1']) design.ports.find((p) => p.id === id)!.cost = 100;
    expect(roles(design, 'cist')).toMatchObject({ 'q.1': 'alternate', 'q.2': 'root' });
    // VLAN 20 sees p and q joined by the closet as by a hub: q reaches the root at 4 there, at 100 straight.
    expect(roles(design, 'vlan-20')).toMatchObject({ 'q.2': 'root', 'q.1': 'alternate', 'p.2': 'designated' });
    const solved = solveDesign(design);
    const path = findPath(solved, solved.byId.get('vlan-20')!, { switch: 'q' }, { switch: 'p' }, 20);
    expect(path.ok && path.path.hops.map((h) => design.switches[h.bridge]!.id)).toEqual(['q', 'b', 'a', 'p']);
  });
  test('a port that follows another tree says so', () => {
    const solved = solveDesign(closet(true));
    const of = solved.byId.get('vlan-20')!;
    expect(explainPort(solved, of, solved.topology.portIndex.get('b.2')!).sentence).toMatch(
      /^b has no tree for VLAN 20 alone; its frames follow common tree there\. Blocked: /,
    );
  });
  test('an MST region carries a VLAN by the instance that it maps it to', () => {
    const design = closet(true);
    for (const s of design.switches) if (s.protocol) s.protocol = 'mstp';
    design.regions = [{ id: 'r', name: 'closet', revision: 1, map: { '1': '20' } }];
    expect(solveDesign(design).trees.map((t) => t.tree.id)).toEqual(['cist', 'msti-1', 'vlan-20']);
    expect(roles(design, 'vlan-20')).toMatchObject({ 'a.1': 'master', 'b.2': 'alternate', 'a.2': 'designated' });
  });
});

describe('where nothing is mixed', () => {
  test('the common solver gives what the plain one gives: networks of rapid switches with one of them an MST region alone', () => {
    fc.assert(
      fc.property(
        networks.filter((d) => d.mode === 'rstp' && d.switches.length > 1),
        (design) => {
          // A region of a single bridge is to all others what a rapid bridge is.
          const mst: Design = {
            ...design,
            switches: design.switches.map((s, i) => (i === 0 ? { ...s, protocol: 'mstp' } : s)),
          };
          const solved = solveDesign(mst);
          const plain = solveNaively(design, null);
          for (const [id, { role }] of plain.ports)
            expect([id, roleAt(solved.trees[0]!, solved.topology.portIndex.get(id)!)]).toEqual([id, role]);
        },
      ),
      { numRuns: 150 },
    );
  });
  test('a VLAN without ports of its own kind of switch still has its tree where it has ports', () => {
    fc.assert(
      fc.property(mstNetworks, (design) => {
        const mixed: Design = {
          ...design,
          switches: design.switches.map((s, i) => (i % 2 === 0 ? { ...s, protocol: 'per-vlan-rstp' } : s)),
        };
        const solved = solveDesign(mixed);
        for (const of of solved.trees) for (const port of of.topology.ports.keys()) explainPort(solved, of, port);
        // Every tree of a VLAN is loop-free among the switches that have it: each but a root has one root port.
        for (const of of solved.trees.filter((t) => t.tree.vlan !== null))
          of.outcome.root.forEach((root, b) => {
            if (root >= 0) expect(of.outcome.rootPort[b]! >= 0).toBe(root !== b);
          });
      }),
      { numRuns: 200 },
    );
  });
});
