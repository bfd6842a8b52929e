export * from './stock';
export * from './mass';
export * from './received-tree';
export * from './receiving';
export * from './lot';
export * from './claim';
export * from './received-stock';
export * from './lifting-plan';
export type { StockReason, StockReasonFacts } from './reasons';
