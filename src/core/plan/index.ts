/** What other rooms use of the plan. */
export { joinWorks, splitWork } from './arrange';
export type { Work } from './gather';
export { planArranged, planChange, planning } from './plan';
export { comesFrom } from './constraints';
export type { PinnedStep } from './constraints';
export type { ChangePlan, PlanOptions, PlanStep, Planned } from './plan';
export type { PlanProgress, Reply } from './planner';
export { planJson } from './plan-json';
export { scriptOfPlan } from './carried-out';
export {
  atWords,
  consoleNames,
  lineWords,
  longestOutage,
  movesWords,
  outageLines,
  outageWords,
  seeLines,
  wayBack,
} from './step-words';
export { COMPARED, comparedWith } from './compared';
export type { ComparedFigure } from './compared';
export { figuresOf } from './comparison';
export type { VariantFigures } from './comparison';
export { planMaintenance } from './maintenance';
export type { Target } from './maintenance';
export { migrations } from './migration';
export type { Migration, MigrationRule } from './migration';
