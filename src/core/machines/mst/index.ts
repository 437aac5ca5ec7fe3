export * from './bridge';
export { hearAgain } from './repeated';
export type * from './settings';
export type * from './variables';
