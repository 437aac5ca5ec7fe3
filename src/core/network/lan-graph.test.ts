import fc from 'fast-check';
import {
  forEachNeighbour,
  lanGraph,
  lansOf,
  meetsOthers,
  peersOf,
  portsOfBridge,
  portsOnLan,
  upstream,
  walkFrom,
} from '.';
import type { LanGraph } from '.';

/** Bridges, and ports that each have a bridge and a LAN or none. */
const graphs = fc
  .record({ bridges: fc.integer({ min: 1, max: 6 }), lans: fc.integer({ min: 0, max: 6 }) })
  .chain(({ bridges, lans }) =>
    fc
      .array(fc.tuple(fc.integer({ min: 0, max: bridges - 1 }), fc.integer({ min: -1, max: lans - 1 })), {
        maxLength: 20,
      })
      .map((ports) =>
        lanGraph(
          bridges,
          lans,
          Int32Array.from(ports, ([b]) => b),
          Int32Array.from(ports, ([, lan]) => lan),
        ),
      ),
  );
const every = ({ portLan }: LanGraph) => [...portLan.keys()];

test('each port is once on its bridge and once on its LAN, in order', () => {
  fc.assert(
    fc.property(graphs, (graph) => {
      for (const b of graph.bridgeStart.subarray(1).keys())
        expect([...portsOfBridge(graph, b)]).toEqual(every(graph).filter((p) => graph.portBridge[p] === b));
      for (let lan = 0; lan < graph.lanCount; lan++)
        expect([...portsOnLan(graph, lan)]).toEqual(every(graph).filter((p) => graph.portLan[p] === lan));
      expect(portsOnLan(graph, -1)).toHaveLength(0);
    }),
  );
});

test('peers are the other ports of the LAN, and neighbours those of other bridges that take part', () => {
  fc.assert(
    fc.property(graphs, fc.infiniteStream(fc.integer({ min: 0, max: 1 })), (graph, bits) => {
      const takesPart = Uint8Array.from(graph.portLan, () => bits.next().value);
      for (const p of every(graph)) {
        const lan = graph.portLan[p]!;
        const others = every(graph).filter((q) => q !== p && lan >= 0 && graph.portLan[q] === lan);
        expect(peersOf(graph, p)).toEqual(others);
        expect(meetsOthers(graph, p)).toBe(others.length > 0);
      }
      for (const b of graph.bridgeStart.subarray(1).keys()) {
        const found: [number, number][] = [];
        forEachNeighbour(graph, takesPart, b, (own, other) => found.push([own, other]));
        const wanted = [...portsOfBridge(graph, b)].flatMap((p) =>
          peersOf(graph, p).flatMap((q) => (takesPart[p] && takesPart[q] && graph.portBridge[q] !== b ? [[p, q]] : [])),
        );
        expect(found).toEqual(wanted);
      }
    }),
  );
});

test('a walk reaches what open ports join, each bridge once, by a step that is open at both ends', () => {
  fc.assert(
    fc.property(graphs, fc.infiniteStream(fc.boolean()), (graph, bits) => {
      const open = every(graph).map(() => bits.next().value);
      const reached = walkFrom(graph, 0, (p) => open[p]!);
      for (const [bridge, { via, out, in: into }] of reached) {
        if (bridge === 0) continue;
        expect([graph.portBridge[out], graph.portBridge[into]]).toEqual([via, bridge]);
        expect([open[out], open[into], graph.portLan[out] === graph.portLan[into]]).toEqual([true, true, true]);
        expect(reached.has(via)).toBe(true);
      }
      for (const p of every(graph))
        for (const q of peersOf(graph, p))
          if (open[p] && open[q] && reached.has(graph.portBridge[p]!))
            expect(reached.has(graph.portBridge[q]!)).toBe(true);
    }),
  );
});

test('upstream leads through the root port to the bridge of the designated port', () => {
  // 0 – 1 – 2 in a row: ports 0 | 1, 2 | 3.
  const graph = lanGraph(3, 2, Int32Array.of(0, 1, 1, 2), Int32Array.of(0, 0, 1, 1));
  const tree = { rootPort: Int32Array.of(-1, 1, 3), designatedPort: Int32Array.of(0, 2) };
  expect([2, 1, 0].map((b) => upstream(graph, tree, b))).toEqual([1, 0, -1]);
});

test('ports on other LANs leave bridges as they are', () => {
  const graph = lanGraph(2, 1, Int32Array.of(0, 1), Int32Array.of(0, 0));
  const apart = { ...graph, ...lansOf(1, Int32Array.of(0, -1)) };
  expect([peersOf(apart, 0), [...portsOfBridge(apart, 1)]]).toEqual([[], [1]]);
});
