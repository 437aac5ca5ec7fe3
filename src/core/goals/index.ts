/** What other rooms use of goals. */
export { goalChange, goalChangeWords } from './change';
export { checkGoals } from './check';
export type { CheckedGoal } from './check';
export { successor, wayBetween } from './evaluation';
export { MOST_PROPOSALS, proposeSettings, prove, rank, withoutTwins } from './propose';
export type { Progress, Proposal, Proposals } from './propose';
export { costOptions } from './relieve';
export type { Contradiction } from './conflicts';
export { endWords, goalSentence, proposalWords, treeWords } from './words';
