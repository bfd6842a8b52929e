export * from './pit-geometry';
export * from './pit-plan';
