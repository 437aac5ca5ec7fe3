/** Figures of the core: full solve, solve after an edit, ledger of a port, on generated campuses. */
import { Bench } from 'tinybench';
import { applyEdits, setField } from '../src/core/design';
import type { Design } from '../src/core/design';
import { cutsOf, explainPort, solveDesign } from '../src/core/trees';
import type { SolvedDesign } from '../src/core/trees';
import { campus } from '../src/demo/campus';

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

export async function coreRows(): Promise<Row[]> {
  const rows: Row[] = [];
  for (const shape of SIZES) {
    const design = campus(shape);
    const solved = solveDesign(design);
    const size = `${shape.switches} switches, ${design.links.length} links, ${shape.vlans} VLANs, ${solved.solvedCount} outcomes`;
    const largest = shape.switches === 500;
    const cut = cutsOf(solved.trees[0]!)[0]!;
    const busiest = busiestRootPort(solved);
    const uplink = distributionUplink(solved);
    const closet = design.switches.at(-1)!.id;
    const cases: [string, string, () => unknown][] = [
      ['full solve', largest ? '150 ms' : '', () => solveDesign({ ...design, links: [...design.links] })],
      [
        'edit and solve: priority of one VLAN',
        '16 ms',
        editing(design, solved, (n) => setField('switch', closet, 'vlanPriority.12', (n % 16) * 4096)),
      ],
      [
        'edit and solve: cost of an access uplink, all trees',
        '16 ms',
        editing(design, solved, (n) => setField('port', busiest, 'cost', 19000 + (n % 900))),
      ],
      [
        'edit and solve: cost of a distribution uplink, all trees',
        '16 ms',
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
