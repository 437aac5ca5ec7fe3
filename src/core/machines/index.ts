export * from './lacp/port';
export * from './lacp/selection';
export * from './lacp/system';
export * from './lacp/rest';
export * from './stp';
export * as mst from './mst';
export { PARTS, compareVectors, differingPart, type HeldVector, type Vector } from './vectors';
export { cistMessage, mstiMessage } from './messages';
