import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';

export interface WorkRun {
  readonly signal: AbortSignal;
  readonly onProgress: (done: number, cost: number) => void;
}

/** Long computing beside the server; ended by `close`. */
export interface Worker<Task, Result> {
  run(task: Task, run: WorkRun): Promise<Result>;
  close(): Promise<void>;
}

/** What a worker tells on its way, and whose task it is: one pool serves several. */
export interface WorkerWord {
  readonly askedBy: string;
  readonly done: number;
  readonly cost: number;
}

/** Works in a thread of its own; ending the run ends the thread. @param file built beside the server, without `.js` */
export function pooledWorker<Task extends { readonly askedBy: string }, Result>(file: string): Worker<Task, Result> {
  const filename = path.join(path.dirname(fileURLToPath(import.meta.url)), `${file}.js`);
  const pool = new Piscina({ filename, maxThreads: 1, minThreads: 0, idleTimeout: 30_000 });
  return {
    async run(task, { signal, onProgress }) {
      const hear = (message: WorkerWord) => {
        if (message.askedBy === task.askedBy) onProgress(message.done, message.cost);
      };
      pool.on('message', hear);
      try {
        return (await pool.run(task, { signal })) as Result;
      } finally {
        pool.off('message', hear);
      }
    },
    close: () => pool.destroy(),
  };
}

/** For tests and small programmes: works at once, in the server's own thread. */
export const directWorker = <Task, Result>(
  work: (task: Task, tell: WorkRun['onProgress']) => Result,
): Worker<Task, Result> => ({
  run: (task, { onProgress }) => Promise.resolve(work(task, onProgress)),
  close: () => Promise.resolve(),
});
