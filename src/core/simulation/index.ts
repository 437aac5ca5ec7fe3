/** What other rooms use of simulation. */
export { advance, rehearse, rehearsing, roleNow, startRehearsal, stateNow, traceOf } from './run';
export { eventWords, missingIn } from './script';
