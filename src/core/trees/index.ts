export * from './list';
export * from './topology';
export { classesOf, type TreeClass, type TreeProblem } from './problem';
export { solveTree, ROLE, ROLES, type Role, type TreeOutcome } from './solve';
export * from './state';
export * from './ledger';
export { grouped } from './sentences';
export * from './path';
