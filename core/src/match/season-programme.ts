import type { StockKind } from '../stock';
import { ranks, taxonOf, type PopulationCount, type Rank } from './diversity';

/** A line of a nursery's availability list, as the season's list uses it. */
export interface ListOffer {
  readonly id: string;
  readonly nursery: string;
  readonly species: string;
  readonly family: string;
  readonly stockKind: StockKind;
  readonly caliperMm: number;
  readonly price: number;
  readonly available: number;
  /** How well this kind of stock transplants, 0–1: weighs a tenth of the fit. */
  readonly ease: number;
}

export interface ListSpot {
  readonly spotId: string;
  readonly ref: string;
  /** Fit of every species that breaks no hard limit here, 0–1. */
  readonly fits: Readonly<Record<string, number>>;
  /** A choice somebody has fixed. */
  readonly locked: { readonly species: string; readonly stockKind: StockKind | null } | null;
}

export interface ListProblem {
  readonly spots: readonly ListSpot[];
  readonly offers: readonly ListOffer[];
  /** Trees that stand or are ordered, without those of this list. */
  readonly population: readonly PopulationCount[];
  readonly budget: number | null;
  readonly sharePct: Readonly<Record<Rank, number>>;
}

/** A limit of the list that can bind, or would have to give way. */
export type ListLimit =
  | { readonly kind: 'budget'; readonly most: number }
  | {
      readonly kind: 'share';
      readonly rank: Rank;
      readonly taxon: string;
      readonly room: number;
      readonly over: boolean;
    }
  | { readonly kind: 'available'; readonly offerId: string; readonly most: number }
  | { readonly kind: 'lock'; readonly spotId: string };

/** What choosing an offer at a spot is worth: its fit, a tenth of it by how well the stock transplants. */
export const worthOf = (spot: ListSpot, offer: ListOffer): number =>
  (spot.fits[offer.species] ?? 0) * (0.9 + 0.1 * offer.ease);

export function canTake(spot: ListSpot, offer: ListOffer): boolean {
  if (!(offer.species in spot.fits) || offer.available < 1) return false;
  const { locked } = spot;
  if (!locked) return true;
  return locked.species === offer.species && (locked.stockKind === null || locked.stockKind === offer.stockKind);
}

/** Spots that no offer suits: they stay out of the list and are named. */
export const spotsWithoutOffer = (problem: ListProblem): ListSpot[] =>
  problem.spots.filter((spot) => !problem.offers.some((offer) => canTake(spot, offer)));

/**
 * How many trees each taxon on offer may still gain, so that its share of the whole population after planting
 * stays within the limit. A taxon already over its share may not grow at all.
 */
export function shareLimits(problem: ListProblem): Extract<ListLimit, { kind: 'share' }>[] {
  const planted = problem.spots.length - spotsWithoutOffer(problem).length;
  const before = problem.population.reduce((sum, { count }) => sum + count, 0);
  return ranks.flatMap((rank) => {
    const taxa = [...new Set(problem.offers.map((offer) => taxonOf(offer, rank)))].sort();
    const share = problem.sharePct[rank] / 100;
    return taxa.map((taxon) => {
      const count = problem.population
        .filter((tree) => taxonOf(tree, rank) === taxon)
        .reduce((sum, tree) => sum + tree.count, 0);
      // A hair of slack: 29 of 100 are 29 %, and 0.1 × 30 leaves room for 3, whatever the floating point says.
      const over = before > 0 && count > share * before + 1e-9;
      const room = over ? 0 : Math.max(0, Math.floor(share * (before + planted) - count + 1e-9));
      return { kind: 'share', rank, taxon, room, over } as const;
    });
  });
}

/** A sparse linear model, rows one after another; infinite bounds are JavaScript's Infinity. */
export interface LinearModel {
  readonly cost: readonly number[];
  readonly colUpper: readonly number[];
  readonly integer: readonly boolean[];
  readonly rowLower: readonly number[];
  readonly rowUpper: readonly number[];
  readonly starts: readonly number[];
  readonly indices: readonly number[];
  readonly values: readonly number[];
  readonly maximise: boolean;
}

export interface ListModel {
  readonly model: LinearModel;
  /** What each yes-or-no column stands for; columns after these are sums or slacks. */
  readonly picks: readonly { readonly spotId: string; readonly offerId: string }[];
  /** Limits of the elastic model, each with the columns of its switch and its slack. */
  readonly relaxable: readonly { readonly limit: ListLimit; readonly switchCol: number; readonly slackCol: number }[];
}

/** Cheaper is better where fit is equal: the dearest offer costs a thousandth of a full fit. */
const priceWeight = 0.001;

class Rows {
  readonly lower: number[] = [];
  readonly upper: number[] = [];
  readonly starts: number[] = [0];
  readonly indices: number[] = [];
  readonly values: number[] = [];

  add(bounds: { lower?: number; upper?: number }, terms: readonly (readonly [col: number, value: number])[]): void {
    this.lower.push(bounds.lower ?? -Infinity);
    this.upper.push(bounds.upper ?? Infinity);
    for (const [col, value] of terms) {
      this.indices.push(col);
      this.values.push(value);
    }
    this.starts.push(this.indices.length);
  }
}

/**
 * The season's list as a mixed-integer programme: one offer for every spot, most fit over all, within shares,
 * availability and budget. The elastic form, for a problem the strict one has no answer to, may break limits and asks
 * for the fewest broken, then the least. Its picks may be fractions: spots, offers, species, genera and families are
 * a flow, which has whole answers of its own; only beside a budget that holds may the amount be short by one tree.
 */
export function seasonProgramme(problem: ListProblem, form: 'strict' | 'elastic' = 'strict'): ListModel {
  const elastic = form === 'elastic';
  const without = new Set(spotsWithoutOffer(problem).map(({ spotId }) => spotId));
  const spots = problem.spots.filter(({ spotId }) => !without.has(spotId));
  const dearest = Math.max(1e-9, ...problem.offers.map(({ price }) => price));
  const rows = new Rows();
  const cost: number[] = [];
  const colUpper: number[] = [];
  const integer: boolean[] = [];
  const column = (costs: number, upper: number, whole: boolean): number => {
    cost.push(costs);
    colUpper.push(upper);
    integer.push(whole);
    return cost.length - 1;
  };

  const picks: { spotId: string; offerId: string }[] = [];
  const ofSpot: { spot: ListSpot; cols: number[]; unlocked: number[] }[] = [];
  const ofOffer = new Map<string, number[]>(problem.offers.map(({ id }) => [id, []]));
  for (const spot of spots) {
    const entry = { spot, cols: [] as number[], unlocked: [] as number[] };
    for (const offer of problem.offers) {
      const open = canTake(spot, offer);
      if (!open && !(elastic && canTake({ ...spot, locked: null }, offer))) continue;
      const worth = elastic ? 0 : worthOf(spot, offer) - priceWeight * (offer.price / dearest);
      const col = column(worth, 1, !elastic);
      picks.push({ spotId: spot.spotId, offerId: offer.id });
      entry.cols.push(col);
      if (!open) entry.unlocked.push(col);
      ofOffer.get(offer.id)?.push(col);
    }
    ofSpot.push(entry);
  }
  for (const { cols } of ofSpot)
    rows.add(
      { lower: 1, upper: 1 },
      cols.map((col) => [col, 1] as const),
    );

  const relaxable: { limit: ListLimit; switchCol: number; slackCol: number }[] = [];
  /** Lets a limit be broken, at the price of one, and a little for every unit. */
  const slackFor = (limit: ListLimit, most: number): number => {
    const switchCol = column(1, 1, true);
    const slackCol = column(1e-3 / Math.max(1, most), most, false);
    rows.add({ upper: 0 }, [
      [slackCol, 1],
      [switchCol, -most],
    ]);
    relaxable.push({ limit, switchCol, slackCol });
    return slackCol;
  };
  const reach = (offers: readonly ListOffer[]): number => {
    const some = offers.map(({ id }) => ofOffer.get(id) ?? []);
    return Math.min(
      spots.length,
      some.reduce((sum, cols) => sum + cols.length, 0),
    );
  };

  const sums = new Map<string, number>();
  for (const offer of problem.offers) {
    const cols = ofOffer.get(offer.id) ?? [];
    const sum = column(0, elastic ? spots.length : Math.min(offer.available, spots.length), false);
    sums.set(offer.id, sum);
    rows.add({ lower: 0, upper: 0 }, [[sum, -1], ...cols.map((col) => [col, 1] as const)]);
    if (elastic && offer.available < cols.length) {
      const slack = slackFor(
        { kind: 'available', offerId: offer.id, most: offer.available },
        cols.length - offer.available,
      );
      rows.add({ upper: offer.available }, [
        [sum, 1],
        [slack, -1],
      ]);
    }
  }
  for (const limit of shareLimits(problem)) {
    const members = problem.offers.filter((offer) => taxonOf(offer, limit.rank) === limit.taxon);
    const terms = members.map(({ id }) => [sums.get(id) ?? 0, 1] as const);
    const beyond = reach(members) - limit.room;
    if (elastic && beyond <= 0) continue;
    const slack: (readonly [number, number])[] = elastic ? [[slackFor(limit, beyond), -1]] : [];
    rows.add({ upper: limit.room }, [...terms, ...slack]);
  }
  if (problem.budget !== null) {
    const terms = problem.offers.map(({ id, price }) => [sums.get(id) ?? 0, price] as const);
    const limit: ListLimit = { kind: 'budget', most: problem.budget };
    const beyond = Math.max(0, dearest * spots.length - problem.budget);
    const slack: (readonly [number, number])[] = elastic ? [[slackFor(limit, beyond), -1]] : [];
    rows.add({ upper: problem.budget }, [...terms, ...slack]);
  }
  if (elastic) {
    for (const { spot, unlocked } of ofSpot.filter(({ unlocked: cols }) => cols.length > 0)) {
      const slack = slackFor({ kind: 'lock', spotId: spot.spotId }, 1);
      rows.add({ upper: 0 }, [[slack, -1], ...unlocked.map((col) => [col, 1] as const)]);
    }
    // The strict form has no answer, so one limit at least gives way: said aloud, it spares the solver the proof.
    rows.add(
      { lower: 1 },
      relaxable.map(({ switchCol }) => [switchCol, 1] as const),
    );
  }
  return {
    model: {
      cost,
      colUpper,
      integer,
      rowLower: rows.lower,
      rowUpper: rows.upper,
      starts: rows.starts,
      indices: rows.indices,
      values: rows.values,
      maximise: !elastic,
    },
    picks,
    relaxable,
  };
}
