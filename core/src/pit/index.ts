export * from './pit-geometry';
export * from './pit-plan';
export * from './settlement';
export * from './stake-plan';
export * from './materials';
export * from './labour';
export * from './steps';
export * from './planting-plan';
