export * from './root-arcs';
export * from './verdict';
export type { InspectReason, InspectReasonFacts } from './reasons';
