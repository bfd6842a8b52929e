import { InvalidInputError } from '../errors';
import { taxonOf } from './diversity';
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
  const uses = limitUses(problem, picks);
  return picks.flatMap((pick) => {
    const [spot, offer] = [spots.get(pick.spotId), offers.get(pick.offerId)];
    return spot && offer ? [explainPick({ problem, uses, spot, offer })] : [];
  });
}

function explainPick(at: {
  problem: ListProblem;
  uses: readonly LimitUse[];
  spot: ListSpot;
  offer: ListOffer;
}): ExplainedPick {
  const { problem, uses, spot, offer } = at;
  const fit = spot.fits[offer.species] ?? 0;
  const others = problem.offers
    .filter((other) => other.id !== offer.id && canTake(spot, other))
    .map((other) => ({ other, blockedBy: brokenBySwap(uses, offer, other) }))
    .sort((a, b) => worthOf(spot, b.other) - worthOf(spot, a.other) || a.other.price - b.other.price);
  const next = others.find(({ blockedBy }) => blockedBy.length === 0)?.other;
  const better = others.find(
    ({ other }) => (spot.fits[other.species] ?? 0) > fit + 0.005 && other.species !== offer.species,
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
          species: better.other.species,
          fitMore: (spot.fits[better.other.species] ?? 0) - fit,
          blockedBy: better.blockedBy,
        }
      : null,
  };
}

function brokenBySwap(uses: readonly LimitUse[], from: ListOffer, to: ListOffer): ListLimit[] {
  return uses
    .filter(({ limit, used, most }) => {
      const change = countsFor(limit, to) - countsFor(limit, from);
      return change > 0 && used + change > most + 1e-6;
    })
    .map(({ limit }) => limit);
}

/** What one tree of an offer uses of a limit. */
function countsFor(limit: LimitUse['limit'], offer: ListOffer): number {
  if (limit.kind === 'budget') return offer.price;
  if (limit.kind === 'available') return limit.offerId === offer.id ? 1 : 0;
  return taxonOf(offer, limit.rank) === limit.taxon ? 1 : 0;
}

/** Limits that leave no room for one tree more, of those that keep something out of the list. */
export function bindingLimits(problem: ListProblem, picks: readonly Pick[]): LimitUse[] {
  const blocked = explainList(problem, picks).flatMap(({ better }) => better?.blockedBy ?? []);
  return limitUses(problem, picks).filter(({ limit }) => blocked.some((one) => nameOf(one) === nameOf(limit)));
}
