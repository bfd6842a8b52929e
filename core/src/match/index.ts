export * from './crown';
