export * from './list';
export * from './topology';
export { classesOf, type CistProblem, type TreeClass, type TreeProblem } from './problem';
export { solveTree, forwardsRole, ROLE, ROLES, type Role, type TreeOutcome } from './solve';
export * from './state';
export { heldIn, heldPorts, heldVlanWords } from './untagged';
export { regionCount, treeOnSwitch } from './many';
export {
  boundaryPorts,
  countsInside,
  portsInRegion,
  remainingHops,
  solveCist,
  solveInstance,
  stepCost,
  type CistOutcome,
  type CistPart,
} from './mst';
export * from './ledger';
export { grouped } from './sentences';
export * from './path';
export * from './moved';
export * from './make-root';
export * from './prediction';
