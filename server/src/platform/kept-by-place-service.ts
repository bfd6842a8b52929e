import type { IsoDate } from '@sombra/core';
import type { Knex } from 'knex';
import { placesChanged } from './place-change-repository';
import { SharedAnswer } from './shared-answer';

/** Changes are kept for a day; what is older than this is counted anew, well before they are dropped. */
const keptMs = 12 * 3_600_000;
/** From so many places on everything is read at once. */
const mostPlaces = 300;

export type ByPlace<T> = ReadonlyMap<string, T>;

/** Reads for some places, or for all where that is `null`; places with nothing to say are left out. */
type Load<T> = (db: Knex, places: readonly string[] | null, today: IsoDate) => Promise<Map<string, T>>;

/** Rows by the place they are of, which they say no more. */
export function groupedByPlace<T extends object>(
  rows: readonly (T & { readonly placeId: string })[],
): Map<string, Omit<T, 'placeId'>[]> {
  const kept = new Map<string, Omit<T, 'placeId'>[]>();
  for (const { placeId, ...row } of rows) {
    const there = kept.get(placeId);
    if (there) there.push(row);
    else kept.set(placeId, [row]);
  }
  return kept;
}

/** What is the same of many places, summed up as their parts come (1) and go (−1). */
export interface Sum<T> {
  add(part: T, sign: 1 | -1): void;
}

/** Counts of what is alike, wherever it is; what each is like is said by the first of them. */
export class Tally<T extends { readonly count: number }> implements Sum<readonly T[]> {
  private readonly counts = new Map<string, T>();

  /** @param likeness what makes two alike */
  constructor(private readonly likeness: (one: T) => readonly unknown[]) {}

  add(part: readonly T[], sign: 1 | -1): void {
    for (const one of part) {
      const key = JSON.stringify(this.likeness(one));
      const count = (this.counts.get(key)?.count ?? 0) + sign * one.count;
      if (count === 0) this.counts.delete(key);
      else this.counts.set(key, { ...(this.counts.get(key) ?? one), count });
    }
  }

  all(): readonly T[] {
    return [...this.counts.values()];
  }
}

export interface Kept<T, S> {
  /** The same map as before where nothing changed. */
  readonly byPlace: ByPlace<T>;
  readonly sum: S;
}

interface State<T, S> extends Kept<T, S> {
  readonly today: IsoDate;
  readonly view: string;
  readonly at: number;
}

/**
 * What is worked out place by place from what is current, kept in this process and shared by all who ask: before each
 * answer the database is asked where something changed, and only that is read again. Everything committed before somebody
 * asks is in what they get, whichever process wrote it.
 */
export class KeptByPlace<T, S extends Sum<T>> {
  private readonly states = new WeakMap<Knex, State<T, S>>();
  private readonly shared = new Map<IsoDate, SharedAnswer<Kept<T, S>, Knex>>();

  constructor(
    private readonly load: Load<T>,
    private readonly emptySum: () => S,
  ) {}

  read(db: Knex, today: IsoDate): Promise<Kept<T, S>> {
    const shared = this.shared.get(today) ?? new SharedAnswer<Kept<T, S>, Knex>((on) => this.refresh(on, today));
    // Yesterday is asked for no more.
    if (!this.shared.has(today)) this.shared.clear();
    this.shared.set(today, shared);
    return shared.read(db);
  }

  private async refresh(db: Knex, today: IsoDate): Promise<Kept<T, S>> {
    const state = this.states.get(db);
    const at = Date.now();
    const known = state?.today === today && at - state.at < keptMs ? state : null;
    const { view, places } = await placesChanged(db, known?.view ?? null);
    const kept = known && places && places.length <= mostPlaces ? known : null;
    const { byPlace, sum } = kept ? await this.renewed(db, kept, places ?? [], today) : await this.whole(db, today);
    this.states.set(db, { byPlace, sum, today, view, at });
    return { byPlace, sum };
  }

  private async whole(db: Knex, today: IsoDate): Promise<Kept<T, S>> {
    const byPlace = await this.load(db, null, today);
    const sum = this.emptySum();
    for (const part of byPlace.values()) sum.add(part, 1);
    return { byPlace, sum };
  }

  private async renewed(db: Knex, kept: Kept<T, S>, places: readonly string[], today: IsoDate): Promise<Kept<T, S>> {
    if (places.length === 0) return kept;
    const fresh = await this.load(db, places, today);
    const byPlace = new Map(kept.byPlace);
    for (const id of places) {
      const [before, after] = [byPlace.get(id), fresh.get(id)];
      if (before !== undefined) kept.sum.add(before, -1);
      byPlace.delete(id);
      if (after === undefined) continue;
      kept.sum.add(after, 1);
      byPlace.set(id, after);
    }
    return { byPlace, sum: kept.sum };
  }
}
