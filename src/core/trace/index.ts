/** What other rooms use of trace. */
export { asItStands, carriedOut } from './design-at';
export { consequencesOf, whyReceived } from './frame-decision';
export type { FrameWhy } from './frame-decision';
export { fieldsOf } from './frame-fields';
export { buffersOf, firstFrom, frameAt, framesOf, hasMark, markAt, portAt, stepFrame } from './frame-log';
export type { FrameKind, FrameLog, FrameRecord, Reception, Mark } from './frame-log';
export { loopEffect } from './loop-effect';
export { MOST_PACKETS, alikeAt, packetCount, pcapng } from './pcapng';
export type { FrameFile } from './pcapng';
export { portSigns } from './port-signs';
export type { PortSign } from './port-signs';
export { portsAt } from './ports-at';
export { Recorder, classicState } from './recorder';
export type {
  ContactLane,
  Flood,
  LoopSpan,
  OpenLane,
  PortLane,
  PortSpan,
  PortState,
  ReachSpan,
  RootSpan,
  RunRole,
  SentMessage,
  Trace,
} from './recorder';
export { standingOut } from './status';
export { floodsOf, gapsOf, spanAt, storyOf } from './story';
export type { Line } from './story-line';
export { carriesVlan, portList, portWords, switchList, treeNames, treesWords, vlansOfTree, vlansWords } from './words';
