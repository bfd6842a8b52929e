export * from './option';
export * from './pit-options';
export * from './tree-options';
export * from './care-options';
export * from './practice';
export * from './presets';
export * from './override';
export type { Choice, ChoiceGroup, ChoiceUnit } from './choice';
export * from './choices';
