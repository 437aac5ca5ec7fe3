export * from './wiring';
export * from './names';
export * from './fit';
export * from './vlans';
export * from './part';
export * from './patterns';
export * from './neighbours';
