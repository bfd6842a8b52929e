export * from './as-built';
