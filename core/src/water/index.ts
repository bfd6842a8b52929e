export * from './soak';
export * from './reference-et';
export * from './routine-water';
