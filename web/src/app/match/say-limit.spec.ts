import type { Offer } from '@sombra/contract';
import { sayLimit, sayMoney, sayRelaxation } from './say-limit';

const offer: Offer = {
  id: 'o1',
  nursery: 'Viveiro Azul',
  species: 'Quercus ilex',
  stockKind: 'balled',
  caliperMm: 60,
  heightM: null,
  price: 90,
  available: 4,
  listDay: '2026-11-20',
};
const said = {
  list: { spots: [{ spotId: 's1', ref: 'L-0101', place: 'Cordage Row' }], result: { offers: [offer] } },
  currency: 'EUR',
  units: 'metric' as const,
};

describe('limits in words', () => {
  it.each([
    [{ kind: 'budget', most: 12500.5 }, 'The budget of 12\u202f500.50 EUR'],
    [{ kind: 'available', offerId: 'o1', most: 4 }, 'Viveiro Azul has 4 of Quercus ilex, balled, 60 mm'],
    [{ kind: 'lock', spotId: 's1' }, 'The choice fixed for L-0101'],
    [
      { kind: 'share', rank: 'genus', taxon: 'Quercus', room: 1, over: false },
      'The share of the genus Quercus: there is room for 1 tree more',
    ],
    [
      { kind: 'share', rank: 'family', taxon: 'Fagaceae', room: 0, over: true },
      'The share of the family Fagaceae: it is over its share already and may not grow',
    ],
  ] as const)('%j', (limit, words) => {
    expect(sayLimit(limit, said)).toBe(words);
  });

  it('says inches to who reads inches', () => {
    expect(sayLimit({ kind: 'available', offerId: 'o1', most: 4 }, { ...said, units: 'us' })).toContain('2 3/8 in');
  });

  it('says how far a limit has to give way in what it counts', () => {
    expect(sayRelaxation({ kind: 'budget', most: 100 }, 80.2, 'EUR')).toBe('would have to be 81 EUR more');
    expect(sayRelaxation({ kind: 'available', offerId: 'o1', most: 4 }, 1, 'EUR')).toMatch(/1 tree more/);
    expect(sayRelaxation({ kind: 'lock', spotId: 's1' }, 1, 'EUR')).toMatch(/let go/);
    expect(sayMoney(90, 'EUR')).toBe('90 EUR');
  });
});
