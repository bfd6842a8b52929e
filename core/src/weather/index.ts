export * from './reference-et';
