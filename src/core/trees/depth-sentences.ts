/** What is said of ports that are designated and do not forward: where the word of a root is too old, or a silence guard hears nothing. */
import { ledgerMessages as say } from '../messages';
import { peersOf } from '../network';
import type { TreeReader } from './candidates';
import { ROLE } from './outcome';
import { isClassic, reachByAge, reachByHops } from './reach';

/** What ends at a LAN: whose word, after how many bridges, and whether by age or by hops. */
interface End {
  readonly root: number;
  readonly limit: number;
  readonly age: boolean;
  /** The port that says it, and the others there. */
  readonly from: number;
  readonly others: readonly number[];
}

function endAt(reader: TreeReader, lan: number): End | null {
  const { outcome, tree, topology } = reader.of;
  if (lan < 0 || !outcome.spent?.includes(lan)) return null;
  const from = outcome.designatedPort[lan]!;
  const bridge = topology.portBridge[from]!;
  const others = reader.lanPorts(lan).filter((p) => p !== from);
  const inside = tree.instance !== null && tree.instance > 0;
  const age = !inside && !others.some((p) => reader.sameRegion(bridge, topology.portBridge[p]!));
  const root = outcome.root[bridge]!;
  const { design } = topology;
  const limit = age ? reachByAge(design)[root]! : reachByHops(design)[outcome.cist?.regionalRoot[bridge] ?? root]!;
  return { root, limit, age, from, others };
}

/** One sentence for each place where a tree ends by depth and another begins. */
export function tooDeepSentences(reader: TreeReader): string[] {
  const { outcome, topology } = reader.of;
  const { design, portBridge } = topology;
  return (outcome.spent ?? []).flatMap((lan) => {
    const { root, limit, age, others } = endAt(reader, lan)!;
    const first = others.map((p) => portBridge[p]!).find((b) => outcome.root[b] !== root);
    if (first === undefined) return [];
    const values = { root: reader.bridgeName(root), limit, first: reader.bridgeName(first) };
    const classic = isClassic(design, design.switches[first]!);
    return [classic ? say['too-deep-classic'](values) : say['too-deep']({ ...values, age })];
  });
}

/** Why a port is designated on a LAN where a root's word ends; null elsewhere. */
export function depthSentence(reader: TreeReader, port: number): string | null {
  const end = endAt(reader, reader.topology.portLan[port]!);
  if (!end) return null;
  const { limit, age, from } = end;
  if (port !== from)
    return say['receives-too-old']({ from: reader.bridgeName(reader.topology.portBridge[from]!), limit, age });
  return say['word-too-old']({ limit, age, disputed: reader.of.outcome.role[port] === ROLE.disputed });
}

/** Why a port is designated and held back by its silence guard; null where it is not. */
export function silenceSentence(reader: TreeReader, port: number): string | null {
  const { outcome, topology } = reader.of;
  if (!outcome.silent?.includes(port)) return null;
  const [far] = peersOf(topology, port);
  return say['silence-guard'](far === undefined ? {} : { far: reader.bridgeName(topology.portBridge[far]!) });
}
