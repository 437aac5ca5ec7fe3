/** Port transmit machine (802.1Q-2018 13.34; 802.1D-2004 17.26): hellos, and news no faster than the hold count allows. */
import { greetsIn, isMaster, txConfig, txRstp, txTcn } from './transmission';
import type { MstBridge, Port } from './variables';

/** One transition; false when nothing moves the machine. */
export function transmitStep(b: MstBridge, p: Port): boolean {
  if (!p.portEnabled || !p.enableBPDUtx) {
    if (p.txCount === 0 && p.helloWhen === 0 && p.newInfo) return false;
    p.txCount = 0;
    p.helloWhen = 0;
    p.newInfo = true;
    return true;
  }
  const cist = p.trees[0]!;
  for (const tp of p.trees) if (!tp.selected || tp.updtInfo) return false;
  if (p.helloWhen === 0) {
    // TRANSMIT_PERIODIC
    p.newInfo ||= greetsIn(cist) || p.silenceGuard;
    for (let t = 1; t < p.trees.length; t++) p.newInfoMsti ||= greetsIn(p.trees[t]!);
    p.helloWhen = cist.designatedTimes.helloTime;
    return true;
  }
  if (p.txCount >= b.settings.timers.holdCount) return false;
  if (p.sendRSTP) {
    if (!p.newInfo && !(p.newInfoMsti && !p.trees.some(isMaster))) return false;
    p.newInfo = p.newInfoMsti = false;
    txRstp(b, p);
  } else {
    if (!p.newInfo) return false;
    p.newInfo = p.newInfoMsti = false;
    if (cist.role === 'Designated') txConfig(b, p);
    else if (cist.role === 'Root' && cist.tcWhile !== 0) txTcn(b, p);
    else return true;
  }
  p.txCount++;
  p.tcAck = false;
  // Every way back to IDLE.
  p.helloWhen = cist.designatedTimes.helloTime;
  return true;
}
