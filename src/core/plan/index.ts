/** What other rooms use of the plan. */
export { deviceName, treesOfRest } from './checks';
export { frameOf } from './frame';
export { managementVlan } from './place';
export { planChange, planning, usualPairs } from './plan';
export type { ChangePlan, PlanOptions, PlanStep, Planned } from './plan';
export type { PlanProgress, Reply } from './planner';
export { planJson } from './plan-json';
export { planScript } from './measure';
export { atWords, consoleNames, lineWords, movesWords, outageLines, outageWords, wayBack } from './step-words';
