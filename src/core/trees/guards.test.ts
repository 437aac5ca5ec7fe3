import fc from 'fast-check';
import type { Design } from '../design';
import { setField, applyEdits } from '../design';
import { asMeant } from '../../demo/brackwater';
import { guardedNetworks } from '../../../tests/support/guards';
import { designFrom, networks } from '../../../tests/support/networks';
import { explainPort, loopingPorts, roleAt, solveDesign } from '.';

const MAC = (n: number) => `00:00:5e:00:53:0${n}`;
const end = (bridge: string, port: number) => ({ bridge, port, cost: 4, priority: 128 });
/** a and b, a the root, with two cables between them. */
const twoCables = (mode: Design['mode'] = 'rstp') =>
  designFrom(
    [
      { id: 'a', mac: MAC(1), priority: 4096 },
      { id: 'b', mac: MAC(2), priority: 32768 },
    ],
    [{ ends: [end('a', 1), end('b', 1)] }, { ends: [end('a', 2), end('b', 2)] }],
    mode,
  );
const armed = (design: Design, id: string, part: object): Design => ({
  ...design,
  ports: design.ports.map((p) => (p.id === id ? { ...p, ...part } : p)),
});
const roles = (design: Design, tree = 0) => {
  const solved = solveDesign(design);
  const of = solved.trees[tree]!;
  return Object.fromEntries(solved.topology.ports.map(({ element }, p) => [element.id, roleAt(of, p)]));
};
const why = (design: Design, id: string) => {
  const solved = solveDesign(design);
  return explainPort(solved, solved.trees[0]!, solved.topology.portIndex.get(id)!).sentence;
};

describe('BPDU filter', () => {
  const design = armed(twoCables(), 'b.2', { bpduFilter: true });
  test('hides the ends of a cable from each other: both forward, and frames loop', () => {
    expect(roles(design)).toEqual({ 'a.1': 'designated', 'b.1': 'root', 'a.2': 'designated', 'b.2': 'designated' });
    const solved = solveDesign(design);
    expect(loopingPorts(solved.topology, solved.trees[0]!).size).toBe(4);
  });
  test('is the reason that is given, with the loop', () => {
    expect(why(design, 'b.2')).toBe(
      'Designated: its BPDU filter neither sends nor receives BPDUs, so it always forwards. Frames loop through this port: spanning tree cannot detect it.',
    );
    expect(why(design, 'a.2')).toBe(
      'Designated: no BPDU arrives, since b 2 has a BPDU filter. Frames loop through this port: spanning tree cannot detect it.',
    );
  });
});

describe('BPDU guard', () => {
  const design = armed(twoCables(), 'b.2', { bpduGuard: true });
  test('shuts the port that receives BPDUs, and its cable is dark at the other end too', () => {
    expect(roles(design)).toEqual({ 'a.1': 'designated', 'b.1': 'root', 'a.2': 'disabled', 'b.2': 'disabled' });
    expect(why(design, 'b.2')).toBe('Shut down by BPDU guard: a sends BPDUs here.');
    expect(why(design, 'a.2')).toBe('Down: BPDU guard of b has shut down the far end.');
  });
  test('does nothing where no BPDU arrives', () => {
    const quiet = armed(design, 'a.2', { bpduFilter: true });
    expect(roles(quiet)['b.2']).toBe('designated');
    expect(roles(asMeant())['ticket-hall:10']).toBe('designated');
  });
  test('an edit that takes it away opens the port again, as from the start', () => {
    const solved = solveDesign(design);
    const applied = applyEdits(design, [setField('port', 'b.2', 'bpduGuard', null)]);
    if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
    const after = solveDesign(applied.design, solved);
    expect(after.trees[0]!.outcome).toEqual(solveDesign(applied.design).trees[0]!.outcome);
    expect(roles(applied.design)['b.2']).toBe('alternate');
  });
});

describe('root guard', () => {
  /** a is the root of a triangle; c has root guard on its port towards it. */
  const triangle = (mode: Design['mode']) =>
    armed(
      designFrom(
        [
          { id: 'a', mac: MAC(1), priority: 4096 },
          { id: 'b', mac: MAC(2), priority: 32768 },
          { id: 'c', mac: MAC(3), priority: 32768 },
        ],
        [
          { ends: [end('a', 1), end('b', 1)] },
          { ends: [end('b', 2), end('c', 1)] },
          { ends: [end('c', 2), end('a', 2)] },
        ],
        mode,
      ),
      'c.2',
      { rootGuard: true },
    );
  test.each(['rstp', 'stp'] as const)('%s: the port never becomes root port, however good its path is', (mode) => {
    expect(roles(triangle(mode))).toMatchObject({ 'c.1': 'root', 'c.2': 'alternate', 'a.2': 'designated' });
  });
  test('says why, and names the path that is not taken', () => {
    expect(why(triangle('rstp'), 'c.2')).toBe(
      'Blocked by root guard: a offers a better path to the root, and this port may not become root port.',
    );
  });
  test('without another path the switch is root of a part of its own', () => {
    const design = triangle('rstp');
    const cut = { ...design, links: design.links.filter((l) => l.id !== 'l1') };
    const solved = solveDesign(cut);
    expect(solved.trees[0]!.outcome.root).toEqual(Int32Array.of(0, 0, 2));
    expect(roles(cut)['c.2']).toBe('alternate');
    expect(why(cut, 'c.2')).toBe(
      'Blocked by root guard: a offers a better root, a, and this port may not become root port.',
    );
  });
});

test('after edits of costs the outcome is as if solved from the start, guards and all', () => {
  const moves = fc.array(fc.record({ port: fc.nat(), cost: fc.constantFrom(1, 2, 4, 19, 38) }), {
    minLength: 1,
    maxLength: 6,
  });
  fc.assert(
    fc.property(guardedNetworks(networks), moves, (network, edits) => {
      let design: Design = { ...network, mode: 'per-vlan-rstp' };
      let solved = solveDesign(design);
      for (const { port, cost } of edits) {
        const at = design.ports[port % Math.max(1, design.ports.length)];
        if (!at) return;
        design = armed(design, at.id, { cost });
        solved = solveDesign(design, solved);
        const fresh = solveDesign(design);
        expect(solved.trees.map((t) => t.outcome)).toEqual(fresh.trees.map((t) => t.outcome));
      }
    }),
    { numRuns: 200 },
  );
});

test('ports loop where closing one of them would leave the others joined, and nowhere else', () => {
  fc.assert(
    fc.property(guardedNetworks(networks), (network) => {
      const solved = solveDesign({ ...network, mode: 'rstp' });
      const { topology } = solved;
      const of = solved.trees[0]!;
      const looping = loopingPorts(topology, of);
      const open = (p: number) => ['root', 'designated'].includes(roleAt(of, p)) && topology.portLan[p]! >= 0;
      const joined = (without: number) => {
        const seen = new Set<string>();
        const at = [`b${topology.portBridge[without]}`];
        for (let node = at.pop(); node !== undefined; node = at.pop()) {
          if (seen.has(node)) continue;
          seen.add(node);
          topology.ports.forEach((_, p) => {
            if (p === without || !open(p)) return;
            const [bridge, lan] = [`b${topology.portBridge[p]}`, `l${topology.portLan[p]}`];
            if (node === bridge) at.push(lan);
            if (node === lan) at.push(bridge);
          });
        }
        return seen.has(`l${topology.portLan[without]}`);
      };
      topology.ports.forEach((_, p) => open(p) && expect([p, looping.has(p)]).toEqual([p, joined(p)]));
    }),
    { numRuns: 60 },
  );
});
