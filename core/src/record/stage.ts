/** Stages before a tree is planted, in work order. */
export const preparingStages = ['ground', 'match', 'stock', 'pit', 'day'] as const;

/** The stages of a tree's life with its programme, in work order. */
export const stages = [...preparingStages, 'water', 'inspect', 'results'] as const;
export type Stage = (typeof stages)[number];
