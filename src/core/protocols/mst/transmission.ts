/** What a port says: flags, hellos, and the procedures that transmit (802.1Q-2018 13.29; 802.1D-2004 17.21). */
import { FLAG, NOTIFICATION, encodeBpdu, roleFlags } from '../frames';
import type { Bpdu, FlagRole, MstiPart } from '../frames';
import type { Times } from '../times';
import type { MstBridge, Port, Said, Told, TreePort } from './variables';
import { OCTET_SECONDS } from '../../standard';

/** The flags of a tree at a port: what it is and what it wants (14.4.1). */
function flagsOf(tp: TreePort, role: FlagRole): number {
  return (
    (tp.tcWhile !== 0 ? FLAG.topologyChange : 0) |
    (tp.proposing ? FLAG.proposal : 0) |
    roleFlags(role) |
    (tp.learning && !tp.port.heldBack ? FLAG.learning : 0) |
    (tp.forwarding && !tp.port.heldBack ? FLAG.forwarding : 0) |
    (tp.agree ? FLAG.agreement : 0)
  );
}
const SPOKEN: Record<TreePort['role'], FlagRole> = {
  Disabled: 'unknown',
  Root: 'root',
  Designated: 'designated',
  Alternate: 'alternate',
  Backup: 'alternate',
  Master: 'unknown',
};

const timesOut = (t: Times) => ({
  messageAge: Math.round(t.messageAge * OCTET_SECONDS),
  maxAge: t.maxAge * OCTET_SECONDS,
  helloTime: t.helloTime * OCTET_SECONDS,
  forwardDelay: t.forwardDelay * OCTET_SECONDS,
});

function mstiParts(b: MstBridge, p: Port): MstiPart[] {
  const parts: MstiPart[] = [];
  for (let t = 1; t < b.trees.length; t++) {
    const tp = p.trees[t]!;
    const v = tp.designatedPriority;
    parts.push({
      flags: tells(tp),
      regionalPriority: v.regionalPriority,
      regionalMac: v.regionalMac,
      internalCost: v.internalCost,
      bridgePriority: (v.bridgePriority >> 8) & 0xf0,
      portPriority: (tp.portId >> 8) & 0xf0,
      hops: tp.designatedTimes.hops,
    });
  }
  return parts;
}

/** The flags of a tree at a port as they are sent; in those of an instance, one bit tells of the master. */
function tells(tp: TreePort): number {
  return flagsOf(tp, SPOKEN[tp.role]) | (tp.tree > 0 && tp.master ? FLAG.acknowledgement : 0);
}

const toldOf = (tp: TreePort): Told => ({
  flags: tells(tp),
  portId: tp.portId,
  vector: tp.designatedPriority,
  times: tp.designatedTimes,
});
const tellsAgain = (tp: TreePort, { flags, portId, vector, times }: Told): boolean =>
  tp.designatedPriority === vector && tp.designatedTimes === times && tp.portId === portId && tells(tp) === flags;

/** Whether a port would say again what it said. */
export function saysAgain({ trees }: Port, { told, instances }: Said): boolean {
  if (!tellsAgain(trees[0]!, told)) return false;
  for (let i = 0; i < instances.length; i++) if (!tellsAgain(trees[i + 1]!, instances[i]!)) return false;
  return true;
}

/** txRstp: an RST BPDU, or with instances an MST BPDU; octets that were sent before where nothing that they tell has moved. */
export function txRstp(b: MstBridge, p: Port): void {
  const { sentBefore: before, sentEarlier: earlier } = p;
  if (!before || !saysAgain(p, before)) {
    p.sentBefore = earlier && saysAgain(p, earlier) ? earlier : saysAnew(b, p);
    p.sentEarlier = before;
  }
  b.effects.push({ kind: 'send', port: p.number, octets: p.sentBefore!.octets });
}

const NO_INSTANCES: readonly Told[] = [];
const saysAnew = (b: MstBridge, p: Port): Said => ({
  octets: encodeBpdu(rstBpdu(b, p)),
  told: toldOf(p.trees[0]!),
  instances: p.trees.length > 1 ? p.trees.slice(1).map(toldOf) : NO_INSTANCES,
});

/** What a port says in the rapid protocol: a function of what `tells`, `designatedPriority`, `designatedTimes` and `portId` say. */
function rstBpdu(b: MstBridge, p: Port): Bpdu {
  const tp = p.trees[0]!;
  const v = tp.designatedPriority;
  const { configuration, version } = b.settings;
  const common = {
    flags: tells(tp),
    rootPriority: v.rootPriority,
    rootMac: v.rootMac,
    rootPathCost: v.externalCost,
    port: tp.portId,
    ...timesOut(tp.designatedTimes),
  };
  return version === 3 && configuration
    ? {
        type: 'mst',
        ...common,
        bridgePriority: v.regionalPriority,
        bridgeMac: v.regionalMac,
        mst: {
          configuration,
          internalCost: v.internalCost,
          bridgePriority: v.bridgePriority,
          bridgeMac: v.bridgeMac,
          hops: tp.designatedTimes.hops,
          instances: mstiParts(b, p),
        },
      }
    : { type: 'rst', ...common, bridgePriority: v.bridgePriority, bridgeMac: v.bridgeMac };
}

/** Whether a port sends a BPDU when its hello is due (TRANSMIT_PERIODIC). */
export const greets = (p: Port): boolean =>
  p.silenceGuard ||
  greetsIn(p.trees[0]!) ||
  (p.trees.some((tp) => tp.tree > 0 && greetsIn(tp)) && !p.trees.some(isMaster));
export const greetsIn = (tp: TreePort): boolean => tp.role === 'Designated' || (tp.role === 'Root' && tp.tcWhile !== 0);
export const isMaster = (tp: TreePort): boolean => tp.role === 'Master';

/** txConfig: a configuration BPDU for a neighbour of classic spanning tree. */
export function txConfig(b: MstBridge, p: Port): void {
  const tp = p.trees[0]!;
  const v = tp.designatedPriority;
  const octets = encodeBpdu({
    type: 'config',
    flags: (tp.tcWhile !== 0 ? FLAG.topologyChange : 0) | (p.tcAck ? FLAG.acknowledgement : 0),
    rootPriority: v.rootPriority,
    rootMac: v.rootMac,
    rootPathCost: v.externalCost,
    bridgePriority: v.bridgePriority,
    bridgeMac: v.bridgeMac,
    port: tp.portId,
    ...timesOut(tp.designatedTimes),
  });
  b.effects.push({ kind: 'send', port: p.number, octets });
}

export const txTcn = (b: MstBridge, p: Port): void =>
  void b.effects.push({ kind: 'send', port: p.number, octets: encodeBpdu(NOTIFICATION) });
