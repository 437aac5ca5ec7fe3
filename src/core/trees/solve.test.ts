import fc from 'fast-check';
import kernel from '../../../tests/fixtures/kernel-stp.json';
import { designFrom, networks } from '../../../tests/support/networks';
import { solveNaively } from '../../../tests/support/naive';
import { isPerVlan } from '../design';
import type { Design } from '../design';
import { roleAt, settledState, solveDesign } from './state';
import { TreeReader } from './candidates';

const RUNS = 3000;

/** Roles by port id and, by switch, root, cost and root port, of one solved tree. */
function readable(design: Design, at: number) {
  const solved = solveDesign(design);
  const of = solved.trees[at]!;
  const { topology } = solved;
  const switches = new Map<string, { root: string; cost: number; rootPort: string | null }>();
  design.switches.forEach((s, b) => {
    if (of.outcome.root[b]! < 0) return;
    const rootPort = of.outcome.rootPort[b]!;
    switches.set(s.id, {
      root: design.switches[of.outcome.root[b]!]!.id,
      cost: of.outcome.rootPathCost[b]!,
      rootPort: rootPort < 0 ? null : topology.ports[rootPort]!.element.id,
    });
  });
  const ports = new Map<string, { role: string; designatedSwitch: string | null; designatedPort: string | null }>();
  topology.ports.forEach(({ element }, p) => {
    const role = roleAt(of, p);
    if (role === 'none') return;
    const lan = topology.portLan[p]!;
    const from = role === 'disabled' || lan < 0 ? -1 : of.outcome.designatedPort[lan]!;
    ports.set(element.id, {
      role,
      designatedSwitch: from < 0 ? null : design.switches[topology.portBridge[from]!]!.id,
      designatedPort: from < 0 ? null : topology.ports[from]!.element.id,
    });
  });
  return { switches, ports, solved, of };
}

describe('agreement with kernel bridges', () => {
  type Case = (typeof kernel.cases)[number];
  test.each(kernel.cases.map((c) => [c.name, c] as [string, Case]))('%s', (_, c) => {
    const design = designFrom(
      c.bridges,
      c.lans.map((ends) => ({ ends })),
    );
    const { solved, of, ports } = readable(design, 0);
    const reader = new TreeReader(solved, of);
    for (const b of c.expected.bridges) {
      const bridge = solved.topology.bridgeIndex.get(b.bridge)!;
      const rootPort = of.outcome.rootPort[bridge]!;
      expect({
        bridge: b.bridge,
        rootCost: of.outcome.rootPathCost[bridge],
        rootPort: rootPort < 0 ? 0 : solved.topology.portNumber[rootPort],
      }).toEqual({ bridge: b.bridge, rootCost: b.rootCost, rootPort: b.rootPort });
    }
    for (const p of c.expected.ports) {
      const index = solved.topology.portIndex.get(`${p.bridge}.${p.port}`)!;
      const from = of.outcome.designatedPort[solved.topology.portLan[index]!]!;
      expect({ ...p, role: roleAt(of, index), designatedCost: reader.offer(from).rootPathCost }).toEqual(p);
    }
    expect(c.expected.ports.length).toBe(ports.size);
  });
});

describe('agreement with bridges that pass vectors until nothing changes', () => {
  test('random networks, every switch and port of every tree', () => {
    fc.assert(
      fc.property(networks, (design) => {
        const vlans = isPerVlan(design.mode) ? [10, 20] : [null];
        vlans.forEach((vlan, at) => {
          const { switches, ports } = readable(design, at);
          const naive = solveNaively(design, vlan);
          expect(Object.fromEntries(switches)).toEqual(Object.fromEntries(naive.switches));
          expect(Object.fromEntries(ports)).toEqual(Object.fromEntries(naive.ports));
        });
      }),
      { numRuns: RUNS },
    );
  });
});

describe('what holds in every converged tree', () => {
  const eachTree = (check: (r: ReturnType<typeof readable>) => void) =>
    fc.assert(
      fc.property(networks, (design) => {
        const count = isPerVlan(design.mode) ? 2 : 1;
        for (let at = 0; at < count; at++) check(readable(design, at));
      }),
      { numRuns: 1000 },
    );

  /** Joins bridges over LANs; which ports count is the caller's choice. */
  function components(r: ReturnType<typeof readable>, counts: (port: number) => boolean) {
    const { topology } = r.solved;
    const parent = new Map<string, string>();
    const find = (x: string): string => (parent.get(x) === x ? x : find(parent.get(x)!));
    let cycles = 0;
    for (const id of r.switches.keys()) parent.set(id, id);
    for (let lan = 0; lan < topology.lanCount; lan++) parent.set(`lan${lan}`, `lan${lan}`);
    topology.ports.forEach((_, p) => {
      const lan = topology.portLan[p]!;
      const bridge = topology.design.switches[topology.portBridge[p]!]!.id;
      if (lan < 0 || !r.of.problem.portTakesPart[p] || !parent.has(bridge) || !counts(p)) return;
      const [a, b] = [find(bridge), find(`lan${lan}`)];
      if (a === b) cycles++;
      else parent.set(a, b);
    });
    return { find, cycles };
  }

  test('each connected part has exactly one root', () =>
    eachTree((r) => {
      const { find } = components(r, () => true);
      const roots = new Map<string, Set<string>>();
      for (const [id, s] of r.switches) roots.set(find(id), (roots.get(find(id)) ?? new Set()).add(s.root));
      for (const set of roots.values()) expect(set.size).toBe(1);
    }));

  test('each LAN has exactly one designated port', () =>
    eachTree((r) => {
      const designated = new Map<number, number>();
      r.solved.topology.ports.forEach((_, p) => {
        const lan = r.solved.topology.portLan[p]!;
        if (roleAt(r.of, p) === 'designated') designated.set(lan, (designated.get(lan) ?? 0) + 1);
        else if (lan >= 0 && r.of.problem.portTakesPart[p] && roleAt(r.of, p) !== 'disabled')
          designated.set(lan, designated.get(lan) ?? 0);
      });
      for (const count of designated.values()) expect(count).toBe(1);
    }));

  test('forwarding ports join what is connected, and leave no loop', () =>
    eachTree((r) => {
      const all = components(r, () => true);
      const open = components(r, (p) => settledState(roleAt(r.of, p)) === 'forwarding');
      expect(open.cycles).toBe(0);
      const ids = [...r.switches.keys()];
      for (const a of ids) for (const b of ids) expect(open.find(a) === open.find(b)).toBe(all.find(a) === all.find(b));
    }));
});
