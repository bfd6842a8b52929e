import { addDaysTo, daysBetween, type IsoDate } from '../calendar';
import { drainsSlowly } from '../ground';
import { crownSpreadM, type CrownGrowth } from '../match';
import { inPlantingWindow, type PlantingWindow } from '../season';
import { referenceEtMm, type Station, type WeatherDay } from '../weather';
import {
  balanceDay,
  fullness,
  holdsOf,
  shortOf,
  waterFromShare,
  type BalancedDay,
  type WaterDay,
  type WaterReading,
  type WaterState,
} from './balance';
import { ballStore, reachedSoil, rootBaseC, rootReachMm, soilShareAt, type RootGround } from './tree-stores';

/** All of a tree that its balance goes by, besides what was poured and found: plain numbers, so that they can be kept. */
export interface WaterSubject extends RootGround {
  readonly plantedOn: IsoDate;
  readonly heightAtPlantingM: number;
  readonly crown: CrownGrowth;
  /** Of reference evapotranspiration, what its crown asks for in leaf. */
  readonly use: number;
  /** Of it, what the surface over its ball gives off. */
  readonly surface: number;
  /** What other roots take from the soil around it, of reference evapotranspiration over that soil; left out for none. */
  readonly others?: number;
  /** Of what is poured, what reaches the ball, and of rain, what runs off its slope; left out for a berm on the level. */
  readonly reaches?: number;
  readonly runsOff?: number;
  /** Planted in leaf from a bench that was watered every day. */
  readonly weaning?: boolean;
  /** How full the ball came, of what it holds, and how sure that is. */
  readonly came: { readonly share: number; readonly errorShare: number };
}

/** What was poured on its ball, and found in it, by day. */
export interface WaterGiven {
  /** Less what missed the ball. L, one a day, in order */
  readonly doses: readonly (readonly [IsoDate, number])[];
  readonly readings: readonly WaterReading[];
  /** Of the doses, what keepers told of by their links. L, one a day, in order */
  readonly unseen?: readonly (readonly [IsoDate, number])[];
}

/** A tree's water at the end of a day, from where it can be followed on as if it had been followed from its planting. */
export interface WaterCheckpoint extends WaterState {
  readonly day: IsoDate;
  /** Over `rootBaseC` since planting. °C·d */
  readonly degreeDays: number;
  readonly stressDays: number;
  readonly waterloggedDays: number;
  /** Since when its ball has been drowning without a break. */
  readonly drownedSince: IsoDate | null;
  /** Since when it has been asking for water without a break. */
  readonly askingSince: IsoDate | null;
}

/** A day of weather as every tree of a programme has it. */
export interface ClimateDay {
  readonly day: IsoDate;
  /** The first of its month, as days since 1970: quicker to count with than a date. */
  readonly monthSerial: number;
  readonly etMm: number;
  readonly rainMm: number;
  /** Over `rootBaseC`. °C·d */
  readonly degrees: number;
  /** Trees rest: bare roots may be planted. */
  readonly resting: boolean;
}

export interface WaterClimate {
  /** What was measured, gaps filled, until today. */
  readonly past: readonly ClimateDay[];
  /** After that: the forecast, from the first day that was not measured on, and behind it a year ago without its rain. */
  readonly ahead: readonly ClimateDay[];
  readonly today: IsoDate;
  readonly forecastUntil: IsoDate;
}

/** Of what is poured, what reaches the ball within a berm. An estimate. */
export const doseReaches = 0.9;
/**
 * What comes from a bench that was watered every day asks earlier while its roots are in the ball alone, and is weaned by
 * the time they have gone so far. Estimates
 */
const weaned = { reachMm: 200, askedEarlier: 0.2 } as const;
/** What a crown asks for while it rests, of what it asks for in leaf. An estimate: bare twigs, and evergreens in the cold. */
export const restingUse = 0.3;
/** How far ahead trees are followed. Days. */
const aheadDays = 60;
/** Where a tree was planted before its weather begins, its roots went on as in a mild year. °C·d a day, an estimate. */
const usualDegrees = 6;

/** On a day that never thaws nothing drinks, and nothing dries. An estimate of frozen soil from the air */
const staysFrozenC = 0;

/** Days since 1970; a date without a time is read as UTC. */
const serialOf = (day: IsoDate): number => Date.parse(day) / 86_400_000;

/** Turns weather into what it does to any tree of a programme: worked out once for all of them. */
export function waterClimate(
  weather: {
    readonly station: Station;
    readonly recorded: readonly WeatherDay[];
    readonly forecast: readonly WeatherDay[];
  },
  { windows, today }: { readonly windows: readonly PlantingWindow[]; readonly today: IsoDate },
): WaterClimate {
  const recorded = weather.recorded.filter(({ day }) => day <= today);
  const days = (all: readonly WeatherDay[]) => climateDays(filled(all), weather.station, windows);
  const last = recorded.at(-1);
  const known = last?.day ?? addDaysTo(today, -1);
  const coming = untilToday(
    last,
    weather.forecast.filter(({ day }) => day > known),
    today,
  );
  const forecastUntil = coming.at(-1)?.day ?? known;
  const byDay = new Map(recorded.map((day) => [day.day, day]));
  const behind = Array.from({ length: aheadDays }, (_, i) => addDaysTo(forecastUntil, i + 1)).flatMap((day) => {
    const before = byDay.get(addDaysTo(day, -364));
    return before && daysBetween(today, day) <= aheadDays ? [{ ...before, day, rainMm: 0 }] : [];
  });
  return { past: days(recorded), ahead: days([...coming, ...behind]), forecastUntil, today };
}

/** Longer than this nobody guesses what the weather was. Days */
const mostSilentDays = 14;

/**
 * Where a station is late, what was forecast of the days up to today stands in for what it will say; where nothing was,
 * the last day that is known, without its rain, for a fortnight at most.
 */
function untilToday(last: WeatherDay | undefined, forecast: readonly WeatherDay[], today: IsoDate): WeatherDay[] {
  const newest = forecast.at(-1) ?? last;
  const silent = newest ? daysBetween(newest.day, today) : 0;
  const bridge = newest && silent > 0 && silent <= mostSilentDays ? [{ ...newest, day: today, rainMm: 0 }] : [];
  const coming = [...forecast, ...bridge];
  const [first] = coming;
  const joins = last && first && daysBetween(last.day, first.day) <= mostSilentDays;
  return joins ? filled([last, ...coming]).slice(1) : filled(coming);
}

const climateDays = (days: readonly WeatherDay[], station: Station, windows: readonly PlantingWindow[]): ClimateDay[] =>
  days.map((weather) => {
    const { day, rainMm, tMinC, tMaxC } = weather;
    return {
      day,
      monthSerial: serialOf(`${day.slice(0, 8)}01`),
      etMm: tMaxC <= staysFrozenC ? 0 : referenceEtMm(weather, station),
      rainMm,
      degrees: Math.max(0, (tMinC + tMaxC) / 2 - rootBaseC),
      resting: windows.length > 0 && inPlantingWindow(windows, 'bare_root', day),
    };
  });

/** Days without a measurement are as the last one was, without rain. */
function filled(days: readonly WeatherDay[]): WeatherDay[] {
  const all: WeatherDay[] = [];
  for (const day of days) {
    let last = all.at(-1);
    while (last && addDaysTo(last.day, 1) < day.day) {
      last = { ...last, day: addDaysTo(last.day, 1), rainMm: 0 };
      all.push(last);
    }
    if (!last || day.day > last.day) all.push(day);
  }
  return all;
}

/**
 * How a tree begins: on the day before the first of its days with weather. Followed from its planting its ball holds what
 * it came with; from later on it may hold anything.
 * @param firstDay the first day of weather on or after its planting
 */
export function waterStart(subject: WaterSubject, firstDay: IsoDate): WaterCheckpoint {
  const late = daysBetween(subject.plantedOn, firstDay);
  const { share, errorShare } = late === 0 ? subject.came : unknownBall;
  const degreeDays = Math.max(0, late) * usualDegrees;
  const ball = ballStore(subject);
  const soil = reachedSoil(subject, rootReachMm(degreeDays));
  const holdsL = holdsOf(ball);
  return {
    day: addDaysTo(firstDay, -1),
    ballL: share * holdsL,
    soilL: holdsOf(soil) * share,
    variance: (errorShare * holdsL) ** 2,
    degreeDays,
    stressDays: 0,
    waterloggedDays: 0,
    drownedSince: null,
    askingSince: null,
  };
}

/** Of a ball nobody followed so far. */
const unknownBall = { share: 0.7, errorShare: 0.5 } as const;

export interface Followed {
  readonly days: readonly BalancedDay[];
  readonly to: WaterCheckpoint;
}

const noReadings: readonly WaterReading[] = [];

/**
 * Follows a tree's water on from a checkpoint through days of weather. Days have to follow the checkpoint in order;
 * whatever was given before them is left out. However the days are cut into pieces, the result is the same to the last bit.
 */
export function followWater(
  subject: WaterSubject,
  from: WaterCheckpoint,
  climate: readonly ClimateDay[],
  { doses, readings, unseen }: WaterGiven = nothingGiven,
): Followed {
  const ball = ballStore(subject);
  const given = doses.length > 0 ? new Map(doses) : null;
  const told = unseen ? new Map(unseen) : null;
  const read = readings.length > 0 ? byDayOf(readings) : null;
  const plantedSerial = serialOf(subject.plantedOn);
  let { degreeDays, stressDays, waterloggedDays, drownedSince, askingSince } = from;
  let state: WaterState = from;
  let knownL = reachedSoil(subject, rootReachMm(degreeDays)).volumeL;
  let month = NaN;
  let crownM2 = 0;
  const days: BalancedDay[] = [];
  for (const { day, monthSerial, etMm, rainMm, degrees, resting } of climate) {
    degreeDays += degrees;
    const reachMm = rootReachMm(degreeDays);
    const soil = reachedSoil(subject, reachMm);
    if (monthSerial !== month) {
      // A crown is as it was on the first of the month: the same wherever the days begin.
      month = monthSerial;
      const years = Math.max(0, monthSerial - plantedSerial) / 365.25;
      crownM2 =
        (Math.PI / 4) * crownSpreadM({ heightAtPlantingM: subject.heightAtPlantingM, years }, subject.crown) ** 2;
    }
    const one: WaterDay = {
      day,
      demandL: etMm * subject.use * crownM2 * (resting ? restingUse : 1),
      soilShare: soilShareAt(reachMm),
      evaporationL: etMm * subject.surface * ball.areaM2,
      rainMm: rainMm * (1 - (subject.runsOff ?? 0)),
      dosesL: given?.get(day) ?? 0,
      unseenL: told?.get(day) ?? 0,
      soil,
      othersL: etMm * (subject.others ?? 0) * soil.areaM2 * (resting ? restingUse : 1),
      asksFrom: asksFromShare(subject, reachMm),
      grownL: Math.max(0, soil.volumeL - knownL),
    };
    knownL = soil.volumeL;
    const next = balanceDay(ball, state, one, read?.get(day) ?? noReadings);
    if (next.stressed) stressDays += 1;
    if (next.waterlogged) waterloggedDays += 1;
    drownedSince = next.waterlogged ? (drownedSince ?? day) : null;
    askingSince = next.asks ? (askingSince ?? day) : null;
    days.push(next);
    state = next;
  }
  const { ballL, soilL, variance } = state;
  const day = climate.at(-1)?.day ?? from.day;
  return {
    days,
    to: { day, ballL, soilL, variance, degreeDays, stressDays, waterloggedDays, drownedSince, askingSince },
  };
}

/** Water poured on a ball spreads into the soil beside it: at most so much as the ball holds. An estimate */
const mostBeside = 1;

/**
 * The dose that fills what is missing to field capacity, in the ball and in the soil beside it; where water drains slowly
 * the ball's alone, and no more. L, with what misses the ball
 */
export function doseL(
  subject: WaterSubject,
  { ballL, soilShortL }: { readonly ballL: number; readonly soilShortL: number },
): number {
  const ball = ballStore(subject);
  const holdsL = holdsOf(ball);
  const beside = drainsSlowly(subject.percolation ?? undefined) ? 0 : Math.min(soilShortL, mostBeside * holdsL);
  return (shortOf(ballL, ball) + beside) / reachesOf(subject);
}

/** Of what is poured, what reaches a tree's ball. */
export const reachesOf = ({ reaches }: Pick<WaterSubject, 'reaches'>): number => reaches ?? doseReaches;

/** Of what a tree can drink, what is left when it asks for water: more while it is used to a nursery's daily rhythm. */
export function asksFromShare({ weaning }: Pick<WaterSubject, 'weaning'>, reachMm: number): number {
  if (!weaning) return waterFromShare;
  return waterFromShare + weaned.askedEarlier * Math.max(0, 1 - reachMm / weaned.reachMm);
}

/** Of the water a store or the ball can give, what is there. */
export interface WaterNow {
  readonly day: IsoDate;
  readonly ballL: number;
  readonly share: number;
  readonly errorShare: number;
  readonly supply: number;
  readonly asks: boolean;
  readonly soilShortL: number;
}

/** What a checkpoint says of a tree, as the last of its days said it. */
export function waterAt(subject: WaterSubject, { day, ballL, soilL, variance, degreeDays }: WaterCheckpoint): WaterNow {
  const ball = ballStore(subject);
  const reachMm = rootReachMm(degreeDays);
  const soilShare = soilShareAt(reachMm);
  const soil = reachedSoil(subject, reachMm);
  const holdsL = holdsOf(ball);
  const supply = (1 - soilShare) * fullness(ballL, ball) + soilShare * fullness(soilL, soil);
  return {
    day,
    ballL,
    share: holdsL > 0 ? ballL / holdsL : 0,
    errorShare: holdsL > 0 ? Math.sqrt(variance) / holdsL : 0,
    supply,
    asks: supply < asksFromShare(subject, reachMm),
    soilShortL: shortOf(soilL, soil),
  };
}

const nothingGiven: WaterGiven = { doses: [], readings: [] };

function byDayOf(readings: readonly WaterReading[]): Map<IsoDate, WaterReading[]> {
  const all = new Map<IsoDate, WaterReading[]>();
  for (const reading of readings) all.set(reading.day, [...(all.get(reading.day) ?? []), reading]);
  return all;
}

/** The first day on which two accounts of what was given differ; `null` where they are the same. */
export function givenDiffersFrom(one: WaterGiven, other: WaterGiven): IsoDate | null {
  const counts = new Map<string, number>();
  const tally = ({ doses, readings, unseen = [] }: WaterGiven, step: 1 | -1): void => {
    const lines = [
      ...doses.map(([day, litres]) => `${day} dose ${litres}`),
      ...unseen.map(([day, litres]) => `${day} unseen ${litres}`),
      ...readings.map(({ day, share, errorShare }) => `${day} reading ${share} ${errorShare}`),
    ];
    for (const line of lines) counts.set(line, (counts.get(line) ?? 0) + step);
  };
  tally(one, 1);
  tally(other, -1);
  const differing = [...counts].filter(([, count]) => count !== 0).map(([line]) => line.slice(0, 10));
  return differing.sort()[0] ?? null;
}

/** Whether a day is the last of its month: a checkpoint of a tree is kept of each. */
export const endsMonth = (day: IsoDate): boolean => addDaysTo(day, 1).endsWith('-01');
