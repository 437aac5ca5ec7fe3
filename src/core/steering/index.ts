export * from './order';
export * from './ranks';
export * from './load';
export * from './weave';
export * from './advise';
export * from './burden';
