import { addDaysTo, type IsoDate, type StockKind } from '@sombra/core';
import { measuredGround, measuredStock } from './measures';
import { dice, seededUuid, type Dice } from './seed';
import { preparedStreets, streets, type Street } from './streets';
import { plantingSeasons, record, treeHistory, type DemoRecord } from './tree-history';

export interface DemoSpot {
  readonly id: string;
  readonly treeId: string;
  readonly ref: string;
  readonly place: string;
  readonly species: string;
  readonly lng: number;
  readonly lat: number;
  readonly records: readonly DemoRecord[];
}

export interface DemoTown {
  readonly programme: string;
  readonly timeZone: string;
  readonly spots: readonly DemoSpot[];
}

const species: readonly [string, ...string[]] = [
  'Celtis australis',
  'Tipuana tipu',
  'Quercus suber',
  'Metrosideros excelsa',
  'Jacaranda mimosifolia',
  'Ceratonia siliqua',
  'Olea europaea',
  'Koelreuteria paniculata',
  'Tilia tomentosa',
  'Prunus lusitanica',
  'Fraxinus angustifolia',
  'Ginkgo biloba',
];

const treesPerStreet = 20;
const preparedPerStreet = 4;

/** The town of Talhamar as its records tell it on a day. Same seed and day, same town. */
export function demoTown({ seed, today }: { seed: string; today: IsoDate }): DemoTown {
  const spots = streets.flatMap((street) => streetSpots(street, seed, today));
  return { programme: 'Shade Walks', timeZone: 'Atlantic/Azores', spots };
}

/** Spots measured this season, with their trees in the holding yard: what the example files hold. */
export function preparedSpots({ seed, today }: { seed: string; today: IsoDate }): DemoSpot[] {
  return preparedStreets.flatMap((street) => {
    const from = dice(`${seed}/${street.name}`);
    return Array.from({ length: 15 }, (_, i) => ({
      ...spotAt(street, i, 15, today, from),
      records: preparation(street, today, from, {
        kind: stockKind(i),
        surplusMm: from.between(0, 110),
        upTo: i < 12 ? 'stock' : 'ground',
      }),
    }));
  });
}

function streetSpots(street: Street, seed: string, today: IsoDate): DemoSpot[] {
  const from = dice(`${seed}/${street.name}`);
  const seasons = plantingSeasons(today, 4);
  const count = treesPerStreet + preparedPerStreet;
  return Array.from({ length: count }, (_, i) => {
    const spot = spotAt(street, i, count, today, from);
    if (i >= treesPerStreet) {
      const upTo = (['ground', 'stock', 'nothing', 'doubt'] as const)[i - treesPerStreet] ?? 'ground';
      const options = { kind: stockKind(i), surplusMm: from.between(0, 90), upTo };
      return { ...spot, records: preparation(street, today, from, options) };
    }
    const firstDay = seasons[i % seasons.length] ?? today;
    const plantedOn = latest(addDaysTo(firstDay, from.whole(0, 110)), addDaysTo(today, -3));
    return { ...spot, records: plantedRecords(street, i, plantedOn, today, from) };
  });
}

const latest = (wished: IsoDate, limit: IsoDate): IsoDate => (wished > limit ? limit : wished);

function stockKind(i: number): StockKind {
  if (i % 7 === 3) return 'bare_root';
  return i % 3 === 0 ? 'balled' : 'container';
}

function spotAt(street: Street, i: number, count: number, today: IsoDate, from: Dice): Omit<DemoSpot, 'records'> {
  const along = (i + 0.5) / count;
  const wobble = () => from.between(-0.00002, 0.00002);
  const at = (axis: 0 | 1) =>
    Number((street.from[axis] + (street.to[axis] - street.from[axis]) * along + wobble()).toFixed(6));
  const instant = Date.parse(`${addDaysTo(today, -1500)}T09:00:00Z`);
  return {
    id: seededUuid(instant, from),
    treeId: seededUuid(instant, from),
    ref: `${street.prefix}-${String(101 + i).padStart(4, '0')}`,
    place: street.name,
    species: from.pick([...species] as [string, ...string[]]),
    lng: at(0),
    lat: at(1),
  };
}

function plantedRecords(street: Street, i: number, plantedOn: IsoDate, today: IsoDate, from: Dice): DemoRecord[] {
  const surplusMm = street.trouble === 'deep_stock' ? from.between(60, 140) : from.between(0, 60);
  const ground = measuredGround(street, from);
  const stock = measuredStock(stockKind(i), from, surplusMm);
  const measuredOn = addDaysTo(plantedOn, -from.whole(20, 60));
  return [
    record('ground', ground, { on: measuredOn, hour: 10, by: 'Inês Tavoro', from }),
    record('stock', stock, { on: addDaysTo(plantedOn, -2), hour: 9, by: 'Bento Quarel', from }),
    ...treeHistory({ street, ground, stock, plantedOn, today, from }),
  ];
}

interface PreparationOptions {
  readonly kind: StockKind;
  readonly surplusMm: number;
  readonly upTo: 'nothing' | 'ground' | 'stock' | 'doubt';
}

function preparation(street: Street, today: IsoDate, from: Dice, options: PreparationOptions): DemoRecord[] {
  if (options.upTo === 'nothing') return [];
  const on = addDaysTo(today, -from.whole(4, 20));
  const measured = measuredGround(street, from);
  // A doubtful test: the hole was topped up between two readings and nobody wrote it down.
  const percolation =
    options.upTo === 'doubt'
      ? measured.percolation.map((reading, i) =>
          i < 3 ? reading : { ...reading, levelMm: Math.min(2000, reading.levelMm + 150) },
        )
      : measured.percolation;
  const ground = record('ground', { ...measured, percolation }, { on, hour: 10, by: 'Inês Tavoro', from });
  if (options.upTo !== 'stock') return [ground];
  const stock = measuredStock(options.kind, from, options.surplusMm);
  return [ground, record('stock', stock, { on: addDaysTo(on, 2), hour: 9, by: 'Bento Quarel', from })];
}

export type { DemoRecord };
