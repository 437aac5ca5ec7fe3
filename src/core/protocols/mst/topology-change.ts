/** Topology change machine (802.1Q-2018 13.39; 802.1D-2004 17.31). */
import { carries, newTcWhile, setNewInfo, setTcPropTree } from './procedures';
import type { MstBridge, TreePort } from './variables';

function flush(b: MstBridge, tp: TreePort): void {
  b.effects.push({ kind: 'flush', ports: [tp.port.number], tree: tp.tree });
}

const told = (tp: TreePort) => tp.rcvdTc || tp.tcProp || (tp.tree === 0 && (tp.port.rcvdTcn || tp.port.rcvdTcAck));

function forget(tp: TreePort): void {
  if (tp.tree === 0) tp.port.rcvdTcn = tp.port.rcvdTcAck = false;
  tp.rcvdTc = tp.tcProp = false;
}

function activeStep(b: MstBridge, tp: TreePort): boolean {
  const { port } = tp;
  if (!carries(tp) || port.operEdge) {
    tp.tcm = 'LEARNING';
    return true;
  }
  if (tp.tree === 0 && port.rcvdTcn) {
    newTcWhile(b, tp);
    tp.rcvdTc = true;
    port.rcvdTcn = false;
    return true;
  }
  if (tp.rcvdTc) {
    tp.rcvdTc = false;
    if (tp.tree === 0 && tp.role === 'Designated') port.tcAck = true;
    setTcPropTree(b, tp);
    return true;
  }
  if (tp.tcProp) {
    newTcWhile(b, tp);
    flush(b, tp);
    tp.tcProp = false;
    return true;
  }
  if (tp.tree === 0 && port.rcvdTcAck) {
    tp.tcWhile = 0;
    port.rcvdTcAck = false;
    return true;
  }
  return false;
}

/** One transition; false when nothing moves the machine. */
export function topologyChangeStep(b: MstBridge, tp: TreePort): boolean {
  switch (tp.tcm) {
    case 'INACTIVE':
      if (!tp.learn) return false;
      forget(tp);
      tp.tcm = 'LEARNING';
      return true;
    case 'LEARNING':
      if (carries(tp) && tp.forward && !tp.port.operEdge) {
        // DETECTED: a port that starts to carry is a change.
        newTcWhile(b, tp);
        setTcPropTree(b, tp);
        setNewInfo(tp);
        tp.tcm = 'ACTIVE';
        return true;
      }
      if (told(tp)) {
        forget(tp);
        return true;
      }
      if (!carries(tp) && !tp.learn && !tp.learning) {
        tp.tcm = 'INACTIVE';
        tp.tcWhile = 0;
        if (tp.tree === 0) tp.port.tcAck = false;
        flush(b, tp);
        return true;
      }
      return false;
    case 'ACTIVE':
      return activeStep(b, tp);
  }
}
