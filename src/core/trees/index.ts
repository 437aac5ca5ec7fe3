/** What other rooms use of trees. */
export { TreeReader, explainPort, explainSwitch, explainTree, isAccidentalRoot, nextRoot } from './ledger';
export type { Candidate, Contest, Ledger, LedgerPart } from './ledger';
export { inTree, makeRootEdits } from './make-root';
export { regionCount, treeOnSwitch } from './many';
export { movedBetween } from './moved';
export type { MovedPort, MovedTree } from './moved';
export { boundaryPorts, countsInside, remainingHops, solveCist, solveInstance, stepCost } from './mst';
export type { CistOutcome } from './mst';
export { NO_ANSWERS, checkPrediction, sheetLinks } from './prediction';
export type { EndAnswer, Marks, Prediction } from './prediction';
export type { CistProblem, TreeProblem } from './problem';
export { grouped } from './sentences';
export { ROLE, ROLES, forwardsRole, solveTree } from './solve';
export type { Role, TreeOutcome } from './solve';
export { cutsOf, roleAt, rootsOf, settledState, solveDesign } from './state';
export type { PortState, SolvedDesign, SolvedTree } from './state';
export type { Topology } from './topology';
export { heldIn } from './untagged';
