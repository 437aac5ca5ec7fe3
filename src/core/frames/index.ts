export * from './fields';
export * from './lacpdu';
