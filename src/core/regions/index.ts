export * from './config';
export * from './compare';
export * from './edit';
