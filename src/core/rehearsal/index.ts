export * from './recorder';
export { advance, rehearse, roleNow, startRehearsal, traceOf, type Rehearsal, type RunOptions } from './run';
export { eventWords, linkWords, missingIn } from './script';
export * from './loop-effect';
export * from './standing';
export * from './story';
export * from './pcapng';
export * from './explain';
export * from './timers';
