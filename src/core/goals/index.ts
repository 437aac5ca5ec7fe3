/** What other rooms use of goals. */
export { goalChange, goalChangeWords } from './change';
export { checkGoals } from './check';
export type { CheckedGoal } from './check';
export { successor, wayBetween } from './evaluation';
export { propose } from './propose';
export type { Progress, Proposal, Proposals } from './propose';
export { endWords, goalSentence, treeWords } from './words';
