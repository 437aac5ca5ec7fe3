export * from './bridge';
export type * from './variables';
export { compareVectors, differingPart, type Vector } from './vectors';
