export * from './soak';
