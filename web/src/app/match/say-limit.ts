import type { Offer, SeasonList } from '@sombra/contract';
import { formatNumber, formatQuantity, stockNames, type ListLimit, type UnitSystem } from '@sombra/core';

export const sayMoney = (amount: number, currency: string): string =>
  `${formatNumber(amount, Number.isInteger(amount) ? 0 : 2)} ${currency}`;

/** `Quercus ilex, balled, 60 mm` */
export const sayOffer = (
  offer: Pick<Offer, 'species' | 'stockKind' | 'caliperMm'> | undefined,
  units: UnitSystem,
): string =>
  offer
    ? `${offer.species}, ${stockNames[offer.stockKind]}, ${formatQuantity(offer.caliperMm, 'lengthMm', units)}`
    : 'an offer that is gone';

const rankWords = { species: 'species', genus: 'genus', family: 'family' } as const;

interface Said {
  readonly list: Pick<SeasonList, 'spots'> & { readonly result: { readonly offers: readonly Offer[] } | null };
  readonly currency: string;
  readonly units: UnitSystem;
}

/** A limit of the list in words. */
export function sayLimit(limit: ListLimit, { list, currency, units }: Said): string {
  switch (limit.kind) {
    case 'budget':
      return `The budget of ${sayMoney(limit.most, currency)}`;
    case 'share': {
      const trees = limit.room === 1 ? '1 tree' : `${limit.room} trees`;
      const room = limit.over ? 'it is over its share already and may not grow' : `there is room for ${trees} more`;
      return `The share of the ${rankWords[limit.rank]} ${limit.taxon}: ${room}`;
    }
    case 'available': {
      const offer = list.result?.offers.find(({ id }) => id === limit.offerId);
      return `${offer?.nursery ?? 'The nursery'} has ${limit.most} of ${sayOffer(offer, units)}`;
    }
    case 'lock': {
      const spot = list.spots.find(({ spotId }) => spotId === limit.spotId);
      return `The choice fixed for ${spot?.ref ?? 'a place'}`;
    }
  }
}

/** How far a limit would have to give way, in what it is counted in. */
export function sayRelaxation(limit: ListLimit, by: number, currency: string): string {
  if (limit.kind === 'lock') return 'would have to be let go';
  if (limit.kind === 'budget') return `would have to be ${sayMoney(Math.ceil(by), currency)} more`;
  const trees = Math.ceil(by - 1e-6);
  return `would have to bear ${trees === 1 ? '1 tree' : `${trees} trees`} more`;
}
