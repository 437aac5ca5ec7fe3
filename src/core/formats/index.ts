export * from './table';
export * from './csv-import';
export * from './csv-export';
export * from './solution';
export * from './neighbours';
export * from './graphml';
export * from './topology';
