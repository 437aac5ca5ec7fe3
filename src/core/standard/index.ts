export * from './mac';
export * from './constants';
export * from './cost';
export * from './vectors';
export * from './tree-id';
export * from './speeds';
export * from './vlan-set';
