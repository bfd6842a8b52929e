import { InvalidInputError } from '../errors';
import { ranks, taxonOf } from './diversity';
import {
  canTake,
  shareLimits,
  worthOf,
  type ListLimit,
  type ListModel,
  type ListOffer,
  type ListProblem,
  type ListSpot,
} from './season-programme';

export interface Pick {
  readonly spotId: string;
  readonly offerId: string;
}

/** The picks of a solved model. @throws InvalidInputError where the values are not those of its columns */
export function readPicks({ picks, model }: ListModel, values: ArrayLike<number>): Pick[] {
  if (values.length !== model.cost.length) {
    throw new InvalidInputError(`values must be ${model.cost.length}, got ${values.length}`, 'values');
  }
  return picks.filter((_, col) => (values[col] ?? 0) > 0.5);
}

/** A limit that has to give way, and by how much: trees, or money. */
export interface Relaxation {
  readonly limit: ListLimit;
  readonly by: number;
}

/** The smallest set of limits to relax, from a solved elastic model. */
export function readRelaxations({ relaxable }: ListModel, values: ArrayLike<number>): Relaxation[] {
  return relaxable
    .filter(({ switchCol }) => (values[switchCol] ?? 0) > 0.5)
    .map(({ limit, slackCol }) => ({ limit, by: Math.round((values[slackCol] ?? 0) * 100) / 100 }));
}

/** How far each limit is used by a list. */
export interface LimitUse {
  readonly limit: Exclude<ListLimit, { kind: 'lock' }>;
  readonly used: number;
  readonly most: number;
}

export function limitUses(problem: ListProblem, picks: readonly Pick[]): LimitUse[] {
  const offers = new Map(problem.offers.map((offer) => [offer.id, offer]));
  const taken = picks.flatMap(({ offerId }) => offers.get(offerId) ?? []);
  const shares = shareLimits(problem).map((limit) => ({
    limit,
    used: taken.filter((offer) => taxonOf(offer, limit.rank) === limit.taxon).length,
    most: limit.room,
  }));
  const available = problem.offers.map((offer) => ({
    limit: { kind: 'available', offerId: offer.id, most: offer.available } as const,
    used: taken.filter(({ id }) => id === offer.id).length,
    most: offer.available,
  }));
  const spent = taken.reduce((sum, { price }) => sum + price, 0);
  const { budget } = problem;
  const money =
    budget === null ? [] : [{ limit: { kind: 'budget', most: budget } as const, used: spent, most: budget }];
  return [...money, ...shares, ...available];
}

/** Limits a list breaks, and spots it gives no tree or one that cannot stand there; empty for a sound list. */
export function listFaults(problem: ListProblem, picks: readonly Pick[]): string[] {
  const offers = new Map(problem.offers.map((offer) => [offer.id, offer]));
  const bySpot = new Map(picks.map((pick) => [pick.spotId, pick]));
  const faults = limitUses(problem, picks)
    .filter(({ used, most }) => used > most + 1e-6)
    .map(({ limit, used, most }) => `${nameOf(limit)}: ${used} of ${most}`);
  for (const spot of problem.spots) {
    const pick = bySpot.get(spot.spotId);
    const open = problem.offers.some((offer) => canTake(spot, offer));
    if (!pick && open) faults.push(`spot ${spot.ref}: no tree`);
    const offer = pick && offers.get(pick.offerId);
    if (pick && (!offer || !canTake(spot, offer))) faults.push(`spot ${spot.ref}: cannot take ${pick.offerId}`);
  }
  if (bySpot.size !== picks.length) faults.push('a spot has two trees');
  return faults;
}

const nameOf = (limit: ListLimit): string =>
  limit.kind === 'share' ? `${limit.rank} ${limit.taxon}` : limit.kind === 'available' ? limit.offerId : limit.kind;

/** The sum a list is judged by: fit, with the transplanting share; prices aside. */
export function worthOfList(problem: ListProblem, picks: readonly Pick[]): number {
  const spots = new Map(problem.spots.map((spot) => [spot.spotId, spot]));
  const offers = new Map(problem.offers.map((offer) => [offer.id, offer]));
  return picks.reduce((sum, { spotId, offerId }) => {
    const [spot, offer] = [spots.get(spotId), offers.get(offerId)];
    return spot && offer ? sum + worthOf(spot, offer) : sum;
  }, 0);
}

export interface ExplainedPick extends Pick {
  readonly fit: number;
  /** The best that could stand here instead with all else as it is; `null` where nothing else can. */
  readonly next: { readonly offerId: string; readonly fitLoss: number; readonly priceMore: number } | null;
  /** A species that fits better here, and the limits that kept it out. */
  readonly better: {
    readonly species: string;
    readonly fitMore: number;
    readonly blockedBy: readonly ListLimit[];
  } | null;
}

/** Why each spot got what it got: against the next best, and against what would fit better but was not to be had. */
export function explainList(problem: ListProblem, picks: readonly Pick[]): ExplainedPick[] {
  const offers = new Map(problem.offers.map((offer) => [offer.id, offer]));
  const spots = new Map(problem.spots.map((spot) => [spot.spotId, spot]));
  const usesOf = usesByOffer(problem, picks);
  return picks.flatMap((pick) => {
    const [spot, offer] = [spots.get(pick.spotId), offers.get(pick.offerId)];
    return spot && offer ? [explainPick({ problem, usesOf, spot, offer })] : [];
  });
}

interface OfferUse extends LimitUse {
  /** What one tree of the offer uses of the limit. */
  readonly each: number;
}

/** For each offer the few limits a tree of it counts against. */
function usesByOffer(problem: ListProblem, picks: readonly Pick[]): Map<string, OfferUse[]> {
  const uses = new Map(limitUses(problem, picks).map((use) => [nameOf(use.limit), use]));
  return new Map(
    problem.offers.map((offer) => {
      const names = [...ranks.map((rank) => `${rank} ${taxonOf(offer, rank)}`), offer.id, 'budget'];
      const found = names.flatMap((name) => uses.get(name) ?? []);
      return [offer.id, found.map((use) => ({ ...use, each: use.limit.kind === 'budget' ? offer.price : 1 }))];
    }),
  );
}

function explainPick(at: {
  problem: ListProblem;
  usesOf: ReadonlyMap<string, readonly OfferUse[]>;
  spot: ListSpot;
  offer: ListOffer;
}): ExplainedPick {
  const { problem, usesOf, spot, offer } = at;
  const fit = spot.fits[offer.species] ?? 0;
  const blocking = (other: ListOffer) => brokenBySwap(usesOf.get(offer.id) ?? [], usesOf.get(other.id) ?? []);
  const others = problem.offers
    .filter((other) => other.id !== offer.id && canTake(spot, other))
    .map((other) => ({ other, worth: worthOf(spot, other) }))
    .sort((a, b) => b.worth - a.worth || a.other.price - b.other.price)
    .map(({ other }) => other);
  const next = others.find((other) => blocking(other).length === 0);
  const better = others.find(
    (other) => (spot.fits[other.species] ?? 0) > fit + 0.005 && other.species !== offer.species,
  );
  return {
    spotId: spot.spotId,
    offerId: offer.id,
    fit,
    next: next
      ? { offerId: next.id, fitLoss: fit - (spot.fits[next.species] ?? 0), priceMore: next.price - offer.price }
      : null,
    better: better
      ? {
          species: better.species,
          fitMore: (spot.fits[better.species] ?? 0) - fit,
          blockedBy: blocking(better),
        }
      : null,
  };
}

/** Limits that one tree fewer of the first offer and one more of the second would break. */
function brokenBySwap(from: readonly OfferUse[], to: readonly OfferUse[]): ListLimit[] {
  return to
    .filter(({ limit, used, most, each }) => {
      const freed = from.find((use) => nameOf(use.limit) === nameOf(limit))?.each ?? 0;
      return each > freed && used + each - freed > most + 1e-6;
    })
    .map(({ limit }) => limit);
}

/** Limits that leave no room for one tree more, of those that keep something out of the list. */
export function bindingLimits(problem: ListProblem, explained: readonly ExplainedPick[]): LimitUse[] {
  const blocked = new Set(explained.flatMap(({ better }) => (better?.blockedBy ?? []).map(nameOf)));
  return limitUses(problem, explained).filter(({ limit }) => blocked.has(nameOf(limit)));
}
