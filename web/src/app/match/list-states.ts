import type { ListState } from '@sombra/contract';

export const listStateNames: Readonly<Record<ListState, string>> = {
  queued: 'waits its turn',
  solving: 'is being worked out',
  solved: 'to be looked at',
  infeasible: 'cannot be had as asked',
  cancelled: 'cancelled',
  failed: 'failed',
  accepted: 'ordered',
};
