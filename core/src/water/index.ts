export * from './soak';
export * from './reference-et';
export * from './routine-water';
export type { WaterReason, WaterReasonFacts } from './reasons';
