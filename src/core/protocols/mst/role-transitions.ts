/** Port role transitions machine (802.1Q-2018 13.37; 802.1D-2004 17.29), one block a role, rules in the order of the standard. */
import {
  allSynced,
  edgeDelay,
  forwardDelay,
  fwdDelay,
  helloTime,
  reRooted,
  setNewInfo,
  setReRootTree,
  setSyncTree,
} from './procedures';
import type { MstBridge, Port, TreePort } from './variables';

interface Rule {
  readonly name: string;
  readonly when: (tp: TreePort, b: MstBridge) => boolean;
  readonly does: (tp: TreePort, b: MstBridge) => void;
}

const PROPOSED: Rule = {
  name: 'PROPOSED',
  when: (tp) => tp.proposed && !tp.agree,
  does: (tp, b) => {
    setSyncTree(b, tp.tree);
    tp.proposed = false;
  },
};
const agreedRule = (alsoSync: boolean): Rule => ({
  name: 'AGREED',
  when: (tp, b) => (tp.proposed && tp.agree) || (!tp.agree && allSynced(b, tp)),
  does: (tp) => {
    tp.proposed = false;
    if (alsoSync) tp.sync = false;
    tp.agree = true;
    setNewInfo(tp);
  },
});
const learnThen = (allowed: Rule['when']): readonly Rule[] => [
  {
    name: 'FORWARD',
    when: (tp, b) => tp.learn && !tp.forward && cistAllows(tp, 'forward') && allowed(tp, b),
    does: (tp) => {
      tp.forward = true;
      tp.fdWhile = 0;
      if (tp.role !== 'Root') tp.agreed = tp.port.sendRSTP;
    },
  },
  {
    name: 'LEARN',
    when: (tp, b) => !tp.learn && cistAllows(tp, 'learn') && allowed(tp, b),
    does: (tp) => {
      tp.learn = true;
      tp.fdWhile = forwardDelay(tp);
    },
  },
];
const discardOn = (cause: (tp: TreePort) => boolean): Rule => ({
  name: 'DISCARD',
  when: (tp) => (tp.learn || tp.forward) && cause(tp),
  does: (tp) => {
    tp.learn = tp.forward = tp.disputed = false;
    tp.fdWhile = forwardDelay(tp);
  },
});

const ROOT: readonly Rule[] = [
  PROPOSED,
  agreedRule(true),
  {
    name: 'SYNCED',
    when: (tp) => (tp.agreed && !tp.synced) || (tp.sync && tp.synced),
    does: (tp) => {
      tp.synced = true;
      tp.sync = false;
    },
  },
  { name: 'REROOT', when: (tp) => !tp.forward && !tp.reRoot, does: (tp, b) => setReRootTree(b, tp.tree) },
  { name: 'REROOTED', when: (tp) => tp.reRoot && tp.forward, does: (tp) => void (tp.reRoot = false) },
  { name: 'ROOT_PORT', when: (tp) => tp.rrWhile !== fwdDelay(tp), does: (tp) => void (tp.rrWhile = fwdDelay(tp)) },
  ...learnThen((tp, b) => tp.fdWhile === 0 || (reRooted(b, tp) && tp.rbWhile === 0)),
];

const settled: Rule = {
  name: 'SYNCED',
  when: (tp) =>
    (!tp.learning && !tp.forwarding && !tp.synced) ||
    (tp.agreed && !tp.synced) ||
    (tp.port.operEdge && !tp.synced) ||
    (tp.sync && tp.synced),
  does: (tp) => {
    tp.rrWhile = 0;
    tp.synced = true;
    tp.sync = false;
  },
};
const RETIRED: Rule = {
  name: 'RETIRED',
  when: (tp) => tp.rrWhile === 0 && tp.reRoot,
  does: (tp) => void (tp.reRoot = false),
};
const mustWait = (tp: TreePort) => (tp.sync && !tp.synced) || (tp.reRoot && tp.rrWhile !== 0);
const mustStop = (tp: TreePort) =>
  ((mustWait(tp) || tp.disputed || !cistAllows(tp, 'learn')) && !tp.port.operEdge) || tp.port.silent;
const instancesFollow = ({ trees, infoInternal, atBorder }: Port): boolean =>
  trees[0]!.infoIs === 'Received' ? !infoInternal : atBorder;
/**
 * At the border of its region an instance does no more than the CIST: what the CIST stops there could close a loop over
 * the outside in an instance too, which receives no BPDUs from the outside itself.
 */
const cistAllows = ({ tree, port }: TreePort, step: 'learn' | 'forward') =>
  tree === 0 || !instancesFollow(port) || port.trees[0]![step];

const DESIGNATED: readonly Rule[] = [
  {
    name: 'PROPOSE',
    when: (tp) => !tp.forward && !tp.agreed && !tp.proposing && !tp.port.operEdge,
    does: (tp) => {
      tp.proposing = true;
      if (tp.tree === 0) tp.port.edgeDelayWhile = edgeDelay(tp.port);
      setNewInfo(tp);
    },
  },
  {
    name: 'AGREED',
    // The machine of rapid spanning tree alone has no such state (802.1D-2004 17.29.3).
    when: (tp, b) => b.settings.version >= 3 && (tp.proposed || !tp.agree) && allSynced(b, tp),
    does: (tp) => {
      tp.proposed = false;
      tp.agree = true;
      setNewInfo(tp);
    },
  },
  settled,
  RETIRED,
  discardOn(mustStop),
  ...learnThen((tp) => (tp.fdWhile === 0 || tp.agreed || tp.port.operEdge) && !mustWait(tp) && !tp.port.silent),
];

const MASTER: readonly Rule[] = [
  PROPOSED,
  { ...agreedRule(true), does: (tp) => void ((tp.proposed = tp.sync = false), (tp.agree = true)) },
  settled,
  RETIRED,
  discardOn(mustStop),
  ...learnThen((tp, b) => (tp.fdWhile === 0 || allSynced(b, tp)) && !mustWait(tp)),
];

const ALTERNATE: readonly Rule[] = [
  PROPOSED,
  agreedRule(false),
  {
    name: 'ALTERNATE_PORT',
    when: (tp) => tp.fdWhile !== fwdDelay(tp) || tp.sync || tp.reRoot || !tp.synced,
    does: (tp) => {
      tp.fdWhile = fwdDelay(tp);
      tp.synced = true;
      tp.rrWhile = 0;
      tp.sync = tp.reRoot = false;
    },
  },
  {
    name: 'BACKUP_PORT',
    when: (tp) => tp.role === 'Backup' && tp.rbWhile !== 2 * helloTime(tp),
    does: (tp) => void (tp.rbWhile = 2 * helloTime(tp)),
  },
];

const RULES: Record<'Root' | 'Designated' | 'Master' | 'Alternate' | 'Backup', readonly Rule[]> = {
  Root: ROOT,
  Designated: DESIGNATED,
  Master: MASTER,
  Alternate: ALTERNATE,
  Backup: ALTERNATE,
};

/** Takes the selected role on; false when it is on already. */
function takeRole(b: MstBridge, tp: TreePort): boolean {
  if (tp.role === tp.selectedRole) return false;
  tp.role = tp.selectedRole;
  b.effects.push({ kind: 'state', port: tp.port.number, tree: tp.tree });
  switch (tp.role) {
    case 'Root':
      tp.rrWhile = fwdDelay(tp);
      tp.prt = 'ACTIVE';
      break;
    case 'Disabled':
    case 'Alternate':
    case 'Backup':
      tp.learn = tp.forward = false;
      tp.prt = 'BLOCK';
      break;
    case 'Designated':
    case 'Master':
      tp.prt = 'ACTIVE';
      break;
  }
  return true;
}

/** BLOCK_PORT and DISABLE_PORT wait until the port has stopped. */
function stop(tp: TreePort): boolean {
  if (tp.learning || tp.forwarding) return false;
  tp.prt = tp.role === 'Disabled' ? 'DISABLED' : 'ACTIVE';
  tp.fdWhile = tp.role === 'Disabled' ? tp.designatedTimes.maxAge : fwdDelay(tp);
  tp.synced = true;
  tp.rrWhile = 0;
  tp.sync = tp.reRoot = false;
  return true;
}

function disabledStep(tp: TreePort): boolean {
  const { maxAge } = tp.designatedTimes;
  if (tp.fdWhile === maxAge && !tp.sync && !tp.reRoot && tp.synced) return false;
  tp.fdWhile = maxAge;
  tp.synced = true;
  tp.rrWhile = 0;
  tp.sync = tp.reRoot = false;
  return true;
}

/** One transition; false when nothing moves the machine. */
export function roleTransitionsStep(b: MstBridge, tp: TreePort): boolean {
  if (!tp.selected || tp.updtInfo) return false;
  if (takeRole(b, tp)) return true;
  if (tp.prt === 'BLOCK') return stop(tp);
  if (tp.role === 'Disabled') return disabledStep(tp);
  const rules = RULES[tp.role];
  for (let i = 0; i < rules.length; i++) {
    const rule = rules[i]!;
    if (rule.when(tp, b)) {
      rule.does(tp, b);
      return true;
    }
  }
  return false;
}
