export * from './record';
export * from './spot-life';
export * from './spot-periods';
