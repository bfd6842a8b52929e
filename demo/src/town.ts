import { addDaysTo, mildWinterWindows, type IsoDate, type PlantingWindow, type StockKind } from '@sombra/core';
import { assessed } from './assessments';
import { baseMap, type DemoFeature, type DemoLayer } from './base-map';
import {
  demoRounds,
  demoTickets,
  nextSaturday,
  plantingSaturdays,
  type DemoDay,
  type DemoRound,
  type DemoTicket,
} from './bookings';
import { measuredGround, measuredStock, type Site } from './measures';
import { demoDeliveries, type DemoDelivery } from './deliveries';
import { demoZones, type DemoZone } from './drip-zones';
import { demoFleet } from './fleet';
import { demoKeepers, type DemoKeeper } from './keepers';
import { demoNurseries, type DemoNursery } from './nurseries';
import { dayHelpers } from './day-people';
import { dice, seededUuid, type Dice } from './seed';
import type { DemoSpot } from './spot';
import { pickSpecies } from './species-mix';
import { crossStreetY, greenPlaces, stripPlaces, uphillStreetX } from './street-plan';
import {
  crossStreets,
  greens,
  preparedPlaces,
  uphillStreets,
  zones,
  type CrossStreet,
  type Green,
  type Place,
  type UphillStreet,
} from './streets';
import { fall, lngLat, type Metres } from './terrain';
import { plantingSeasons, record, treeHistory, type DemoRecord } from './tree-history';
import { demoViews, type DemoView } from './views';
import { wateringsOf, writtenDays, type WrittenDays } from './waterings';
import { demoWeather, station, stormDaysAgo, type DemoWeather } from './weather';
import { wetnessOf, type Wetness } from './wetness';

export interface DemoTown {
  readonly programme: string;
  readonly timeZone: string;
  readonly lng: number;
  readonly station: { readonly latDeg: number; readonly elevationM: number };
  readonly windows: readonly PlantingWindow[];
  readonly spots: readonly DemoSpot[];
  readonly weather: DemoWeather;
  readonly base: Readonly<Record<DemoLayer, DemoFeature[]>>;
  readonly days: readonly DemoDay[];
  readonly tickets: readonly DemoTicket[];
  readonly rounds: readonly DemoRound[];
  readonly views: readonly DemoView[];
  readonly nurseries: readonly DemoNursery[];
  readonly deliveries: readonly DemoDelivery[];
  readonly fleet: ReturnType<typeof demoFleet>;
  readonly keepers: readonly DemoKeeper[];
  readonly zones: readonly DemoZone[];
}

/** Four past seasons and the one under way. */
const seasonsOfPlanting = 5;

interface Making {
  readonly seed: string;
  readonly today: IsoDate;
  readonly wetness: Wetness;
  readonly written: WrittenDays;
  /** Planting Saturdays so far, oldest first. */
  readonly saturdays: readonly IsoDate[];
}

/** The town of Talhamar as its records tell it on a day. Same seed and day, same town. */
export function demoTown({ seed, today }: { seed: string; today: IsoDate }): DemoTown {
  const weather = demoWeather({ seed, today, years: 4.6 });
  const wetness = wetnessOf(weather.recorded);
  const making = {
    seed,
    today,
    wetness,
    written: writtenDays(today, wetness),
    saturdays: plantingSeasons(today, seasonsOfPlanting)
      .flatMap(plantingSaturdays)
      .filter((day) => day < today),
  };
  const spots = [...crossStreets, ...uphillStreets, ...greens].flatMap((place) => placeSpots(place, making));
  return {
    programme: 'Shade Walks',
    timeZone: 'Atlantic/Azores',
    lng: -25.4,
    station,
    windows: mildWinterWindows,
    spots,
    weather,
    base: baseMap(seed),
    days: plantingDays(spots, making),
    tickets: demoTickets(seed, today),
    rounds: demoRounds(seed, today),
    views: demoViews(today),
    nurseries: demoNurseries(seed),
    deliveries: demoDeliveries(spots, { seed, today }),
    fleet: demoFleet(dice(`${seed}/fleet`)),
    zones: demoZones(spots, today, dice(`${seed}/zones`)),
    keepers: demoKeepers(spots, today, dice(`${seed}/keepers`)),
  };
}

/** Spots measured this season, with their trees in the holding yard: what the example files hold. */
export function preparedSpots({ seed, today }: { seed: string; today: IsoDate }): DemoSpot[] {
  return preparedPlaces.flatMap((place) => {
    const from = dice(`${seed}/${place.name}`);
    return stripPlaces(place, 15, from).map((at, i) => {
      const spot = spotAt(place, i, at, addDaysTo(today, -30), from);
      const options = {
        kind: stockKind(i),
        surplusMm: from.between(0, 110),
        upTo: i < 12 ? 'stock' : 'ground',
        place,
        pavementDeg: pavementDeg(place, at),
        i,
        species: spot.species ?? '',
      } as const;
      return { ...spot, records: preparation(siteAt(place, at), today, from, options) };
    });
  });
}

const isGreen = (place: CrossStreet | UphillStreet | Green): place is Green => 'box' in place;

function placeSpots(place: CrossStreet | UphillStreet | Green, making: Making): DemoSpot[] {
  const from = dice(`${making.seed}/${place.name}`);
  const count = place.trees + place.preparing;
  const places = isGreen(place) ? greenPlaces(place, count, from) : stripPlaces(place, count, from);
  // What is prepared lies among what is planted: every so many spots.
  const every = place.preparing > 0 ? count / place.preparing : Infinity;
  let prepared = 0;
  return places.map((at, i) => {
    const isPrepared = Math.floor((i + 1) / every) > Math.floor(i / every);
    if (isPrepared) return preparedSpot(place, i, at, prepared++, making, from);
    return plantedSpot(place, i, count, at, making, from);
  });
}

/** A street is planted piece by piece, one piece a year: each on a Saturday of its own. */
const pieces = 5;

function saturdayFor(place: Place, along: number, saturdays: readonly IsoDate[]): IsoDate | undefined {
  // Every place begins at another time, so that each season shows all over the town.
  const begins = (place.prefix.charCodeAt(0) * 0.618) % 1;
  const piece = (Math.floor(along * pieces) + begins) / pieces;
  return saturdays[Math.floor(piece * saturdays.length)];
}

function plantedSpot(
  place: Place,
  i: number,
  count: number,
  at: Metres,
  { seed, saturdays, today, wetness, written }: Making,
  from: Dice,
): DemoSpot {
  const plantedOn = saturdayFor(place, i / count, saturdays) ?? addDaysTo(today, -7);
  const site = siteAt(place, at);
  const surplusMm = site.trouble === 'deep_stock' ? from.between(60, 140) : from.between(0, 60);
  const ground = measuredGround(site, from);
  const stock = measuredStock(stockKind(i), from, surplusMm);
  const measuredOn = addDaysTo(plantedOn, -from.whole(20, 60));
  const spot = spotAt(place, i, at, addDaysTo(measuredOn, -from.whole(5, 40)), from);
  const records = [
    record('ground', ground, { on: measuredOn, hour: 10, by: 'Inês Tavoro', from }),
    record('stock', stock, { on: addDaysTo(plantedOn, -2), hour: 9, by: 'Bento Quarel', from }),
    // Dice of its own: what is judged otherwise at one tree does not change the others.
    ...treeHistory({
      ...{ site, ground, stock, plantedOn, today, wetness },
      ...{ from: dice(`${seed}/life/${spot.ref}`), stormOn: addDaysTo(today, -stormDaysAgo) },
    }),
    ...wateringsOf({ ref: spot.ref, seed, site, stock, plantedOn, written }),
  ];
  return { ...spot, records };
}

/** Measured where the pavement was widened after the trees were bought. */
const narrowStripMm = 480;

function preparedSpot(place: Place, i: number, at: Metres, prepared: number, { today }: Making, from: Dice): DemoSpot {
  const forTheDay = place.name === 'Tramway Avenue' && prepared < 34;
  const narrow = place.trouble === 'narrow_strip';
  const upTo =
    forTheDay || narrow
      ? 'stock'
      : place.trouble === 'unassessed'
        ? 'nothing'
        : (preparedUpTo[prepared % preparedUpTo.length] ?? 'ground');
  const spot = spotAt(place, i, at, addDaysTo(today, -from.whole(24, 70)), from);
  const options = {
    kind: narrow ? 'balled' : stockKind(i),
    surplusMm: from.between(0, 90),
    upTo,
    place,
    pavementDeg: pavementDeg(place, at),
    i,
    species: spot.species ?? '',
  } as const;
  const site = siteAt(place, at);
  return {
    ...spot,
    // What grows there is decided once the place is.
    species: upTo === 'stock' || upTo === 'chosen' ? spot.species : null,
    records: preparation(narrow ? { ...site, stripWidthMm: narrowStripMm } : site, today, from, options),
  };
}

/** How far the spots of a street have come, in turn. */
const preparedUpTo = [
  'stock',
  'settled',
  'stock',
  'assessed',
  'chosen',
  'settled',
  'doubt',
  'stock',
  'nothing',
  'settled',
] as const;

/** Away from the street's middle lies the pavement; in a green there is none to speak of. */
function pavementDeg(place: Place, [x, y]: Metres): number {
  if (isGreen(place as CrossStreet)) return 0;
  if ('northM' in place) return y > crossStreetY(place as CrossStreet, x) ? 0 : 180;
  return x > uphillStreetX(place as UphillStreet, y) ? 90 : 270;
}

function siteAt(place: Place, at: Metres): Site {
  const { slopePct, towardsDeg } = fall(at);
  const { stripWidthMm, wireHeightM, trouble } = place;
  return {
    ...zones[place.zone],
    stripWidthMm,
    wireHeightM,
    trouble,
    slopePct: Math.round(slopePct),
    fallsTowardsDeg: Math.round(towardsDeg) % 360,
  };
}

function stockKind(i: number): StockKind {
  if (i % 7 === 3) return 'bare_root';
  return i % 3 === 0 ? 'balled' : 'container';
}

function spotAt(place: Place, i: number, at: Metres, addedOn: IsoDate, from: Dice): Omit<DemoSpot, 'records'> {
  const instant = Date.parse(`${addedOn}T09:00:00Z`);
  const [lng, lat] = lngLat(at);
  return {
    id: seededUuid(instant, from),
    treeId: seededUuid(instant, from),
    ref: `${place.prefix}-${String(101 + i).padStart(4, '0')}`,
    place: place.name,
    species: pickSpecies(from),
    addedOn,
    lng,
    lat,
  };
}

interface PreparationOptions {
  readonly kind: StockKind;
  readonly surplusMm: number;
  readonly upTo: 'nothing' | 'ground' | 'assessed' | 'settled' | 'chosen' | 'stock' | 'doubt';
  readonly place: Place;
  readonly pavementDeg: number;
  readonly i: number;
  readonly species: string;
}

/** A doubtful test: the hole was topped up between two readings and nobody wrote it down. */
const toppedUp = <R extends { levelMm: number }>(readings: readonly R[]): R[] =>
  readings.map((reading, i) => (i < 3 ? reading : { ...reading, levelMm: Math.min(2000, reading.levelMm + 150) }));

function preparation(site: Site, today: IsoDate, from: Dice, options: PreparationOptions): DemoRecord[] {
  const { upTo, place, kind, species } = options;
  if (upTo === 'nothing') return [];
  const day = (ago: number, hour: number, by = 'Inês Tavoro') => ({ on: addDaysTo(today, -ago), hour, by, from });
  const ago = from.whole(6, 20);
  const measured = measuredGround(site, from);
  const percolation = upTo === 'doubt' ? toppedUp(measured.percolation) : measured.percolation;
  const ground = record('ground', { ...measured, percolation }, day(ago, 10));
  if (upTo === 'ground' || upTo === 'doubt') return [ground];
  const stock = () => record('stock', measuredStock(kind, from, options.surplusMm), day(ago - 2, 9, 'Bento Quarel'));
  if (upTo === 'stock') return [ground, stock()];
  const seen = assessed(place, site, { on: addDaysTo(today, -ago), ...options, from });
  const assessment = record('assessment', seen, day(ago, 11));
  if (upTo === 'assessed') return [ground, assessment];
  const settled = {
    decidedOn: addDaysTo(today, 1 - ago),
    verdict: 'plant',
    reason: 'Clear all round, soil will do',
  } as const;
  const verdict = record('verdict', settled, day(ago - 1, 15));
  if (upTo === 'settled') return [ground, assessment, verdict];
  const choice = { chosenOn: addDaysTo(today, 2 - ago), species, stockKind: kind, caliperMm: null, reason: '' };
  return [ground, assessment, verdict, record('choice', choice, day(ago - 2, 16))];
}

const tramwayDay = {
  gathering: 'Tram shelter at the west end of Tramway Avenue',
  firstAid: 'Green bag at the shelter; Bento Quarel is trained',
  toilets: 'Tramway school, side door',
  water: 'Two tanks of 600 L at the shelter, hydrant at the corner of Mole Street',
  traffic: 'Kerb lane coned off from 08:00, permit of the road office',
  bring: 'Closed boots, something to drink, a hat',
  parking: 'Harbour car park, ten minutes on foot',
} as const;

const firstOf = ([spot]: readonly DemoSpot[]): readonly [number, number] | null => (spot ? [spot.lng, spot.lat] : null);

/** The Saturdays that were, from what was planted on them, and the next two. */
function plantingDays(spots: readonly DemoSpot[], { seed, today, saturdays }: Making): DemoDay[] {
  const from = dice(`${seed}/days`);
  const people = dice(`${seed}/day-people`);
  const plantedOn = ({ records }: DemoSpot) => records.find((one) => one.kind === 'planting')?.facts.plantedOn;
  const ready = (name: string) =>
    spots.filter(({ place, records }) => place === name && records.length === 2 && records[1]?.kind === 'stock');
  const day = (onDay: IsoDate, members: readonly DemoSpot[]): DemoDay => ({
    id: seededUuid(Date.parse(`${addDaysTo(onDay, -40)}T08:00:00Z`), from),
    onDay,
    title: [...new Set(members.map(({ place }) => place))].slice(0, 2).join(' and ') || 'Planting day',
    spotIds: members.map(({ id }) => id),
    capacity: members.length,
    helpers: [],
    arrangements: {},
    gathering: null,
    pace: onDay < today ? Math.exp(people.around(0.14, 0.16)) : null,
  });
  const past = saturdays.map((onDay) =>
    day(
      onDay,
      spots.filter((spot) => plantedOn(spot) === onDay),
    ),
  );
  const next = nextSaturday(today);
  return [
    ...past.filter(({ spotIds }) => spotIds.length > 0),
    {
      ...day(next, ready('Tramway Avenue').slice(0, 34)),
      capacity: 34,
      helpers: dayHelpers(people, { count: 29, atMs: Date.parse(`${addDaysTo(today, -12)}T18:00:00Z`) }),
      arrangements: tramwayDay,
      gathering: firstOf(ready('Tramway Avenue')),
    },
    day(addDaysTo(next, 14), ready('Saltmakers Street')),
  ];
}

export type { DemoRecord };
