/** What other rooms use of the review. */
export { elementName, elementWords, linkEnds, portsOfLink, withFailed } from './elements';
export type { Element } from './elements';
export { missingCableEdits } from './cable-edits';
export { missingCables } from './missing-cables';
export type { MissingCable } from './missing-cables';
export { acceptanceOf, findingsOf } from './review';
export type { Finding } from './review';
export { sweepBase } from './after';
export type { SweepBase } from './after';
export { chunksOf, failureCount, failuresIn, isTold, pairCount, pairFailures, singleFailures } from './chunks';
export type { Chunk } from './chunks';
export { byWorst, failureOf } from './sweep';
export type { Failure } from './sweep';
export { outageOf, outageWords } from './outage';
export { hostVlans, reachOf } from './reach';
export type { VlanParts } from './reach';
export { failureScript, measuredOutage } from './measured';
export { reviewJson } from './review-json';
