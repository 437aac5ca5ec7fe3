/** What the spanning tree modes ask of switches and links: trees, and BPDUs each second. */
import { applyEdits, isPerVlan, modeOf, setField } from '../design';
import type { Design, Edit, Mode } from '../design';
import { ROLE, solveDesign } from '../trees';
import type { SolvedDesign } from '../trees';
import { portsOnLan } from '../network';

export interface ProtocolLoad {
  readonly mode: Mode;
  /** Trees in the whole design. */
  readonly trees: number;
  /** The switch with the most trees, and with the most BPDUs sent and received each second. */
  readonly trees1: { readonly switch: string; readonly count: number };
  readonly bpdus1: { readonly switch: string; readonly rate: number };
  /** Ends that take part in a tree, added up over all trees of the busiest switch. */
  readonly ports1: { readonly switch: string; readonly count: number };
  /** BPDUs each second on the busiest link. */
  readonly link1: { readonly port: number; readonly rate: number };
}

const largest = (values: Float64Array): number => values.reduce((m, v, i) => (v > values[m]! ? i : m), 0);

/**
 * The protocol load of a solved design once it has settled: every designated port sends a BPDU each hello time for its tree;
 * an MST bridge sends one for the CIST and all instances together, from a port that is designated in any of them;
 * VLAN 1's goes out tagged and untagged. Hello time in seconds.
 */
export function protocolLoadOf(solved: SolvedDesign, hello = 2): ProtocolLoad {
  const { topology } = solved;
  const { design, portBridge, portLan } = topology;
  const sends = new Float64Array(topology.ports.length);
  const trees = new Float64Array(design.switches.length);
  const ports = new Float64Array(design.switches.length);
  const modes = design.switches.map((s) => modeOf(design, s));
  const mstSender = new Uint8Array(topology.ports.length);
  for (const { tree, outcome, problem } of solved.trees) {
    const own = (b: number) => tree.vlan === null || isPerVlan(modes[b]!);
    problem.bridgeTakesPart.forEach((on, b) => {
      if (on && own(b)) trees[b]!++;
    });
    outcome.role.forEach((role, p) => {
      const b = portBridge[p]!;
      if (!problem.portTakesPart[p] || portLan[p]! < 0 || !own(b)) return;
      ports[b]!++;
      if (role !== ROLE.designated && role !== ROLE.disputed) return;
      if (modes[b] === 'mstp') mstSender[p] = 1;
      else sends[p]! += tree.vlan === 1 ? 2 : 1;
    });
  }
  mstSender.forEach((on, p) => (sends[p]! += on));
  const bpdus = new Float64Array(design.switches.length);
  const onLan = new Float64Array(topology.ports.length);
  sends.forEach((count, p) => {
    const lan = portLan[p]!;
    if (lan < 0 || count === 0) return;
    for (const port of portsOnLan(solved.topology, lan)) {
      onLan[port]! += count;
      bpdus[portBridge[port]!]! += count;
    }
  });
  const at = (values: Float64Array) => design.switches[largest(values)]?.id ?? '';
  return {
    mode: design.mode,
    trees: solved.trees.length,
    trees1: { switch: at(trees), count: trees[largest(trees)] ?? 0 },
    ports1: { switch: at(ports), count: ports[largest(ports)] ?? 0 },
    bpdus1: { switch: at(bpdus), rate: (bpdus[largest(bpdus)] ?? 0) / hello },
    link1: { port: largest(onLan), rate: (onLan[largest(onLan)] ?? 0) / hello },
  };
}

/** The design with one mode on every switch. */
export function inMode(design: Design, mode: Mode): Design {
  const edits: Edit[] = [
    { type: 'settings', field: 'mode', value: mode },
    ...design.switches.flatMap((s) => (s.protocol ? [setField('switch', s.id, 'protocol', null)] : [])),
  ];
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(`inMode: ${applied.faults[0]?.sentence}`);
  return applied.design;
}

/** The protocol load of a design in each mode; for MSTP with the regions it has. */
export const protocolLoads = (design: Design, modes: readonly Mode[], hello = 2): ProtocolLoad[] =>
  modes.map((mode) => protocolLoadOf(solveDesign(inMode(design, mode)), hello));
