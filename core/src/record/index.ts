export * from './record';
export * from './spot-life';
