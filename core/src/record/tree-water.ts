import { addDaysTo, type IsoDate } from '../calendar';
import type { WindExposure } from '../ground';
import { crownGrowthOf, middlingCrown, type Grade, type Species } from '../match';
import { givesWater, type Practice } from '../practice';
import {
  ballStore,
  doseL,
  fingerShare,
  followWater,
  holdsOf,
  waterAt,
  probeShare,
  reachesOf,
  sensorErrorShare,
  rootBlock,
  waterBecause,
  waterClimate,
  waterStart,
  type BalancedDay,
  type ClimateDay,
  type WaterCheckpoint,
  type WaterClimate,
  type WaterGiven,
  type WaterNow,
  type WaterReading,
  type WaterReason,
  type WaterStore,
  type WaterSubject,
} from '../water';
import type { Station, WeatherDay } from '../weather';
import { ofKind, standing, type FieldRecord } from './record';
import { agreeingSurprises, foundUse, type Surprise, type UseFound } from './site-water';
import type { SpotBasis } from './spot-basis';
import { waterSite } from './water-site';

/** Of reference evapotranspiration, what a crown asks for, by its species' use of water; estimates by thirds. */
export const useOf: Readonly<Record<Grade, number>> = { low: 0.3, medium: 0.5, high: 0.7 };
const windOf: Readonly<Record<WindExposure, number>> = { sheltered: 0.85, open: 1, exposed: 1.15 };
/** From bare soil and through mulch, of reference evapotranspiration over the ball. Estimates. */
const surfaceUse = { bare: 0.35, mulched: 0.12 } as const;
/** Where nobody said how moist its ball came. */
export const cameAs = { moist: 0.9, dry: 0.4, unknown: 0.7, errorShare: 0.25 } as const;

export interface WaterWeather {
  readonly station: Station;
  readonly recorded: readonly WeatherDay[];
  readonly forecast: readonly WeatherDay[];
}

export interface TreeWaterInput {
  readonly records: readonly FieldRecord[];
  readonly basis: SpotBasis;
  /** Of the library; `null` where its species is not known there. */
  readonly species: Species | null;
  readonly weather: WaterWeather;
  readonly today: IsoDate;
  /** Where the server had followed it to, some months ago; it leads to the same as its planting. */
  readonly checkpoint?: WaterCheckpoint | null | undefined;
}

/** Since or from when water is asked for, and how much; or that it does not dry out as far as one can see. */
export type NextWater =
  | { readonly kind: 'water'; readonly on: IsoDate; readonly litres: number; readonly afterForecast: boolean }
  | { readonly kind: 'never_dries'; readonly withinDays: number }
  | { readonly kind: 'not_forecast' }
  | { readonly kind: 'drowned'; readonly since: IsoDate };

export interface TreeWater {
  readonly ball: WaterStore;
  /** Water the ball holds at field capacity, L. */
  readonly holdsL: number;
  /** From planting, or the first day of weather, until today. */
  readonly days: readonly BalancedDay[];
  /** After today: by the forecast, and behind it by last year's demand without rain. */
  readonly ahead: readonly BalancedDay[];
  readonly forecastUntil: IsoDate;
  readonly readings: readonly WaterReading[];
  readonly next: NextWater;
  readonly because: readonly WaterReason[];
  readonly stressDays: number;
  readonly waterloggedDays: number;
  /** Readings that lie further from the balance than both are unsure of. */
  /** What its readings say it drinks, where they agree that it is not what was expected. */
  readonly found: UseFound | null;
  readonly surprises: readonly Surprise[];
}

/** What the balance of a planted tree goes by, out of its records. */
export interface TreeInputs {
  readonly subject: WaterSubject;
  readonly given: WaterGiven;
}

/** Of reference evapotranspiration, what the surface over a ball gives off: mulched where the practice mulches. */
export const surfaceOf = ({ mulch }: Practice): number =>
  mulch.thicknessMm > 0 ? surfaceUse.mulched : surfaceUse.bare;

/** Of what is expected of it, what a tree was found to drink; 1 where nobody set anything. */
export const siteUseTimes = (kept: readonly FieldRecord[]): number =>
  ofKind(kept, 'site_water').at(-1)?.facts.useTimes ?? 1;

/** `null` for a tree without a planting or a measured stock. */
export function waterInputs(
  records: readonly FieldRecord[],
  basis: SpotBasis,
  species: Species | null,
): TreeInputs | null {
  const kept = standing(records);
  const planting = ofKind(kept, 'planting').at(-1)?.facts;
  const { stock } = basis;
  if (!planting || !stock) return null;
  const came = stock.arrival?.moist ?? null;
  const share = came === null ? cameAs.unknown : came ? cameAs.moist : cameAs.dry;
  const subject: WaterSubject = {
    block: rootBlock(stock),
    kind: stock.kind,
    soil: basis.ground.soil,
    percolation: basis.percolation ?? null,
    // How wet the ball of a tree was that others watered, nobody knows: it is followed from when it was taken over.
    plantedOn: planting.takenOver?.on ?? planting.plantedOn,
    heightAtPlantingM: stock.heightM,
    crown: species ? crownGrowthOf(species) : middlingCrown,
    use: useOf[species?.waterUse ?? 'medium'] * windOf[basis.assessment?.wind ?? 'open'] * siteUseTimes(kept),
    surface: surfaceOf(basis.practice),
    came: { share, errorShare: cameAs.errorShare },
    ...waterSite(kept, basis),
    ...(stock.kind === 'container' && !basis.dormant ? { weaning: true } : {}),
  };
  const ball = ballStore(subject);
  const of = {
    holdsL: holdsOf(ball),
    plantedOn: planting.plantedOn,
    firstWaterL: planting.firstWaterL,
    reaches: reachesOf(subject),
  };
  const unseen = unseenOf(kept, of.reaches);
  const since = <T>([day]: readonly [IsoDate, T]): boolean => day >= subject.plantedOn;
  const given = {
    doses: dosesOf(kept, of).filter(since),
    readings: readingsOf(kept, ball).filter(({ day }) => day >= subject.plantedOn || !planting.takenOver),
  };
  return { subject, given: unseen.length > 0 ? { ...given, unseen } : given };
}

/** The days of a climate that a tree is followed through, from after a checkpoint, or from its planting. */
export const daysAfter = (climate: WaterClimate, day: IsoDate): readonly ClimateDay[] => {
  // Night after night only the last day is new: sought from the end.
  return climate.past.slice(climate.past.findLastIndex((one) => one.day <= day) + 1);
};

/** Days after one, up to today, that no station has measured yet. */
export const presentDays = ({ ahead, today }: WaterClimate, after: IsoDate): readonly ClimateDay[] =>
  ahead.filter(({ day }) => day > after && day <= today);

/**
 * Where a tree's days begin: at a checkpoint that the climate goes on from without a gap, else at its planting or the
 * first day of weather since; `null` without any weather.
 */
export function beginningOf(
  { subject }: TreeInputs,
  climate: WaterClimate,
  checkpoint: WaterCheckpoint | null = null,
): WaterCheckpoint | null {
  const goesOn = checkpoint && climate.past.some(({ day }) => day === addDaysTo(checkpoint.day, 1));
  if (goesOn) return checkpoint;
  const first = climate.past.find(({ day }) => day >= subject.plantedOn);
  if (first) return waterStart(subject, first.day);
  // Planted since the last day that was measured: it begins with the next one.
  const { plantedOn } = subject;
  return climate.past.length > 0 && presentDays(climate, '').some(({ day }) => day === plantedOn)
    ? waterStart(subject, plantedOn)
    : null;
}

/**
 * Follows the water of a planted tree from its records and the weather, from the day it was planted or a checkpoint on;
 * `null` for a tree without a planting or stock, or without any weather since. Late records change nothing but what they
 * say: a checkpoint from before them leads to the same as the planting.
 */
export function treeWater({ records, basis, species, weather, today, checkpoint }: TreeWaterInput): TreeWater | null {
  const inputs = waterInputs(records, basis, species);
  const climate = waterClimate(weather, { windows: basis.windows, today });
  const begin = inputs && beginningOf(inputs, climate, checkpoint);
  if (!inputs || !begin) return null;
  const { subject, given } = inputs;
  const ball = ballStore(subject);
  const holdsL = holdsOf(ball);
  const measured = followWater(subject, begin, daysAfter(climate, begin.day), given);
  const present = followWater(subject, measured.to, presentDays(climate, measured.to.day), given);
  const [days, to] = [[...measured.days, ...present.days], present.to];
  if (days.length === 0) return null;
  const { days: ahead } = followWater(
    subject,
    to,
    climate.ahead.filter(({ day }) => day > to.day),
  );
  const followed = { subject, now: waterAt(subject, to), ahead, forecastUntil: climate.forecastUntil };
  const next = nextWater(followed, to);
  const seen = new Set(days.map(({ day }) => day));
  const readings = given.readings.filter(({ day }) => seen.has(day));
  const surprises = surprisesOf(days, readings, holdsL);
  return {
    ball,
    holdsL,
    because: [...whyNext(next, { ...followed, holdsL, usedL: days.at(-1)?.usedL ?? 0 }), ...whySurprised(surprises)],
    days,
    ahead,
    forecastUntil: climate.forecastUntil,
    readings,
    next,
    stressDays: to.stressDays,
    waterloggedDays: to.waterloggedDays,
    surprises,
    found:
      agreeingSurprises(surprises).length === 0
        ? null
        : foundUse(
            { subject, from: begin, times: siteUseTimes(standing(records)) },
            { climate: [...daysAfter(climate, begin.day), ...presentDays(climate, measured.to.day)], given },
          ),
  };
}

/** Doses by day: the soak at planting, each watering, and a remedy of water as what fills the ball. */
function dosesOf(
  kept: readonly FieldRecord[],
  of: {
    readonly holdsL: number;
    readonly plantedOn: IsoDate;
    readonly firstWaterL: number | undefined;
    readonly reaches: number;
  },
): [IsoDate, number][] {
  const { holdsL, plantedOn, firstWaterL, reaches } = of;
  const doses = new Map(firstWaterL === undefined ? [] : [[plantedOn, firstWaterL * reaches]]);
  const add = (day: IsoDate, litres: number) => doses.set(day, (doses.get(day) ?? 0) + litres);
  const waterings = ofKind(kept, 'watering');
  for (const { facts } of waterings) add(facts.wateredOn, facts.litres * reaches);
  const measured = new Set(waterings.map(({ facts }) => facts.wateredOn));
  for (const { facts } of ofKind(kept, 'remedy')) {
    if (givesWater.includes(facts.remedy) && !measured.has(facts.doneOn)) add(facts.doneOn, holdsL);
  }
  return [...doses].sort(([a], [b]) => a.localeCompare(b));
}

/** Of the doses, what keepers told of: counted, and trusted less. */
function unseenOf(kept: readonly FieldRecord[], reaches: number): [IsoDate, number][] {
  const unseen = new Map<IsoDate, number>();
  for (const { facts } of ofKind(kept, 'watering')) {
    if (facts.toldBy === undefined) continue;
    unseen.set(facts.wateredOn, (unseen.get(facts.wateredOn) ?? 0) + facts.litres * reaches);
  }
  return [...unseen].sort(([a], [b]) => a.localeCompare(b));
}

/** What looks and waterings found in the ball. What was found before a dose is how the day before ended. */
function readingsOf(kept: readonly FieldRecord[], ball: WaterStore): WaterReading[] {
  const looks = ofKind(kept, 'inspection').flatMap(({ facts: { inspectedOn: day, probe, finger } }) => {
    if (probe !== null) return [{ day, ...probeShare(probe, ball) }];
    return finger === undefined ? [] : [{ day, ...fingerShare(finger) }];
  });
  const doses = ofKind(kept, 'watering').flatMap(({ facts: { wateredOn, probeBefore, probeAfter, fingerBefore } }) => [
    ...(probeBefore ? [{ day: addDaysTo(wateredOn, -1), ...probeShare(probeBefore, ball) }] : []),
    ...(fingerBefore && !probeBefore ? [{ day: addDaysTo(wateredOn, -1), ...fingerShare(fingerBefore) }] : []),
    ...(probeAfter ? [{ day: wateredOn, ...probeShare(probeAfter, ball) }] : []),
  ]);
  const sensors = ofKind(kept, 'sensor').flatMap(({ facts: { readOn: day, share, flag } }) =>
    share === null || flag !== null ? [] : [{ day, share, errorShare: sensorErrorShare }],
  );
  return [...looks, ...doses, ...sensors];
}

interface Ahead {
  readonly subject: WaterSubject;
  readonly now: WaterNow;
  readonly ahead: readonly BalancedDay[];
  readonly forecastUntil: IsoDate;
}

function whyNext(
  next: NextWater,
  { now, usedL, ahead, holdsL, forecastUntil }: Ahead & { holdsL: number; usedL: number },
): WaterReason[] {
  const state = [waterBecause('ball_half_now', { sharePct: now.share * 100, errorPct: now.errorShare * 100 })];
  switch (next.kind) {
    case 'drowned':
      return [...state, waterBecause('ball_drowned', { since: next.since })];
    case 'never_dries':
      return [...state, waterBecause('ball_keeps', { withinDays: next.withinDays })];
    case 'not_forecast':
      return [...state, waterBecause('ball_not_forecast', {})];
    case 'water': {
      const until = ahead.filter(({ day }) => day <= next.on);
      const spentL = until.reduce((sum, { usedL, evaporatedL }) => sum + usedL + evaporatedL, 0);
      const rate = waterBecause('ball_half_by', {
        day: next.on,
        holdsL,
        perDayL: until.length > 0 ? spentL / until.length : usedL,
      });
      return [
        ...state,
        rate,
        ...(next.afterForecast ? [waterBecause('ball_after_forecast', { until: forecastUntil })] : []),
      ];
    }
  }
}

const whySurprised = (surprises: TreeWater['surprises']): WaterReason[] =>
  surprises.slice(-1).map(({ reading: { day, share }, expected }) => {
    const facts = { day, foundPct: share * 100, expectedPct: expected * 100 };
    return share < expected ? waterBecause('ball_found_drier', facts) : waterBecause('ball_found_wetter', facts);
  });

/** When water is next asked for by the days ahead. */
export function nextWater(
  { subject, now, ahead, forecastUntil }: Ahead,
  { drownedSince, askingSince }: Pick<WaterCheckpoint, 'drownedSince' | 'askingSince'>,
): NextWater {
  if (drownedSince !== null) return { kind: 'drowned', since: drownedSince };
  const asks = [now, ...ahead].find(({ asks }) => asks);
  if (!asks) return ahead.length > 0 ? { kind: 'never_dries', withinDays: ahead.length } : { kind: 'not_forecast' };
  const on = asks === now ? (askingSince ?? now.day) : asks.day;
  return { kind: 'water', on, litres: doseL(subject, asks), afterForecast: asks.day > forecastUntil };
}

/** A reading further off than twice what both are unsure of asks why. */
function surprisesOf(
  days: readonly BalancedDay[],
  readings: readonly WaterReading[],
  holdsL: number,
): TreeWater['surprises'] {
  const byDay = new Map(days.map((day) => [day.day, day]));
  return readings.flatMap((reading) => {
    const day = byDay.get(reading.day);
    if (!day) return [];
    const expected = (day.ballL - day.correctionL) / holdsL;
    const unsure = Math.hypot(reading.errorShare, day.errorShare);
    return Math.abs(reading.share - expected) > 2 * unsure ? [{ reading, expected }] : [];
  });
}
