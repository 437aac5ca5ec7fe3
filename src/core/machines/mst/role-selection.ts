/** Port role selection machine (802.1Q-2018 13.36; 802.1D-2004 17.28). */
import { infoDiffers } from './procedures';
import { compareVectors } from './vectors';
import type { Times, Vector } from './vectors';
import type { BridgeTree, MachineRole, MstBridge, TreePort } from './variables';

/** The bridge's own vector for a tree. */
export function bridgeVector(b: MstBridge, tree: number): Vector {
  const { bridgePriority } = b.trees[tree]!;
  const { mac } = b.settings;
  return {
    rootPriority: tree === 0 ? bridgePriority : 0,
    rootMac: tree === 0 ? mac : 0,
    externalCost: 0,
    regionalPriority: bridgePriority,
    regionalMac: mac,
    internalCost: 0,
    bridgePriority,
    bridgeMac: mac,
    port: 0,
  };
}

export function bridgeTimes(b: MstBridge): Times {
  const { helloTime, maxAge, forwardDelay, maxHops } = b.settings.timers;
  return { messageAge: 0, maxAge, forwardDelay, helloTime, hops: maxHops };
}

/** The vector of a way to the root over this port: what it holds, with the cost of receiving it added (13.10, 13.11). */
function rootPathVector(b: MstBridge, tp: TreePort): Vector {
  const v = tp.portPriority;
  if (tp.tree > 0 || tp.port.infoInternal) return { ...v, internalCost: v.internalCost + tp.internalPathCost };
  return {
    ...v,
    externalCost: v.externalCost + tp.externalPathCost,
    regionalPriority: b.trees[0]!.bridgePriority,
    regionalMac: b.settings.mac,
    internalCost: 0,
  };
}

function timesOver(tp: TreePort, own: Times): Times {
  const t = tp.portTimes;
  if (tp.tree > 0) return { ...own, hops: t.hops - 1 };
  return tp.port.infoInternal
    ? { ...t, helloTime: t.helloTime, hops: t.hops - 1 }
    : { ...t, messageAge: Math.floor(t.messageAge + 1), hops: own.hops };
}

/** Whether the CIST hears another region, or none, at the port: instances follow it there. */
function atBorder({ port }: TreePort): boolean {
  return port.trees[0]!.infoIs === 'Received' && !port.infoInternal;
}

/** Whether what a port holds may make it root port. */
const mayBeRoot = (b: MstBridge, tp: TreePort): boolean =>
  tp.infoIs === 'Received' &&
  !tp.port.restrictedRole &&
  tp.portPriority.bridgeMac !== b.settings.mac &&
  // An instance has no way to its regional root over the border of the region.
  (tp.tree === 0 || !atBorder(tp));

function chooseRoot(b: MstBridge, tree: BridgeTree, index: number): void {
  const own = bridgeVector(b, index);
  let best = own;
  let port: TreePort | null = null;
  for (const p of b.ports) {
    const tp = p.trees[index]!;
    if (!mayBeRoot(b, tp)) continue;
    const vector = rootPathVector(b, tp);
    const order = compareVectors(vector, best);
    if (order < 0 || (order === 0 && port !== null && tp.portId < port.portId)) {
      best = vector;
      port = tp;
    }
  }
  tree.rootPort = port;
  tree.rootPriority = best;
  tree.rootTimes = port ? timesOver(port, bridgeTimes(b)) : bridgeTimes(b);
}

/** What the bridge would say through a port. */
function designatedVector(b: MstBridge, tree: BridgeTree, tp: TreePort): Vector {
  const v = tree.rootPriority;
  const own = tree.bridgePriority;
  const { mac, version } = b.settings;
  // Where the neighbour knows no regions, and in a bridge without them, the bridge speaks for itself.
  const alone = tp.tree === 0 && (version < 3 || !tp.port.sendRSTP);
  return {
    ...v,
    ...(alone ? { regionalPriority: own, regionalMac: mac, internalCost: 0 } : {}),
    bridgePriority: own,
    bridgeMac: mac,
    port: tp.portId,
  };
}

function roleOf(b: MstBridge, tree: BridgeTree, tp: TreePort): MachineRole {
  const cist = tp.port.trees[0]!;
  // On the border of the region an instance follows the CIST.
  if (tp.tree > 0 && atBorder(tp)) {
    if (cist.selectedRole === 'Root') return 'Master';
    if (cist.selectedRole === 'Alternate' || cist.selectedRole === 'Backup') return 'Alternate';
  }
  switch (tp.infoIs) {
    case 'Disabled':
      return 'Disabled';
    case 'Aged':
    case 'Mine':
      return tp.port.loopInconsistent ? 'Alternate' : 'Designated';
    case 'Received':
      if (tree.rootPort === tp) return 'Root';
      if (
        compareVectors(tp.designatedPriority, tp.portPriority) < 0 &&
        !(tp.port.restrictedRole && betterRoot(tree, tp))
      )
        return 'Designated';
      return tp.portPriority.bridgeMac === b.settings.mac ? 'Backup' : 'Alternate';
  }
}

/** Whether a port that may not be root port hears of a better root: it is held back while it does (root guard). */
const betterRoot = (tree: BridgeTree, tp: TreePort): boolean =>
  compareVectors({ ...tp.portPriority, port: 0 }, { ...tree.rootPriority, port: 0 }) < 0;

/** updtRolesTree */
function updtRolesTree(b: MstBridge, index: number): void {
  const tree = b.trees[index]!;
  chooseRoot(b, tree, index);
  const hello = b.settings.timers.helloTime;
  for (const p of b.ports) {
    const tp = p.trees[index]!;
    tp.designatedPriority = designatedVector(b, tree, tp);
    tp.designatedTimes = { ...tree.rootTimes, helloTime: tree.rootPort ? tree.rootTimes.helloTime : hello };
    tp.selectedRole = roleOf(b, tree, tp);
    const mine = tp.infoIs === 'Aged' || (tp.infoIs === 'Mine' && infoDiffers(tp));
    const follows = tp.tree > 0 && atBorder(tp) && tp.selectedRole !== 'Designated';
    tp.updtInfo =
      tp.infoIs === 'Received' ? tp.selectedRole === 'Designated' && !follows : tp.infoIs === 'Disabled' ? false : mine;
  }
}

/** Whether the port of a tree is the master port or leads to one: what instances say on inside the region (syncMaster). */
function updateMaster(b: MstBridge, index: number): void {
  const anyMastered = b.ports.some((p) => p.trees[index]!.mastered && p.trees[index]!.selectedRole === 'Designated');
  const anyMaster = b.ports.some((p) => p.trees[index]!.selectedRole === 'Master');
  for (const p of b.ports) {
    const tp = p.trees[index]!;
    tp.master = (anyMaster && tp.selectedRole === 'Root') || (anyMastered && tp.selectedRole === 'Root');
  }
}

/** One transition of a tree's machine; false when nothing moves it. */
export function roleSelectionStep(b: MstBridge, index: number): boolean {
  let asked = false;
  for (const p of b.ports) if (p.trees[index]!.reselect) asked = true;
  if (!asked) return false;
  for (const p of b.ports) p.trees[index]!.reselect = false;
  updtRolesTree(b, index);
  if (index > 0) updateMaster(b, index);
  for (const p of b.ports) p.trees[index]!.selected = true;
  // Instances follow the CIST at the border: what moved there moves them.
  if (index === 0)
    for (let t = 1; t < b.trees.length; t++)
      for (const p of b.ports) {
        p.trees[t]!.reselect = true;
        p.trees[t]!.selected = false;
      }
  return true;
}
