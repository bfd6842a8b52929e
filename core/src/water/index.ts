export * from './soak';
export * from './reference-et';
