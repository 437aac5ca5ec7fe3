/** Port protocol migration machine (802.1Q-2018 13.32; 802.1D-2004 17.24): whether the neighbour is spoken to in classic BPDUs. */
import type { Port } from './variables';
import { MIGRATE_TIME } from '../../standard';

/** One transition; false when nothing moves the machine. */
export function migrationStep(p: Port): boolean {
  switch (p.ppm) {
    case 'CHECKING_RSTP':
      if (p.mdelayWhile !== MIGRATE_TIME && !p.portEnabled) {
        check(p);
        return true;
      }
      if (p.mdelayWhile !== 0) return false;
      break;
    case 'SELECTING_STP':
      if (p.mdelayWhile !== 0 && p.portEnabled && !p.mcheck) return false;
      break;
    case 'SENSING':
      if (!p.portEnabled || p.mcheck || (!p.sendRSTP && p.rcvdRSTP)) {
        check(p);
        return true;
      }
      if (!p.sendRSTP || !p.rcvdSTP) return false;
      p.sendRSTP = false;
      p.mdelayWhile = MIGRATE_TIME;
      p.ppm = 'SELECTING_STP';
      for (const tp of p.trees) tp.reselect = true;
      return true;
  }
  p.rcvdRSTP = p.rcvdSTP = false;
  p.ppm = 'SENSING';
  return true;
}

function check(p: Port): void {
  p.mcheck = false;
  if (!p.sendRSTP) for (const tp of p.trees) tp.reselect = true;
  p.sendRSTP = true;
  p.mdelayWhile = MIGRATE_TIME;
  p.rcvdRSTP = p.rcvdSTP = false;
  p.ppm = 'CHECKING_RSTP';
}
