/** Information OAMPDUs to octets and back (802.3-2018 clauses 57.4 and 57.5): keepalives of a link, from the subtype on. */
import { putNumber, takeNumber } from './fields';

const SUBTYPE = 3;
/** Code of an Information OAMPDU. */
const INFORMATION = 0;
/** Subtype, flags and code, and the two information fields with the end mark behind them. */
const LENGTH = 4 + 16 + 16 + 1;
const LOCAL = { type: 1, at: 4 } as const;
const REMOTE = { type: 2, at: 20 } as const;
const INFO_LENGTH = 16;
const FLAGS = { linkFault: 0x01, localEvaluating: 0x08, localStable: 0x10, remoteStable: 0x40 } as const;
/** Active mode; the largest OAMPDU that is understood. */
const CONFIGURATION = 0x01;
const LARGEST = 1518;

export interface Oampdu {
  /** The sender hears nothing (Link Fault). */
  readonly fault: boolean;
  /** The sender hears the other end, and says so. */
  readonly hears: boolean;
}

function putInfo(octets: Uint8Array, { type, at }: typeof LOCAL | typeof REMOTE): void {
  octets[at] = type;
  octets[at + 1] = INFO_LENGTH;
  octets[at + 2] = 1;
  octets[at + 6] = CONFIGURATION;
  putNumber(octets, at + 7, 2, LARGEST);
}

export function encodeOampdu({ fault, hears }: Oampdu): Uint8Array {
  const octets = new Uint8Array(LENGTH);
  octets[0] = SUBTYPE;
  const flags =
    (fault ? FLAGS.linkFault : 0) | (hears ? FLAGS.localStable | FLAGS.remoteStable : FLAGS.localEvaluating);
  putNumber(octets, 1, 2, flags);
  octets[3] = INFORMATION;
  putInfo(octets, LOCAL);
  if (hears) putInfo(octets, REMOTE);
  return octets;
}

/** Null for octets that are no Information OAMPDU. */
export function decodeOampdu(octets: Uint8Array): Oampdu | null {
  if (octets.length < REMOTE.at || octets[0] !== SUBTYPE || octets[3] !== INFORMATION) return null;
  const flags = takeNumber(octets, 1, 2);
  return { fault: (flags & FLAGS.linkFault) !== 0, hears: (flags & FLAGS.localStable) !== 0 };
}

export const isOampdu = (octets: Uint8Array): boolean => octets[0] === SUBTYPE;
