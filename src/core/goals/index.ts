export * from './check';
export { goalChange, goalChangeWords, type GoalChange } from './change';
export { wantsOf, treesOfGoal, type Want } from './wants';
export { breach, wayBetween } from './holds';
export * from './words';
export { propose, prove, type Progress, type Proposal, type Proposals } from './propose';
export type { Contradiction } from './conflicts';
