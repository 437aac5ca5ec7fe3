/** Port state transition machine (802.1Q-2018 13.38; 802.1D-2004 17.30). */
import type { MstBridge, TreePort } from './variables';

/** One transition; false when nothing moves the machine. */
export function stateTransitionStep(b: MstBridge, tp: TreePort): boolean {
  switch (tp.pst) {
    case 'DISCARDING':
      if (!tp.learn) return false;
      tp.learning = true;
      tp.pst = 'LEARNING';
      break;
    case 'LEARNING':
      if (!tp.learn) {
        tp.learning = false;
        tp.pst = 'DISCARDING';
      } else if (tp.forward) {
        tp.forwarding = true;
        tp.pst = 'FORWARDING';
      } else return false;
      break;
    case 'FORWARDING':
      if (tp.forward) return false;
      tp.learning = tp.forwarding = false;
      tp.pst = 'DISCARDING';
      break;
  }
  b.effects.push({ kind: 'state', port: tp.port.number, tree: tp.tree });
  return true;
}
