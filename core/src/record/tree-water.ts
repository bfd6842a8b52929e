import { addDaysTo, daysBetween, type IsoDate } from '../calendar';
import type { WindExposure } from '../ground';
import { crownSpreadM, middlingCrown, treeSizeAt, type Grade, type Species } from '../match';
import { givesWater } from '../practice';
import { inPlantingWindow } from '../season';
import {
  balance,
  ballStore,
  fingerShare,
  probeShare,
  reachedSoil,
  referenceEtMm,
  rootBaseC,
  rootReachMm,
  soilShareAt,
  type BalancedDay,
  type Station,
  type WaterDay,
  waterBecause,
  type WaterReading,
  type WaterReason,
  type WaterStore,
  type WeatherDay,
} from '../water';
import type { SpotBasis } from './spot-basis';
import { ofKind, standing, type FieldRecord } from './record';

/** Of reference evapotranspiration, what a crown asks for, by its species' use of water; estimates by thirds. */
const useOf: Readonly<Record<Grade, number>> = { low: 0.3, medium: 0.5, high: 0.7 };
const windOf: Readonly<Record<WindExposure, number>> = { sheltered: 0.85, open: 1, exposed: 1.15 };
/** Of that, while it rests. An estimate: bare twigs, and evergreens in the cold. */
const restingUse = 0.3;
/** From bare soil and through mulch, of reference evapotranspiration over the ball. Estimates. */
const surfaceUse = { bare: 0.35, mulched: 0.12 } as const;
/** Of what is poured, what reaches the ball. An estimate. */
export const doseReaches = 0.9;
/** A tree asks for water once half of what it can drink is gone: from there on it closes its leaves. */
export const waterFromShare = 0.5;
/** How far ahead a tree is followed where it does not rain after the forecast. Days. */
const aheadDays = 60;
/** Where nobody said how moist its ball came. */
const cameAs = { moist: 0.9, dry: 0.4, unknown: 0.7, errorShare: 0.25 } as const;

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
}

/** When water is next asked for, and how much; or that it does not dry out as far as one can see. */
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
  readonly surprises: readonly { readonly reading: WaterReading; readonly expected: number }[];
}

/**
 * Follows the water of a planted tree from its records and the weather, from the day it was planted; `null` for a tree
 * without a planting or stock, or without any weather since. Late records change nothing but what they say: it is always
 * worked out whole.
 */
export function treeWater({ records, basis, species, weather, today }: TreeWaterInput): TreeWater | null {
  const kept = standing(records);
  const planting = ofKind(kept, 'planting').at(-1)?.facts;
  const { stock } = basis;
  const known = weather.recorded.filter(({ day }) => planting && day >= planting.plantedOn && day <= today);
  const first = known[0];
  if (!planting || !stock || !first) return null;
  const site = { stock, soil: basis.ground.soil, percolation: basis.percolation };
  const ball = ballStore(site);
  const holdsL = ball.volumeL * (ball.fieldCapacity - ball.wiltingPoint);
  const doses = dosesOf(kept, { holdsL, plantedOn: planting.plantedOn, firstWaterL: planting.firstWaterL });
  const readings = readingsOf(kept, ball).filter(({ day }) => day >= first.day && day <= today);
  const grown = grower({ basis, species, weather, plantedOn: planting.plantedOn, ball, site });
  const past = filled(known).map((day) => grown(day, doses.get(day.day) ?? 0));
  // Followed from its planting the ball came as it came; from later on it may hold anything.
  const fromPlanting = first.day === planting.plantedOn;
  const came = stock.arrival?.moist ?? null;
  const share = !fromPlanting || came === null ? cameAs.unknown : came ? cameAs.moist : cameAs.dry;
  const error = fromPlanting ? cameAs.errorShare : 2 * cameAs.errorShare;
  const soil = past[0]?.soil;
  const from = {
    ballL: share * holdsL,
    soilL: soil ? soil.volumeL * (soil.fieldCapacity - soil.wiltingPoint) * share : 0,
    variance: (error * holdsL) ** 2,
  };
  const known_ = new Set(past.map(({ day }) => day));
  const days = balance(
    ball,
    from,
    past,
    readings.filter(({ day }) => known_.has(day)),
  );
  const last = days.at(-1);
  const coming = comingDays(weather, today);
  const ahead = last
    ? balance(
        ball,
        last,
        coming.days.map((day) => grown(day, 0)),
      )
    : [];
  const next = nextWater({ days, ahead, holdsL, forecastUntil: coming.forecastUntil });
  const surprises = surprisesOf(days, readings, holdsL);
  return {
    ball,
    holdsL,
    because: [
      ...whyNext(next, { days, ahead, holdsL, forecastUntil: coming.forecastUntil }),
      ...whySurprised(surprises),
    ],
    days,
    ahead,
    forecastUntil: coming.forecastUntil,
    readings,
    next,
    stressDays: days.filter(({ stressed }) => stressed).length,
    waterloggedDays: days.filter(({ waterlogged }) => waterlogged).length,
    surprises,
  };
}

/** Doses by day: the soak at planting, each watering, and a remedy of water as what fills the ball. */
function dosesOf(
  kept: readonly FieldRecord[],
  { holdsL, plantedOn, firstWaterL }: { holdsL: number; plantedOn: IsoDate; firstWaterL: number },
): Map<IsoDate, number> {
  const doses = new Map([[plantedOn, firstWaterL * doseReaches]]);
  const add = (day: IsoDate, litres: number) => doses.set(day, (doses.get(day) ?? 0) + litres);
  const waterings = ofKind(kept, 'watering');
  for (const { facts } of waterings) add(facts.wateredOn, facts.litres * doseReaches);
  const measured = new Set(waterings.map(({ facts }) => facts.wateredOn));
  for (const { facts } of ofKind(kept, 'remedy')) {
    if (givesWater.includes(facts.remedy) && !measured.has(facts.doneOn)) add(facts.doneOn, holdsL);
  }
  return doses;
}

const readingsOf = (kept: readonly FieldRecord[], ball: WaterStore): WaterReading[] =>
  ofKind(kept, 'inspection').flatMap(({ facts: { inspectedOn: day, probe, finger } }) => {
    if (probe !== null) return [{ day, ...probeShare(probe, ball) }];
    return finger === undefined ? [] : [{ day, ...fingerShare(finger) }];
  });

interface Growing {
  readonly basis: SpotBasis;
  readonly species: Species | null;
  readonly weather: WaterWeather;
  readonly plantedOn: IsoDate;
  readonly ball: WaterStore;
  readonly site: Parameters<typeof reachedSoil>[0];
}

/** Turns a day of weather into what it does to the tree as large as it is by then; days have to come in order. */
function grower({ basis, species, weather, plantedOn, ball, site }: Growing) {
  const heightAtPlantingM = site.stock.heightM;
  const use = useOf[species?.waterUse ?? 'medium'] * windOf[basis.assessment?.wind ?? 'open'];
  const surface = basis.practice.mulch.thicknessMm > 0 ? surfaceUse.mulched : surfaceUse.bare;
  // Before the weather begins roots went on as in the year that is known.
  const first = weather.recorded.find(({ day }) => day >= plantedOn)?.day ?? plantedOn;
  let degreeDays = yearlyDegreeDays(weather.recorded) * (Math.max(0, daysBetween(plantedOn, first)) / 365.25);
  let before = reachedSoil(site, rootReachMm(degreeDays));
  return (day: WeatherDay, dosesL: number): WaterDay => {
    const etMm = referenceEtMm(day, weather.station);
    degreeDays += degreesOf(day);
    const reachMm = rootReachMm(degreeDays);
    const soil = reachedSoil(site, reachMm);
    const grownL = Math.max(0, soil.volumeL - before.volumeL);
    before = soil;
    const tree = { heightAtPlantingM, years: Math.max(0, daysBetween(plantedOn, day.day)) / 365.25 };
    const crownM = species ? treeSizeAt(species, tree).crownM : crownSpreadM(tree, middlingCrown);
    const resting = basis.windows.length > 0 && inPlantingWindow(basis.windows, 'bare_root', day.day);
    return {
      day: day.day,
      demandL: etMm * use * (Math.PI / 4) * crownM ** 2 * (resting ? restingUse : 1),
      soilShare: soilShareAt(reachMm),
      evaporationL: etMm * surface * ball.areaM2,
      rainMm: day.rainMm,
      dosesL,
      soil,
      grownL,
    };
  };
}

const degreesOf = ({ tMinC, tMaxC }: WeatherDay): number => Math.max(0, (tMinC + tMaxC) / 2 - rootBaseC);

const yearlyDegreeDays = (days: readonly WeatherDay[]): number =>
  days.length === 0 ? 0 : (days.reduce((sum, day) => sum + degreesOf(day), 0) / days.length) * 365.25;

/** Days without a measurement are as the last one was, without rain. */
function filled(days: readonly WeatherDay[]): WeatherDay[] {
  const all: WeatherDay[] = [];
  for (const day of days) {
    let last = all.at(-1);
    while (last && daysBetween(last.day, day.day) > 1) {
      last = { ...last, day: addDaysTo(last.day, 1), rainMm: 0 };
      all.push(last);
    }
    if (!last || day.day > last.day) all.push(day);
  }
  return all;
}

/** What comes: the forecast, then the same days of a year ago without their rain. */
function comingDays(
  { recorded, forecast }: WaterWeather,
  today: IsoDate,
): { days: WeatherDay[]; forecastUntil: IsoDate } {
  const ahead = filled(forecast.filter(({ day }) => day > today));
  const forecastUntil = ahead.at(-1)?.day ?? today;
  const byDay = new Map(recorded.map((day) => [day.day, day]));
  const behind = Array.from({ length: aheadDays }, (_, i) => addDaysTo(forecastUntil, i + 1)).flatMap((day) => {
    const before = byDay.get(addDaysTo(day, -364));
    return before && daysBetween(today, day) <= aheadDays ? [{ ...before, day, rainMm: 0 }] : [];
  });
  return { days: [...ahead, ...behind], forecastUntil };
}

interface Followed {
  readonly days: readonly BalancedDay[];
  readonly ahead: readonly BalancedDay[];
  readonly holdsL: number;
  readonly forecastUntil: IsoDate;
}

function whyNext(next: NextWater, { days, ahead, holdsL, forecastUntil }: Followed): WaterReason[] {
  const now = days.at(-1);
  const state = now
    ? [waterBecause('ball_half_now', { sharePct: now.share * 100, errorPct: now.errorShare * 100 })]
    : [];
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
        perDayL: until.length > 0 ? spentL / until.length : (now?.usedL ?? 0),
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

function nextWater({ days, ahead, holdsL, forecastUntil }: Followed): NextWater {
  const now = days.at(-1);
  if (now?.waterlogged) {
    const dry = [...days].reverse().findIndex(({ waterlogged }) => !waterlogged);
    return { kind: 'drowned', since: days.at(dry < 0 ? 0 : -dry)?.day ?? now.day };
  }
  const asks = [...(now ? [now] : []), ...ahead].find(({ supply }) => supply < waterFromShare);
  if (!asks) return ahead.length > 0 ? { kind: 'never_dries', withinDays: ahead.length } : { kind: 'not_forecast' };
  const litres = Math.max(0, holdsL - asks.ballL) / doseReaches;
  return { kind: 'water', on: asks.day, litres, afterForecast: asks.day > forecastUntil };
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
