import type { IsoDate } from '../calendar';
import { InvalidInputError, requireWithin } from '../errors';
import { leftAfter } from './stress';

/** What holds water for a tree: its ball, and the soil around it that its roots have reached. */
export interface WaterStore {
  readonly volumeL: number;
  /** Volumetric shares of `volumeL`, 0–1. */
  readonly wiltingPoint: number;
  readonly fieldCapacity: number;
  readonly saturation: number;
  /** Of the ground it lies on, seen from above. m² */
  readonly areaM2: number;
  /** What runs off downward in a day once it is above field capacity, at most. L */
  readonly drainsL: number;
}

/** Water a store holds at field capacity above the wilting point, L. */
export const holdsOf = ({ volumeL, fieldCapacity, wiltingPoint }: WaterStore): number =>
  volumeL * (fieldCapacity - wiltingPoint);
const atSaturation = ({ volumeL, saturation, wiltingPoint }: WaterStore): number =>
  volumeL * (saturation - wiltingPoint);

/** One day as it works on a tree. */
export interface WaterDay {
  readonly day: IsoDate;
  /** Of the whole tree. L */
  readonly demandL: number;
  /** Of it, what its roots beside the ball are asked for, 0–1. */
  readonly soilShare: number;
  /** From the bare or mulched surface of the ball. L */
  readonly evaporationL: number;
  /** That reaches the ground under the crown. mm */
  readonly rainMm: number;
  /** Poured on the ball, less what missed it. L */
  readonly dosesL: number;
  /** Of it, what nobody of the programme saw poured. L */
  readonly unseenL?: number;
  readonly soil: WaterStore;
  /** What other roots want of `soil`: they go deeper, and take it down to the wilting point. L */
  readonly othersL?: number;
  /** Of what it can drink, what is left when it asks for water; `waterFromShare` unless it is still to be weaned. */
  readonly asksFrom?: number;
  /** Of `soil.volumeL`, what roots reached only today: it is as moist as what they had reached before. L of soil */
  readonly grownL: number;
}

/** What somebody found in the ball: share of what it holds at field capacity, over 1 where it is wetter. */
export interface WaterReading {
  readonly day: IsoDate;
  readonly share: number;
  /** Standard error of `share`. */
  readonly errorShare: number;
}

export interface WaterState {
  /** Above the wilting point. L */
  readonly ballL: number;
  readonly soilL: number;
  /** Variance of `ballL`, L². */
  readonly variance: number;
}

export interface BalancedDay extends WaterState {
  readonly day: IsoDate;
  /** Of what the ball holds at field capacity; over 1 where it is wetter. */
  readonly share: number;
  /** Standard error of `share`. */
  readonly errorShare: number;
  /** Of what both stores can give before they wilt the tree, what is left, by where it drinks: 0–1. */
  readonly supply: number;
  /** What the soil in reach is short of, to what it holds at field capacity. L */
  readonly soilShortL: number;
  readonly rainL: number;
  readonly dosesL: number;
  /** Water of the soil that roots reached today. */
  readonly reachedL: number;
  readonly usedL: number;
  /** Out of the soil, by other roots. */
  readonly othersL: number;
  readonly evaporatedL: number;
  /** Out of both stores. */
  readonly drainedL: number;
  /** By which readings changed the ball, kept apart from what flowed. */
  readonly correctionL: number;
  /** It wants water: less is left than it asks from. */
  readonly asks: boolean;
  /** Less than nineteen twentieths of its demand was met. */
  readonly stressed: boolean;
  /** More than half of the ball's air was filled at the end of the day. */
  readonly waterlogged: boolean;
}

/** How unsure a day makes the ball: of what flowed through it, and of what it holds. Estimates. */
const flowError = 0.2;
const dailyError = 0.02;
/** Of a dose that nobody of the programme saw poured: it may have been half of it, or half as much again. */
const unseenError = 0.5;
/** A ball is somewhere between empty and full, however long nobody looked: no less sure than this, of what it holds. */
const mostError = 0.35;
const fullError = 0.1;
/** A share of the demand met under which a day counts as one of stress. */
const metShare = 0.95;
/** Roots in the wetter place take up to so much more than their share (compensated uptake, Jarvis 1989); an estimate. */
const mostMakeUp = 1;
const mostAmount = 1e6;
/** A tree asks for water once half of what it can drink is gone: from there on it closes its leaves. */
export const waterFromShare = 0.5;
/** Rain that the crown keeps and gives back to the air. mm, an estimate for a young crown. */
export const interceptionMm = 1;

/**
 * Water of a tree day by day in two stores, ball and soil within root reach: rain and doses in, use and evaporation out by
 * FAO-56's stress within the day, the wetter side making up for the drier, what is over field capacity down as fast as the ground takes it. A reading moves the
 * ball's water by the weight of its error against the balance's (scalar Kalman update), booked as a correction.
 *
 * In both stores: in (with what roots reach) + correction = out + change, to the last digit.
 * @throws InvalidInputError for a negative amount, or readings of a day that is not among the days
 */
export function balance(
  ball: WaterStore,
  from: WaterState,
  days: readonly WaterDay[],
  readings: readonly WaterReading[] = [],
): BalancedDay[] {
  const known = new Set(days.map(({ day }) => day));
  const stray = readings.find(({ day }) => !known.has(day));
  if (stray) throw new InvalidInputError(`readings must be of the days of the balance, got ${stray.day}`, 'readings');
  const byDay = new Map<IsoDate, WaterReading[]>();
  for (const reading of readings) byDay.set(reading.day, [...(byDay.get(reading.day) ?? []), reading]);
  let state = from;
  return days.map((day) => {
    const next = balanceDay(ball, state, day, byDay.get(day.day) ?? noReadings);
    state = next;
    return next;
  });
}

const noReadings: readonly WaterReading[] = [];
const amounts = ['demandL', 'evaporationL', 'rainMm', 'dosesL', 'grownL'] as const;

/** One day of `balance`, with the readings of that day. */
export function balanceDay(
  ball: WaterStore,
  before: WaterState,
  day: WaterDay,
  readings: readonly WaterReading[],
): BalancedDay {
  for (const key of amounts) {
    // Asked of every tree every day: what is right is passed at once.
    if (!(day[key] >= 0 && day[key] <= mostAmount)) {
      requireWithin(key, day[key], { min: 0, max: mostAmount, unit: key === 'rainMm' ? 'mm' : 'L' });
    }
  }
  const { soil } = day;
  const reaching = Math.max(0, day.rainMm - interceptionMm);
  const rainL = reaching * (ball.areaM2 + soil.areaM2);
  // What comes in first fills the ball to saturation; the rest runs into the soil beside it, and off from there.
  const wet = poured(before.ballL, reaching * ball.areaM2 + day.dosesL, atSaturation(ball));
  const known = soil.volumeL - day.grownL;
  const reachedL = known > 0 ? (before.soilL / known) * day.grownL : 0;
  const wetSoil = poured(before.soilL + reachedL, reaching * soil.areaM2 + wet.overL, atSaturation(soil));
  const askedSoil = day.demandL * day.soilShare;
  const askedBall = day.demandL - askedSoil;
  // Where one side falls short its other roots make up for it, as far as they reach: to twice what they are asked for.
  const ownBall = taken(wet.heldL, holdsOf(ball), askedBall + day.evaporationL);
  const ownSoil = taken(wetSoil.heldL, holdsOf(soil), askedSoil);
  const shortBall = askedBall - (ownBall - evaporatedOf(ownBall, askedBall, day.evaporationL));
  const fromBall = askedBall + Math.min(mostMakeUp * askedBall, Math.max(0, askedSoil - ownSoil));
  const fromSoil = askedSoil + Math.min(mostMakeUp * askedSoil, Math.max(0, shortBall));
  const used = taken(wet.heldL, holdsOf(ball), fromBall + day.evaporationL);
  const usedSoil = taken(wetSoil.heldL, holdsOf(soil), fromSoil);
  const evaporatedL = evaporatedOf(used, fromBall, day.evaporationL);
  // The ball lies in the soil: what runs out of it goes there, as far as there is room and the ground takes it down.
  // Where it is dry other roots do not close their leaves as a young tree does: their share of what is left grows.
  const othersL = Math.min(day.othersL ?? 0, wetSoil.heldL - usedSoil);
  const soilL = wetSoil.heldL - usedSoil - othersL;
  const drainedBall = Math.min(drains(wet.heldL - used, ball), atSaturation(soil) - soilL + soil.drainsL);
  const drainedSoil = drains(soilL + drainedBall, soil);
  const soilEndL = soilL + drainedBall - drainedSoil;
  const drainedL = wetSoil.overL + drainedSoil;
  const flowsL = rainL + day.dosesL + used + drainedBall;
  const holdsL = holdsOf(ball);
  const unseenL = Math.min(day.unseenL ?? 0, holdsL);
  const grown =
    before.variance +
    (dailyError * holdsL) ** 2 +
    (flowError * Math.min(flowsL, holdsL)) ** 2 +
    (unseenError * unseenL) ** 2;
  // A ball that overflowed was full, whatever it held before.
  const surest = wet.overL > 0 ? fullError : mostError;
  const variance = Math.min(grown, (surest * holdsL) ** 2);
  const flowed = wet.heldL - used - drainedBall;
  const read = readings.reduce((one, reading) => update(one, reading, ball), { ballL: flowed, variance });
  const met = day.demandL > 0 ? (used - evaporatedL + usedSoil) / day.demandL : 1;
  const airL = atSaturation(ball) - holdsL;
  const supply = (1 - day.soilShare) * fullness(read.ballL, ball) + day.soilShare * fullness(soilEndL, soil);
  return {
    day: day.day,
    ballL: read.ballL,
    soilL: soilEndL,
    variance: read.variance,
    share: holdsL > 0 ? read.ballL / holdsL : 0,
    errorShare: holdsL > 0 ? Math.sqrt(read.variance) / holdsL : 0,
    supply,
    soilShortL: shortOf(soilEndL, soil),
    rainL,
    dosesL: day.dosesL,
    reachedL,
    usedL: used - evaporatedL + usedSoil,
    othersL,
    evaporatedL,
    drainedL,
    correctionL: read.ballL - flowed,
    asks: supply < (day.asksFrom ?? waterFromShare),
    stressed: met < metShare,
    waterlogged: read.ballL - holdsL > airL / 2,
  };
}

/** What a store is short of, to what it holds at field capacity. L */
export const shortOf = (heldL: number, store: WaterStore): number => Math.max(0, holdsOf(store) - heldL);

/** Of what left the ball, what its surface gave off. */
const evaporatedOf = (usedL: number, askedL: number, evaporationL: number): number =>
  askedL + evaporationL > 0 ? (usedL * evaporationL) / (askedL + evaporationL) : 0;

/** Of what a store holds at field capacity, what is there: 0–1. */
export const fullness = (heldL: number, store: WaterStore): number => {
  const holdsL = holdsOf(store);
  return holdsL > 0 ? Math.min(1, heldL / holdsL) : 0;
};

function poured(heldL: number, moreL: number, mostL: number): { readonly heldL: number; readonly overL: number } {
  const room = Math.max(0, mostL - heldL);
  const in_ = Math.min(room, moreL);
  return { heldL: heldL + in_, overL: moreL - in_ };
}

const taken = (availableL: number, holdsL: number, demandL: number): number =>
  availableL - leftAfter(availableL, holdsL, demandL);

const drains = (heldL: number, store: WaterStore): number =>
  Math.min(store.drainsL, Math.max(0, heldL - holdsOf(store)));

function update(
  { ballL, variance }: { ballL: number; variance: number },
  { share, errorShare }: WaterReading,
  ball: WaterStore,
): { ballL: number; variance: number } {
  const holdsL = holdsOf(ball);
  const error = (errorShare * holdsL) ** 2;
  const weight = variance / (variance + error);
  const moved = ballL + weight * (share * holdsL - ballL);
  return { ballL: Math.min(atSaturation(ball), Math.max(0, moved)), variance: (1 - weight) * variance };
}
