/**
 * Why: the candidates of a decision with their vectors, the part that decided, and one sentence. Reads the outcome
 * and repeats the comparison with the comparators of the standard; it changes nothing.
 */
import { comparePriorityVector, compareBridgeId, decidingPart } from '../standard';
import { treeOnSwitch } from './many';
import type { SolvedDesign, SolvedTree } from './solved';
import { roleAt, rootsOf } from './state';
import { depthSentence, silenceSentence } from './depth-sentences';
import * as say from './sentences';
import { heldIn } from './untagged';
import type { Candidate, Contest, Ledger } from './candidates';
import { TreeReader } from './candidates';

function decide(kind: Contest['kind'], title: string, entries: Omit<Candidate, 'wins' | 'lostBy'>[]): Contest {
  const sorted = [...entries].sort((a, b) => comparePriorityVector(a.vector, b.vector));
  const winner = sorted.find((e) => e.barred === null);
  const candidates = sorted.map((entry) => ({
    ...entry,
    wins: entry === winner,
    lostBy: entry === winner || entry.barred || !winner ? null : decidingPart(winner.vector, entry.vector),
  }));
  return { kind, title, candidates, decidedBy: candidates.find((c) => c.lostBy !== null)?.lostBy ?? null };
}

/** The election of a root: every bridge of its part of the network, best identifier first. */
export function electionContest(reader: TreeReader, root: number): Contest {
  const { outcome } = reader.of;
  const bridges = [...outcome.root.keys()].filter((b) => outcome.root[b] === root);
  const sorted = bridges.sort((a, b) => compareBridgeId(reader.bridgeId(a), reader.bridgeId(b)));
  const winner = reader.bridgeId(sorted[0]!);
  const candidates = sorted.map((bridge, i) => ({
    bridge,
    port: null,
    vector: reader.own(bridge),
    wins: i === 0,
    lostBy:
      i === 0 ? null : reader.bridgeId(bridge).priority !== winner.priority ? ('priority' as const) : ('mac' as const),
    barred: null,
    own: true,
  }));
  return {
    kind: 'election',
    title: 'Bridge identifiers, lowest wins',
    candidates,
    decidedBy: candidates[1]?.lostBy ?? null,
  };
}

/** How a bridge chose its root port: everything it hears, and its own claim to be the root. */
export function rootPortContest(reader: TreeReader, bridge: number): Contest {
  const own = reader.own(bridge);
  const heard = reader.bridgePorts(bridge).flatMap((port) => {
    const vector = reader.received(port);
    if (!vector) return [];
    const from = reader.of.outcome.designatedPort[reader.topology.portLan[port]!]!;
    const fromBridge = reader.topology.portBridge[from]!;
    const restricted = reader.of.problem.portRestricted?.[port] === 1;
    const barred = fromBridge === bridge ? ('own-offer' as const) : restricted ? ('root-guard' as const) : null;
    return [{ bridge: fromBridge, port, vector, barred, own: false }];
  });
  return decide('received', `Received by ${reader.bridgeName(bridge)}, port cost added`, [
    ...heard,
    { bridge, port: null, vector: own, barred: null, own: true },
  ]);
}

/** Who is designated on a LAN: what each of its ends offers there. */
export function lanContest(reader: TreeReader, lan: number): Contest {
  return decide(
    'lan',
    'Offered on this LAN by each end',
    reader.lanPorts(lan).map((port) => ({
      bridge: reader.topology.portBridge[port]!,
      port,
      vector: reader.offer(port),
      barred: null,
      own: false,
    })),
  );
}

/** Why this root: the election in the largest part of the network that has the tree, and in each other part. */
export function explainTree(solved: SolvedDesign, of: SolvedTree): Ledger {
  const reader = new TreeReader(solved, of);
  const roots = rootsOf(of);
  const out = roots.length > 0 ? say.joinedRootSentence(reader, roots[0]!, 'joined-tree') : null;
  if (out) return { sentence: out, contests: [] };
  const contests = roots.map((root) => electionContest(reader, root));
  return { sentence: say.treeSentence(reader, contests), contests };
}

/** Why a switch is the root, or why it has this root port. */
export function explainSwitch(solved: SolvedDesign, of: SolvedTree, bridge: number): Ledger {
  const reader = new TreeReader(solved, of);
  const root = of.outcome.root[bridge]!;
  if (root < 0) return { sentence: say.noTreeSentence(reader, bridge), contests: [] };
  const joined = say.joinedRootSentence(reader, bridge, 'joined-root');
  if (joined) return { sentence: joined, contests: [] };
  if (root === bridge) {
    const contest = electionContest(reader, bridge);
    return { sentence: say.rootSentence(reader, contest), contests: [contest] };
  }
  const contest = rootPortContest(reader, bridge);
  return {
    sentence: say.rootPortSentence(reader, bridge, contest),
    contests: [contest, electionContest(reader, root)],
  };
}

/**
 * The tree that decides a port's role where it is not the one in question: the CIST at the boundary of a region, or
 * what a switch without trees per VLAN runs.
 */
function followed(solved: SolvedDesign, of: SolvedTree, port: number): SolvedTree | null {
  const role = roleAt(of, port);
  if (of.problem.portTakesPart[port] || role === 'none' || role === 'disabled') return null;
  if (of.tree.vlan === null) return solved.trees[0]!;
  const tree = treeOnSwitch(solved, of.topology.portBridge[port]!, of.tree.vlan);
  return tree === of ? null : tree;
}

/** Why a port has its role. */
export function explainPort(solved: SolvedDesign, of: SolvedTree, port: number): Ledger {
  const ledger = explainRole(solved, of, port);
  const extras = [say.joinedSentence(solved, port), say.loopingSentence(solved.topology, of, port)];
  return { ...ledger, sentence: [ledger.sentence, ...extras].filter((s) => s !== null).join(' ') };
}

function explainRole(solved: SolvedDesign, of: SolvedTree, port: number): Ledger {
  const reader = new TreeReader(solved, of);
  const { portLan, portBridge } = of.topology;
  const role = roleAt(of, port);
  const follows = followed(solved, of, port);
  if (follows) {
    const ledger = explainRole(solved, follows, port);
    return { ...ledger, sentence: say.followsSentence(reader, port, follows, role, ledger.sentence) };
  }
  if (role === 'none') return { sentence: say.outsideSentence(reader, port), contests: [] };
  if (role === 'disabled') return { sentence: say.downSentence(reader, port), contests: [] };
  if (heldIn(solved.topology, of.tree.vlan).includes(port))
    return { sentence: say.heldSentence(solved.topology, port), contests: [] };
  const joined = say.joinedRoleSentence(reader, port, role);
  if (joined) return { sentence: joined, contests: [] };
  const bridge = portBridge[port]!;
  const lan = lanContest(reader, portLan[port]!);
  if (role === 'root') {
    const contest = rootPortContest(reader, bridge);
    return { sentence: say.rootPortSentence(reader, bridge, contest), contests: [contest, lan] };
  }
  if (role === 'designated' || role === 'master' || role === 'disputed')
    return {
      sentence:
        silenceSentence(reader, port) ??
        depthSentence(reader, port) ??
        say.filterSentence(solved.topology, port) ??
        say.deafSentence(solved.topology, port) ??
        say.designatedSentence(reader, port, lan),
      contests: [lan],
    };
  const contests = of.outcome.root[bridge] === bridge ? [lan] : [lan, rootPortContest(reader, bridge)];
  const guarded = role === 'alternate' ? say.rootGuardSentence(reader, port) : null;
  return { sentence: guarded ?? say.blockedSentence(reader, port, role, lan), contests };
}

/**
 * Whether a root owes its place to its MAC address alone: the next best bridge has the same priority, so the older
 * box with the lower address wins.
 */
export function isMacOnlyRoot(solved: SolvedDesign, of: SolvedTree, root: number): boolean {
  const [best, second] = firstTwo(of, root);
  if (second < 0) return false;
  const reader = new TreeReader(solved, of);
  return reader.bridgeId(best).priority === reader.bridgeId(second).priority;
}

/** Who becomes root when a root goes: the next best bridge of its part of the network; −1 when there is none. */
export const nextRoot = (of: SolvedTree, root: number): number => firstTwo(of, root)[1];

/** The two best bridges of the part of the network that has a root; −1 for those that it has not. */
function firstTwo({ outcome }: SolvedTree, root: number): readonly [number, number] {
  let [best, second] = [-1, -1];
  for (let b = 0; b < outcome.root.length; b++) {
    if (outcome.root[b] !== root) continue;
    const better = (than: number) => than < 0 || outcome.rank[b]! < outcome.rank[than]!;
    if (better(best)) [best, second] = [b, best];
    else if (better(second)) second = b;
  }
  return [best, second];
}
