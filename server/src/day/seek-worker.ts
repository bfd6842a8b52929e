import { seekTeams, type TeamLocks, type TeamPlan, type TeamTask } from '@sombra/core';
import { parentPort } from 'node:worker_threads';

export interface SeekTask {
  readonly task: TeamTask;
  readonly seed: number;
  readonly tries: number;
  readonly locks: {
    readonly teams: TeamLocks['teams'];
    readonly helperIds: readonly string[];
    readonly spotIds: readonly string[];
  } | null;
  /** Tells whose progress it is: one pool serves several. */
  readonly askedBy: string;
}

/** Runs in a worker thread: the search is one long call, and must not hold up the server. */
export default function seek({ task, seed, tries, locks, askedBy }: SeekTask): TeamPlan {
  const held = locks && { teams: locks.teams, helperIds: new Set(locks.helperIds), spotIds: new Set(locks.spotIds) };
  const goOn = (done: number, cost: number): boolean => {
    parentPort?.postMessage({ askedBy, done: done / tries, cost });
    return true;
  };
  return seekTeams(task, { seed, tries, locks: held, goOn });
}
