import { shippedSpecies, stockKinds, type StockKind } from '@sombra/core';
import { dice } from './seed';

export interface DemoOffer {
  readonly species: string;
  readonly stockKind: StockKind;
  readonly caliperMm: number;
  readonly heightM: number;
  readonly price: number;
  readonly available: number;
}

export interface DemoNursery {
  readonly name: string;
  readonly file: string;
  readonly terms: string;
  readonly offers: readonly DemoOffer[];
}

const nurseries = [
  {
    name: 'Viveiro Azul',
    file: 'availability-viveiro-azul.csv',
    share: 0.72,
    kinds: ['container', 'balled', 'bare_root'],
    dear: 1,
    terms: 'Replacement of what dies within two growing seasons, planting not included.',
  },
  {
    name: 'Outra Margem',
    file: 'availability-outra-margem.csv',
    share: 0.55,
    kinds: ['container', 'balled'],
    dear: 0.86,
    terms: 'Replacement of what does not leaf out; claims within ten days of delivery.',
  },
] as const;

const calipers: Readonly<Record<StockKind, readonly number[]>> = { container: [35, 45], balled: [60], bare_root: [25] };
const pricePerMm: Readonly<Record<StockKind, number>> = { container: 2.3, balled: 3.1, bare_root: 1.2 };

/** What two invented nurseries have to sell this season: not everything, and not in any number. */
export function demoNurseries(seed: string): DemoNursery[] {
  return nurseries.map(({ name, file, share, kinds, dear, terms }) => {
    const from = dice(`${seed}/${name}`);
    const offers = shippedSpecies.flatMap(({ botanical, transplant, growth }) => {
      if (!from.chance(share)) return [];
      return stockKinds
        .filter((kind) => (kinds as readonly string[]).includes(kind) && transplant[kind] !== 'no' && from.chance(0.7))
        .flatMap((kind) =>
          calipers[kind]
            .filter(() => from.chance(0.75))
            .map((caliperMm): DemoOffer => {
              const rare = growth === 'slow' ? 1.35 : 1;
              const price = caliperMm * pricePerMm[kind] * dear * rare * from.between(0.85, 1.2);
              return {
                species: botanical,
                stockKind: kind,
                caliperMm,
                heightM: Math.round((1.4 + caliperMm / 22) * 10) / 10,
                price: Math.round(price * 2) / 2,
                available: from.whole(2, 34),
              };
            }),
        );
    });
    return { name, file, terms, offers };
  });
}
