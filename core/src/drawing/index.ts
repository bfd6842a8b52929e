export * from './shapes';
export * from './pit-section';
export * from './percolation-plot';
