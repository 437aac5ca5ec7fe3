export * from './link-state';
export * from './lacp-ends';
export * from './bundle-rate';
export * from './mixture';
