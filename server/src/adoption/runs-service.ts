import type { AdoptPractice, AdoptProgress, User } from '@sombra/contract';
import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import { keepDoing } from '../platform/keep-doing';
import { pooledWorker, type Worker } from '../platform/worker-pool';
import { leaveAdoption, takeAdoptionFrom } from '../practice/repository';
import { allPractices } from '../practice/service';
import { beginAdoption, givenUp, takeUpAdoption, walkAdoption, type AdoptionWalk } from './service';

export interface WalkTask extends AdoptionWalk {
  readonly askedBy: string;
}

/** Walks over the spots beside the server. */
export type AdoptionWalker = Worker<WalkTask, void>;

/** In a thread of its own, with a connection of its own: nobody who asks something else waits for it. */
export const pooledWalker = (): AdoptionWalker => pooledWorker('adoption/adopt-worker');

/** In the server's own thread, for tests. */
export const directWalker = (db: Knex): AdoptionWalker => ({
  run: (task, { signal, onProgress }) =>
    walkAdoption(db, task, { signal, onProgress: ({ done, of }) => onProgress(done, of) }),
  close: () => Promise.resolve(),
});

const takeUpEveryMs = 60_000;

interface Run {
  readonly ended: Promise<void>;
  readonly stop: AbortController;
  readonly listeners: Set<(progress: { readonly done: number; readonly of: number }) => void>;
}

/** The change of practice under way in this process: it outlives whoever began it, and ends when it is done or stopped. */
export class Adoptions {
  private running: Run | null = null;
  private closing = false;

  constructor(
    private readonly db: Knex,
    private readonly walker: AdoptionWalker,
  ) {}

  /**
   * Begins a change of practice and tells how far it is until it is done; whoever hangs up is told no more, and nothing
   * else.
   * @throws ConflictError while somebody is at it, or while another change stands half done
   */
  async adopt(
    user: User,
    asked: AdoptPractice,
    told: { readonly signal: AbortSignal; readonly onProgress: (progress: AdoptProgress) => void },
  ): Promise<void> {
    const run = this.begin(await beginAdoption(this.db, user, asked));
    const hear = (progress: { readonly done: number; readonly of: number }) =>
      told.onProgress({ kind: 'progress', ...progress });
    run.listeners.add(hear);
    const left = new Promise<'left'>((resolve) => told.signal.addEventListener('abort', () => resolve('left')));
    try {
      if ((await Promise.race([run.ended, left])) === 'left') return;
    } finally {
      run.listeners.delete(hear);
    }
    told.onProgress({ kind: 'done', practices: await allPractices(this.db) });
  }

  /** Stops it where it is, whichever process is at it; to be gone on with, or taken back. */
  async stop(): Promise<void> {
    const run = this.running;
    run?.stop.abort();
    await run?.ended.catch(() => undefined);
    await takeAdoptionFrom(this.db, uuidv7());
  }

  /** Goes on with what a killed process left, until stopped. */
  keepTakingUp(onError: (error: unknown) => void): () => Promise<void> {
    const takeUp = async () => {
      const walk = this.running ? null : await takeUpAdoption(this.db);
      if (walk) this.begin(walk).ended.catch(onError);
    };
    const stopLooking = keepDoing(takeUp, { everyMs: takeUpEveryMs, atOnce: true, onError });
    return async () => {
      await stopLooking();
      this.closing = true;
      this.running?.stop.abort();
      await this.running?.ended.catch(() => undefined);
    };
  }

  private begin(walk: AdoptionWalk): Run {
    const stop = new AbortController();
    const listeners: Run['listeners'] = new Set();
    const onProgress = (done: number, of: number) => {
      for (const listener of listeners) listener({ done, of });
    };
    const ended = this.walker
      .run({ ...walk, askedBy: walk.runId }, { signal: stop.signal, onProgress })
      .catch((error: unknown) => {
        // A thread that is ended says only that it was.
        throw stop.signal.aborted ? givenUp() : error;
      })
      .finally(async () => {
        this.running = null;
        // Ended with the server it is not given up: whoever starts next takes it up.
        if (!this.closing) await leaveAdoption(this.db, walk.runId);
      });
    // Whoever listens is told; nobody may be.
    ended.catch(() => undefined);
    this.running = { ended, stop, listeners };
    return this.running;
  }
}
