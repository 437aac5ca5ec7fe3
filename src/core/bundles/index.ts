export * from './formed';
export * from './negotiation';
export * from './verdict';
export * from './make';
export * from './distribution';
export * from './pairs';
export * from './pair-report';
