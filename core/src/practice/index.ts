export * from './practice';
