export * from './lacp/port';
export * from './lacp/selection';
export * from './lacp/system';
export * from './lacp/rest';
