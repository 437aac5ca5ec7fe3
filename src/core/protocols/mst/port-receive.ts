/** Port receive machine (802.1Q-2018 13.31; 802.1D-2004 17.23): a BPDU as octets. */
import { decodeBpdu, sameButFlags } from '../frames';
import { fromSameRegion, rcvMsgs } from './message-reception';
import type { MstBridge, Port } from './variables';
import { MIGRATE_TIME } from '../../standard';

export function portReceive(b: MstBridge, p: Port, octets: Uint8Array): void {
  if (!p.portEnabled || !p.enableBPDUrx) return;
  // Most often no more than flags have changed since the BPDU before.
  const again =
    p.bpdu !== null && p.octets !== null && p.bpdu.type !== 'notification' && sameButFlags(p.octets, octets);
  const bpdu = again ? p.bpdu : decodeBpdu(octets);
  if (!bpdu) return;
  p.bpdu = bpdu;
  p.octets = octets;
  // updtBPDUVersion
  if (bpdu.type === 'config' || bpdu.type === 'notification') p.rcvdSTP = true;
  else p.rcvdRSTP = true;
  p.rcvdInternal = fromSameRegion(b, bpdu);
  p.atBorder = !p.rcvdInternal;
  rcvMsgs(b, p, bpdu, octets, again);
  p.operEdge = false;
  p.edgeDelayWhile = MIGRATE_TIME;
  p.breakSilence();
}
