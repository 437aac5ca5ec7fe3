export * from './fields';
export * from './lacpdu';
export * from './bpdu';
export * from './envelope';
