/** What other rooms use of the review. */
export { elementName, elementWords, elementsOf, linkEnds, withFailed } from './elements';
export type { Element, ElementName } from './elements';
export { RULES } from './findings';
export { SEVERITIES } from './findings/rule';
export type { Severity, Subject } from './findings/rule';
export { missingCableEdits } from './cable-edits';
export { missingCables } from './missing-cables';
export type { MissingCable } from './missing-cables';
export { OUTAGE_KINDS } from './outage';
export type { Outage } from './outage';
export { acceptanceOf, findingsOf } from './review';
export type { Finding } from './review';
export { byWorst, failureOf, pairCount, pairFailures, singleFailures, sweepBase } from './sweep';
export type { Failure, SweepBase } from './sweep';
export { failureScript, measuredOutage } from './measured';
export { failureJson, reviewJson } from './review-json';
