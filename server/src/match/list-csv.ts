import type { SeasonList } from '@sombra/contract';
import { csvTable } from '../platform/csv';

const columns = [
  'ref',
  'place',
  'species',
  'stock_kind',
  'caliper_mm',
  'height_m',
  'nursery',
  'price',
  'fit_pct',
  'next_species',
  'next_fit_loss_pct',
  'next_price_more',
  'without_because',
] as const;
type Row = Partial<Record<(typeof columns)[number], string | number | null>>;

/** A season's list as it is seen: a row for every place, those without a tree with the reason. */
export function listCsv({ spots, result }: SeasonList): string {
  const offers = new Map(result?.offers.map((offer) => [offer.id, offer]));
  const picks = new Map(result?.picks.map((pick) => [pick.spotId, pick]));
  const without = new Map(result?.without.map(({ spotId, why }) => [spotId, why]));
  const percent = (share: number) => Math.round(share * 1000) / 10;
  const rows = spots.map(({ spotId, ref, place }): Row => {
    const pick = picks.get(spotId);
    const offer = pick && offers.get(pick.offerId);
    if (!pick || !offer) return { ref, place, without_because: without.get(spotId) ?? '' };
    return {
      ref,
      place,
      species: offer.species,
      stock_kind: offer.stockKind,
      caliper_mm: offer.caliperMm,
      height_m: offer.heightM,
      nursery: offer.nursery,
      price: offer.price.toFixed(2),
      fit_pct: percent(pick.fit),
      ...(pick.next && {
        next_species: offers.get(pick.next.offerId)?.species ?? '',
        next_fit_loss_pct: percent(pick.next.fitLoss),
        next_price_more: pick.next.priceMore.toFixed(2),
      }),
    };
  });
  return csvTable(
    columns,
    rows.map((row) => columns.map((column) => row[column] ?? '')),
  );
}
