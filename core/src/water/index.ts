export * from './balance';
export * from './reading';
export * from './stress';
export * from './tree-stores';
export * from './soak';
export * from './reference-et';
export * from './routine-water';
export { because as waterBecause } from './reasons';
export type { WaterReason, WaterReasonFacts } from './reasons';
