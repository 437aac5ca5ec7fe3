/** Units of time: traces and the simulation count microseconds, BPDUs 256ths of a second. */
import { TIMERS } from './constants';

/** Microseconds of a second. */
export const SECOND = 1_000_000;

/** Units of a second in the time fields of a BPDU (802.1D-2004 clause 9.2.8). */
export const OCTET_SECONDS = 256;

/** Seconds for which a port stays with the kind of BPDU that it chose (802.1D-2004 clause 17.13.9). */
export const MIGRATE_TIME = TIMERS.migrateTime.default;
