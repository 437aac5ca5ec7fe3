/** What a BPDU says to each tree (rcvMsgs of 802.1Q-2018 13.29). */
import { flagsIn, sameOctets } from '../frames';
import type { Bpdu, MstPart, MstiPart } from '../frames';
import { cistMessage, mstiMessage } from '../messages';
import { sameTimes } from '../times';
import { OCTET_SECONDS, compareVectors } from '../../standard';
import type { Times } from '../times';
import type { Vector } from '../../standard';
import type { MstBridge, Port, TreePort } from './variables';

/** fromSameRegion: an MST BPDU with the very configuration of this bridge. */
export function fromSameRegion(b: MstBridge, bpdu: Bpdu): boolean {
  const own = b.settings.configuration;
  return bpdu.mst !== undefined && own !== null && sameOctets(own, bpdu.mst.configuration);
}

/** rcvMsgs: unpacks a BPDU into the message of every tree it is about. `again`: all but its flags is as in the one before. */
export function rcvMsgs(b: MstBridge, p: Port, bpdu: Bpdu, octets: Uint8Array, again: boolean): void {
  const cist = p.trees[0]!;
  if (bpdu.type === 'notification') return void (p.rcvdTcn = true);
  // A rapid bridge reads no further than an RST BPDU goes: the regional root is the bridge to it (802.1Q-2018 14.5).
  const mst = b.settings.version >= 3 ? bpdu.mst : undefined;
  cist.rcvdMsg = true;
  cist.msgFlags = flagsIn(octets, 0);
  if (!again) takeCistMessage(b, cist, bpdu, mst);
  if (!p.rcvdInternal || !mst) return;
  mst.instances.forEach((part, i) => {
    const tree = b.trees.findIndex((t, at) => at > 0 && t.instance === (part.regionalPriority & 0xfff));
    if (tree < 0) return;
    const tp = p.trees[tree]!;
    tp.rcvdMsg = true;
    tp.msgFlags = flagsIn(octets, i + 1);
    if (!again) takeMstiMessage(tp, bpdu, mst, part);
  });
}

/** Timers count whole seconds. */
const wholeSeconds = (octets: number): number => Math.floor(octets / OCTET_SECONDS);

function takeCistMessage(b: MstBridge, cist: TreePort, bpdu: Bpdu, mst: MstPart | undefined): void {
  cist.msgPriority = sameOr(cist.msgPriority, cistMessage(bpdu, mst));
  cist.msgTimes = sameTimesOr(cist.msgTimes, {
    messageAge: bpdu.messageAge / OCTET_SECONDS,
    maxAge: wholeSeconds(bpdu.maxAge),
    forwardDelay: wholeSeconds(bpdu.forwardDelay),
    helloTime: Math.max(1, wholeSeconds(bpdu.helloTime)),
    hops: mst && cist.port.rcvdInternal ? mst.hops : b.settings.timers.maxHops,
  });
}

function takeMstiMessage(tp: TreePort, bpdu: Bpdu, mst: MstPart, part: MstiPart): void {
  tp.msgPriority = sameOr(tp.msgPriority, mstiMessage(bpdu, mst, part));
  const { maxAge, forwardDelay: delay, helloTime: hello } = tp.port.trees[0]!.msgTimes;
  tp.msgTimes = sameTimesOr(tp.msgTimes, {
    messageAge: 0,
    maxAge,
    forwardDelay: delay,
    helloTime: hello,
    hops: part.hops,
  });
}

/** The one before where the new one is no other: what compares it later sees so at once. */
const sameOr = (before: Vector, now: Vector): Vector => (compareVectors(before, now) === 0 ? before : now);
const sameTimesOr = (before: Times, now: Times): Times => (sameTimes(before, now) ? before : now);
