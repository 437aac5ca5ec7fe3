export * from './recorder';
export {
  buffersOf,
  firstFrom,
  frameAt,
  framesOf,
  markAt,
  portAt,
  stepFrame,
  type FrameLog,
  type FrameRecord,
  type Hearing,
  type Held,
  type Mark,
} from './frame-log';
export {
  advance,
  rehearse,
  rehearsing,
  roleNow,
  startRehearsal,
  traceOf,
  type Rehearsal,
  type RunOptions,
} from './run';
export { eventWords, linkWords, missingIn } from './script';
export { asItStands, carriedOut, type AsItStands } from './as-it-stands';
export { designsOver, everNamed, type DesignFrom } from './designs-over';
export * from './loop-effect';
export * from './standing';
export * from './story';
export * from './words';
export * from './pcapng';
export * from './explain';
export { cameOf, whyHeard, type Consequence, type FrameWhy, type WhyRow } from './frame-why';
export * from './timers';
