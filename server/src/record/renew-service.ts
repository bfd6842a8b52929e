import type { Knex } from 'knex';
import { keepDoing } from '../platform/keep-doing';
import { pooledWorker, type Worker } from '../platform/worker-pool';
import { renew } from './derive';

export interface RenewTask {
  readonly askedBy: string;
}

/** Works spots out afresh beside the server. */
export type Renewer = Worker<RenewTask, void>;

/** In a thread of its own, with a connection of its own: nobody who asks something else waits for it. */
export const pooledRenewer = (): Renewer => pooledWorker('record/renew-worker');

/** In the server's own thread, for tests. */
export const directRenewer = (db: Knex): Renewer => ({
  run: ({ askedBy }, { signal }) => renew(db, askedBy, { signal }),
  close: () => Promise.resolve(),
});

const lookEveryMs = 60_000;

export interface Renewal {
  /** Begins at once where something is to be done. */
  begin(): void;
  /** Leaves it where it is; it is gone on with at the next start. */
  stop(): Promise<void>;
}

/** Works every spot out afresh in the background, after an update and when it is asked for. */
export function keepRenewing(renewer: Renewer, onError: (error: unknown) => void): Renewal {
  const stop = new AbortController();
  let running: Promise<void> = Promise.resolve();
  // One after the other: each looks whether anything is left to do.
  const turn = (): Promise<void> => {
    running = running
      .then(() => renewer.run({ askedBy: 'renewal' }, { signal: stop.signal, onProgress: () => undefined }))
      .catch((error: unknown) => {
        if (!stop.signal.aborted) onError(error);
      });
    return running;
  };
  const stopLooking = keepDoing(turn, { everyMs: lookEveryMs, atOnce: true, onError });
  return {
    begin: () => void turn(),
    async stop() {
      stop.abort();
      await stopLooking();
      await running;
    },
  };
}
