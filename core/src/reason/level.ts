export type Level = 'good' | 'watch' | 'act' | 'urgent';

const order: readonly Level[] = ['good', 'watch', 'act', 'urgent'];

/** The worst of several levels; `good` when there is none. */
export function worstLevel(levels: readonly Level[]): Level {
  return levels.reduce<Level>((worst, level) => (order.indexOf(level) > order.indexOf(worst) ? level : worst), 'good');
}
