export * from './pit-geometry';
export * from './pit-plan';
export * from './stake-plan';
export * from './materials';
export * from './steps';
export * from './planting-plan';
