import type { IsoDate } from '@sombra/core';
import type { Knex } from 'knex';
import { placesChanged } from './place-change-repository';

/** Changes are kept for a day; what is older than this is counted anew, well before they are dropped. */
const keptMs = 12 * 3_600_000;
/** From so many places on everything is read at once. */
const mostPlaces = 300;

export type ByPlace<T> = ReadonlyMap<string, T>;

/** Reads for some places, or for all where that is `null`; places with nothing to say are left out. */
type Load<T> = (db: Knex, places: readonly string[] | null, today: IsoDate) => Promise<Map<string, T>>;

interface State<T> {
  kept: { readonly today: IsoDate; readonly view: string; readonly at: number; readonly byPlace: ByPlace<T> } | null;
  running: Promise<unknown>;
  next: Promise<ByPlace<T>> | null;
}

/**
 * What is worked out place by place from what is current, kept in this process and shared by all who ask: before each
 * answer the database is asked where something changed, and only that is read again. Everything committed before somebody
 * asks is in what they get, whichever process wrote it.
 */
export class KeptByPlace<T> {
  private readonly states = new WeakMap<Knex, State<T>>();

  constructor(private readonly load: Load<T>) {}

  /** The same map as before where nothing changed. */
  read(db: Knex, today: IsoDate): Promise<ByPlace<T>> {
    const state = this.states.get(db) ?? { kept: null, running: Promise.resolve(), next: null };
    this.states.set(db, state);
    // Whoever asks while others are being answered waits for the next round, which begins after their question.
    state.next ??= state.running
      .catch(() => undefined)
      .then(() => {
        state.next = null;
        const round = this.refresh(db, state, today);
        state.running = round;
        return round;
      });
    return state.next;
  }

  private async refresh(db: Knex, state: State<T>, today: IsoDate): Promise<ByPlace<T>> {
    const at = Date.now();
    const known = state.kept?.today === today && at - state.kept.at < keptMs ? state.kept : null;
    const { view, places } = await placesChanged(db, known?.view ?? null);
    let byPlace: ByPlace<T>;
    if (known && places?.length === 0) byPlace = known.byPlace;
    else if (known && places && places.length <= mostPlaces) {
      const fresh = await this.load(db, places, today);
      byPlace = new Map([...[...known.byPlace].filter(([id]) => !places.includes(id)), ...fresh]);
    } else byPlace = await this.load(db, null, today);
    state.kept = { today, view, at, byPlace };
    return byPlace;
  }
}
