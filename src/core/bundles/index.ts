export * from './formed';
