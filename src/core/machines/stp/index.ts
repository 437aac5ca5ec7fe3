export * from './bridge';
export type * from './variables';
