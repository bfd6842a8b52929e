export * from './as-built';
export type { DayReason, DayReasonFacts } from './reasons';
