/** Figures of the core: full solve, solve after an edit, ledger of a port, on generated campuses. */
import { Bench } from 'tinybench';
import { applyEdits, setField } from '../src/core/design';
import type { Design } from '../src/core/design';
import { blockedPorts, explainPort, solveDesign } from '../src/core/trees';
import type { SolvedDesign } from '../src/core/trees';
import { proposeSettings } from '../src/core/goals';
import { campus } from '../src/demo/campus';
import { wishes } from '../tests/support/wishes';

export interface Row {
  what: string;
  size: string;
  medianMs: number;
  worstMs: number;
  runs: number;
  aim: string;
}

const SIZES = [
  { switches: 50, vlans: 100, outcomes: 6 },
  { switches: 200, vlans: 400, outcomes: 18 },
  { switches: 500, vlans: 1000, outcomes: 40 },
];

async function measure(name: string, run: () => unknown): Promise<{ median: number; worst: number; runs: number }> {
  const bench = new Bench({ time: 1500, warmupTime: 500, iterations: 15 });
  bench.add(name, run);
  await bench.run();
  const { latency } = bench.tasks[0]!.result as unknown as {
    latency: { p50: number; max: number; samplesCount?: number; samples?: number[] };
  };
  return { median: latency.p50, worst: latency.max, runs: latency.samplesCount ?? latency.samples?.length ?? 0 };
}

/** A port whose bridge leaves through it in as many trees as any: the dearest one to change. */
function busiestRootPort(solved: SolvedDesign): string {
  const count = new Map<number, number>();
  for (const { outcome } of solved.trees)
    for (const p of outcome.rootPort) if (p >= 0) count.set(p, (count.get(p) ?? 0) + 1);
  const [port] = [...count].sort((a, b) => b[1] - a[1])[0]!;
  return solved.topology.ports[port]!.element.id;
}

/** A uplink of a distribution switch that is its root port in most trees, with everything below it. */
function distributionUplink(solved: SolvedDesign): string {
  const count = new Map<number, number>();
  const { design, portBridge, ports } = solved.topology;
  for (const { outcome } of solved.trees)
    for (const p of outcome.rootPort)
      if (p >= 0 && design.switches[portBridge[p]!]!.tier === 'distribution') count.set(p, (count.get(p) ?? 0) + 1);
  const [port] = [...count].sort((a, b) => b[1] - a[1])[0]!;
  return ports[port]!.element.id;
}

const editing = (design: Design, solved: SolvedDesign, make: (n: number) => ReturnType<typeof setField>) => {
  let n = 0;
  return () => {
    const applied = applyEdits(design, [make(n++)]);
    if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
    return solveDesign(applied.design, solved);
  };
};

/** A campus of one region: 4 094 VLANs in 16 instances, every other one with its root on the other core switch. */
function instances(): Design {
  const design = campus({ switches: 200, vlans: 20, outcomes: 6 });
  const each = 4094 / 16;
  const map = Object.fromEntries(
    Array.from({ length: 16 }, (_, i) => [String(i + 1), `${Math.floor(i * each) + 1}-${Math.floor((i + 1) * each)}`]),
  );
  return {
    ...design,
    mode: 'mstp',
    vlans: Array.from({ length: 4094 }, (_, i) => ({ id: `v${i + 1}`, number: i + 1 })),
    regions: [{ id: 'r', name: 'campus', revision: 1, map }],
    switches: design.switches.map((s, i) =>
      i < 2
        ? {
            ...s,
            instancePriority: Object.fromEntries(Object.keys(map).map((m) => [m, Number(m) % 2 === i ? 4096 : 8192])),
          }
        : s,
    ),
    ports: design.ports.map((p, i) => (i % 7 === 0 ? { ...p, instanceCost: { [String((i % 16) + 1)]: 7777 } } : p)),
  };
}

/** Proposals for generated goals: one row a network size, over as many seeds as runs. */
function proposalRow(): Row {
  const solvedAll = Array.from({ length: 40 }, (_, i) => solveDesign(wishes(i + 1)));
  const times = solvedAll.map((solved) => {
    const start = performance.now();
    proposeSettings(solved);
    return performance.now() - start;
  });
  times.sort((a, b) => a - b);
  return {
    what: 'propose: 5 goals that some setting meets',
    size: '60 switches, 3 VLANs, 40 networks',
    medianMs: times[20]!,
    worstMs: times.at(-1)!,
    runs: times.length,
    aim: '3 s',
  };
}

export async function coreRows(): Promise<Row[]> {
  const rows: Row[] = [];
  const mst = instances();
  const mstSolved = solveDesign(mst);
  const mstSize = `200 switches, ${mst.links.length} links, 16 instances, 4 094 VLANs`;
  for (const [what, aim, run] of [
    ['full solve, MSTP', '100 ms', () => solveDesign({ ...mst, links: [...mst.links] })],
    [
      'edit and solve: priority in one instance',
      '',
      editing(mst, mstSolved, (n) => setField('switch', mst.switches[5]!.id, 'instancePriority.3', (n % 16) * 4096)),
    ],
  ] as const) {
    const { median, worst, runs } = await measure(what, run);
    rows.push({ what, size: mstSize, medianMs: median, worstMs: worst, runs, aim });
  }
  rows.push(proposalRow());
  for (const shape of SIZES) {
    const design = campus(shape);
    const solved = solveDesign(design);
    const size = `${shape.switches} switches, ${design.links.length} links, ${shape.vlans} VLANs, ${solved.solvedCount} outcomes`;
    const largest = shape.switches === 500;
    const cut = blockedPorts(solved.trees[0]!)[0]!;
    const busiest = busiestRootPort(solved);
    const uplink = distributionUplink(solved);
    const closet = design.switches.at(-1)!.id;
    const cases: [string, string, () => unknown][] = [
      ['full solve', largest ? '40 ms' : '', () => solveDesign({ ...design, links: [...design.links] })],
      [
        'edit and solve: priority of one VLAN',
        '8 ms',
        editing(design, solved, (n) => setField('switch', closet, 'vlanPriority.12', (n % 16) * 4096)),
      ],
      [
        'edit and solve: cost of an access uplink, all trees',
        '8 ms',
        editing(design, solved, (n) => setField('port', busiest, 'cost', 19000 + (n % 900))),
      ],
      [
        'edit and solve: cost of a distribution uplink, all trees',
        '8 ms',
        editing(design, solved, (n) => setField('port', uplink, 'cost', 1500 + (n % 400))),
      ],
      ['ledger of a port', '', () => explainPort(solved, solved.trees[0]!, cut)],
    ];
    for (const [what, aim, run] of cases) {
      const { median, worst, runs } = await measure(what, run);
      rows.push({ what, size, medianMs: median, worstMs: worst, runs, aim });
    }
  }
  return rows;
}
