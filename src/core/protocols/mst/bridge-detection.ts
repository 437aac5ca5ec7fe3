/** Bridge detection machine (802.1Q-2018 13.33; 802.1D-2004 17.25): whether only end devices are there. */
import type { Port } from './variables';

/** One transition; false when nothing moves the machine. */
export function bridgeDetectionStep(p: Port): boolean {
  if (p.bdm === 'EDGE') {
    if (((p.portEnabled && p.autoEdge) || p.adminEdge) && p.operEdge) return false;
    p.operEdge = false;
    p.bdm = 'NOT_EDGE';
    return true;
  }
  const quiet = p.portEnabled && p.edgeDelayWhile === 0 && p.autoEdge && p.sendRSTP && p.trees[0]!.proposing;
  if (!(!p.portEnabled && p.adminEdge) && !quiet) return false;
  p.operEdge = true;
  p.bdm = 'EDGE';
  return true;
}
