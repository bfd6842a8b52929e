export * from './soil';
export * from './percolation';
export * from './ground-facts';
