/** What other rooms use of trace. */
export { asItStands, carriedOut } from './design-at';
export { cameOf, whyHeard } from './frame-decision';
export type { FrameWhy } from './frame-decision';
export { fieldsOf } from './frame-fields';
export { buffersOf, firstFrom, frameAt, framesOf, markAt, portAt, stepFrame } from './frame-log';
export type { FrameKind, FrameLog, FrameRecord, Hearing, Mark } from './frame-log';
export { loopEffect } from './loop-effect';
export { pcapng } from './pcapng';
export { Recorder, classicState } from './recorder';
export type {
  ContactLane,
  LoopSpan,
  OpenLane,
  PortLane,
  PortSpan,
  PortState,
  ReachSpan,
  RootSpan,
  RunRole,
  Spoken,
  Trace,
} from './recorder';
export { standingOut } from './status';
export { gapsOf, spanAt, storyOf } from './story';
export type { Line } from './story-line';
export { carriesVlan, lasting, portWords, switchList, treesWords, vlansOfTree, vlansWords } from './words';
