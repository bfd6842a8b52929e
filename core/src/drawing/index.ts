export * from './shapes';
export * from './pit-section';
export * from './step-picture';
export * from './percolation-plot';
export * from './season-band';
export * from './growth-strip';
export * from './pit-top';
export * from './circling-scale';
