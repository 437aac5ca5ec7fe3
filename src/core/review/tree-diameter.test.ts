import fc from 'fast-check';
import { networks } from '../../../tests/support/networks';
import { solveDesign } from '../trees';
import type { SolvedTree } from '../trees';
import { treeDiameter } from './tree-diameter';

/** Links from one switch to each that it reaches in a tree, over root ports alone. */
function distances({ topology: { portLan, portBridge }, outcome }: SolvedTree, from: number): Map<number, number> {
  const beside = new Map<number, number[]>();
  outcome.rootPort.forEach((port, b) => {
    if (port < 0) return;
    const above = portBridge[outcome.designatedPort[portLan[port]!]!]!;
    beside.set(b, [...(beside.get(b) ?? []), above]);
    beside.set(above, [...(beside.get(above) ?? []), b]);
  });
  const found = new Map([[from, 0]]);
  for (const [b, far] of found) for (const next of beside.get(b) ?? []) if (!found.has(next)) found.set(next, far + 1);
  return found;
}

test('the longest way of a tree is as long as it says, and lies between its ends', () => {
  fc.assert(
    fc.property(networks, (design) => {
      for (const of of solveDesign(design).trees) {
        const { links, ends } = treeDiameter(of);
        const all = design.switches.flatMap((_, b) => [...distances(of, b).values()]);
        expect(links).toBe(Math.max(0, ...all));
        if (design.switches.length > 0) expect(distances(of, ends[0]).get(ends[1])).toBe(links);
      }
    }),
  );
});
