export * from './balance';
export * from './follow';
export * from './reading';
export * from './stress';
export * from './tree-stores';
export * from './soak';
export * from './routine-water';
export { because as waterBecause } from './reasons';
export type { WaterReason, WaterReasonFacts } from './reasons';
