import type { Db } from './db';

interface Rounds<T> {
  running: Promise<unknown>;
  next: Promise<T> | null;
}

/**
 * One answer for all who ask at the same time. Whoever asks while others are being answered waits for the next round,
 * which begins after their question: nobody is answered by what was so before they asked.
 */
export class SharedAnswer<T, D extends Db = Db> {
  private readonly rounds = new WeakMap<D, Rounds<T>>();

  constructor(private readonly answer: (db: D) => Promise<T>) {}

  read(db: D): Promise<T> {
    const rounds = this.rounds.get(db) ?? { running: Promise.resolve(), next: null };
    this.rounds.set(db, rounds);
    rounds.next ??= rounds.running
      .catch(() => undefined)
      .then(() => {
        rounds.next = null;
        const round = this.answer(db);
        rounds.running = round;
        return round;
      });
    return rounds.next;
  }
}
