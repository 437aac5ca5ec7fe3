export * from './table';
export * from './csv-import';
export * from './csv-export';
export * from './solution';
