export * from './schema';
export * from './fault';
export * from './look-ups';
export * from './integrity';
export * from './edits';
export * from './removal';
export * from './read';
export { wording, NAME_LENGTH } from './wording';
