export * from './shipped-species';
