/** Where offered traffic goes: what every link carries each way, tree by tree. */
import { analysisMessages } from '../messages';
import { vlanTreeId } from '../standard';
import { hostById, switchById } from '../design';
import type { Demand, PlaceRef } from '../design';
import { findPath, pathFaultSentence } from './path';
import { treeOnSwitch } from '../trees';
import type { SolvedDesign, SolvedTree } from '../trees';

export interface Loads {
  /** Mb/s that leave through each logical port, towards its LAN. */
  readonly out: Float64Array;
  /** The same by tree id. */
  readonly byTree: ReadonlyMap<string, Float64Array>;
  /** Mb/s offered in each tree. */
  readonly offered: ReadonlyMap<string, number>;
  /** Demands that get nowhere, with the reason. */
  readonly lost: readonly { readonly demand: Demand; readonly sentence: string }[];
}

const exists = ({ topology: { design } }: SolvedDesign, place: PlaceRef) =>
  'host' in place ? hostById(design, place.host) !== undefined : switchById(design, place.switch) !== undefined;

/** The tree that a VLAN's frames follow at a place. */
export function treeOfVlan(solved: SolvedDesign, vlan: number): SolvedTree | null {
  const own = solved.byId.get(vlanTreeId(vlan));
  if (own) return own;
  if (solved.trees.length === 0) return null;
  const mst = solved.trees.find((t) => t.tree.vlans.includes(vlan));
  return mst ?? (solved.topology.design.switches.length > 0 ? treeOnSwitch(solved, 0, vlan) : solved.trees[0]!);
}

/** Sends every demand along its path. */
export function loadsOf(solved: SolvedDesign, demands: readonly Demand[] = solved.topology.design.demands): Loads {
  const ports = solved.topology.ports.length;
  const out = new Float64Array(ports);
  const byTree = new Map<string, Float64Array>();
  const offered = new Map<string, number>();
  const lost: { demand: Demand; sentence: string }[] = [];
  for (const demand of demands) {
    const of = treeOfVlan(solved, demand.vlan);
    if (!of || !exists(solved, demand.from) || !exists(solved, demand.to)) {
      lost.push({ demand, sentence: analysisMessages['end-missing']() });
      continue;
    }
    const answer = findPath(solved, of, demand.from, demand.to, demand.vlan);
    if (!answer.ok || answer.path.lostAt) {
      const fault = answer.ok ? answer.path.lostAt! : answer.fault;
      lost.push({ demand, sentence: pathFaultSentence(solved, fault) });
      continue;
    }
    if (!byTree.has(of.tree.id)) byTree.set(of.tree.id, new Float64Array(ports));
    const own = byTree.get(of.tree.id)!;
    for (const { outPort } of answer.path.hops) {
      if (outPort === null) continue;
      out[outPort]! += demand.load;
      own[outPort]! += demand.load;
    }
    offered.set(of.tree.id, (offered.get(of.tree.id) ?? 0) + demand.load);
  }
  return { out, byTree, offered, lost };
}

/** The busiest way out of a port in percent of its rate. */
export const percentOut = ({ topology }: SolvedDesign, { out }: Loads, port: number): number =>
  (out[port]! / topology.ports[port]!.rate) * 100;

/** All ports by what they send in percent of their rate, busiest first. */
export const busiest = (solved: SolvedDesign, loads: Loads): { readonly port: number; readonly percent: number }[] =>
  [...solved.topology.ports.keys()]
    .map((port) => ({ port, percent: percentOut(solved, loads, port) }))
    .sort((a, b) => b.percent - a.percent);
