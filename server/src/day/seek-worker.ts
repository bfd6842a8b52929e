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

/** Seeks, telling how far it has come as a share. */
export function seekFor({ task, seed, tries, locks }: SeekTask, tell: (done: number, cost: number) => void): TeamPlan {
  const held = locks && { teams: locks.teams, helperIds: new Set(locks.helperIds), spotIds: new Set(locks.spotIds) };
  const goOn = (done: number, cost: number): boolean => {
    tell(done / tries, cost);
    return true;
  };
  return seekTeams(task, { seed, tries, locks: held, goOn });
}

/** Runs in a worker thread: the search is one long call, and must not hold up the server. */
export default function seek(task: SeekTask): TeamPlan {
  return seekFor(task, (done, cost) => parentPort?.postMessage({ askedBy: task.askedBy, done, cost }));
}
