export * from './finding';
export { signTable, waitedForMonths } from './judge-tree';
export * from './look';
export * from './root-arcs';
export * from './staged-cuts';
export * from './verdict';
export type { InspectReason, InspectReasonFacts } from './reasons';
