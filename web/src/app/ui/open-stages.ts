/** Stages that can do something yet, in work order: a stage with nothing to do is not shown. */
export const openStages = ['ground', 'match', 'stock', 'pit', 'day', 'inspect'] as const;
export type OpenStage = (typeof openStages)[number];
