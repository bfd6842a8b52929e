import { seekRounds, type RoundPlan, type RoundTask } from '@sombra/core';
import { parentPort } from 'node:worker_threads';

export interface SeekRoundsTask {
  readonly task: RoundTask;
  readonly seed: number;
  readonly tries: number;
  readonly askedBy: string;
}

/** Seeks, telling how far it has come as a share. */
export const seekRoundsFor = (
  { task, seed, tries }: SeekRoundsTask,
  tell: (done: number, cost: number) => void,
): RoundPlan =>
  seekRounds(task, {
    seed,
    tries,
    goOn: (done, cost) => {
      tell(done / tries, cost);
      return true;
    },
  });

/** Runs in a worker thread: the search is one long call, and must not hold up the server. */
export default function seek(task: SeekRoundsTask): RoundPlan {
  return seekRoundsFor(task, (done, cost) => parentPort?.postMessage({ askedBy: task.askedBy, done, cost }));
}
