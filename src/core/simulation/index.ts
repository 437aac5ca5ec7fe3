/** What other rooms use of simulation. */
export { advance, rehearse, rehearsing, roleNow, startRehearsal, stateNow, traceOf } from './run';
export type { Rehearsal } from './run';
export { snapshotOf } from './snapshot';
export type { MemberSnapshot, SwitchSnapshot, TreePortSnapshot, TreeSnapshot } from './snapshot';
export { eventWords, missingIn } from './script';
