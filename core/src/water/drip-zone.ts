import type { IsoDate } from '../calendar';
import { requireWithin } from '../errors';
import { limits } from '../limits';
import { soilWater, type PercolationClass, type SoilClass } from '../ground';
import { balanceDay, holdsOf, type WaterState, type WaterStore } from './balance';
import { followWater, waterStart, type ClimateDay, type WaterSubject } from './follow';
import { because, type WaterReason } from './reasons';
import { ballStore, downMmOf } from './tree-stores';

/** A valve's programme: so many minutes each time, so often. */
export interface ZoneProgramme {
  readonly minutes: number;
  /** Days from one watering to the next: 1 for every day. */
  readonly everyDays: number;
  /** On a day it runs. */
  readonly timesADay: number;
}

export const zonePlantKinds = ['tree', 'shrub', 'turf'] as const;
export type ZonePlantKind = (typeof zonePlantKinds)[number];

/** Plants of one kind on a valve, one tree or a patch. */
export interface ZonePlant {
  readonly kind: ZonePlantKind;
  readonly name: string;
  /** Emitters that reach it. */
  readonly emitters: number;
  /** Of a patch, m²; of a tree nobody asks. */
  readonly areaM2: number;
  /** A tree's own ball, soil and crown; a patch has none. */
  readonly subject?: WaterSubject | undefined;
}

export interface DripZone {
  readonly emitterLPerH: number;
  readonly plants: readonly ZonePlant[];
  readonly soil: SoilClass | null;
  readonly percolation: PercolationClass | null;
  readonly programme: ZoneProgramme;
  /** New turf is watered so until its day is over. */
  readonly turf: { readonly programme: ZoneProgramme; readonly until: IsoDate } | null;
}

/** What a programme did to one plant of a zone. */
export interface ZoneTrial {
  readonly plant: ZonePlant;
  /** At each watering, L. */
  readonly runL: number;
  readonly litres: number;
  readonly stressDays: number;
  readonly waterloggedDays: number;
  /** Of them, days on which it stands in water without the valve too. */
  readonly anywayDays: number;
  /** The first day it stood in water by the valve alone; `null` where it never did. */
  readonly drownsFrom: IsoDate | null;
  /** The valve keeps it in water for longer than roots bear. */
  readonly drowns: boolean;
  readonly because: readonly WaterReason[];
}

/** Of a patch: how deep its roots drink, and what it asks for of reference evapotranspiration. Estimates */
const patches: Readonly<Record<Exclude<ZonePlantKind, 'tree'>, { readonly depthMm: number; readonly use: number }>> = {
  shrub: { depthMm: 350, use: 0.5 },
  turf: { depthMm: 150, use: 0.8 },
};
const nothing: WaterStore = { volumeL: 0, wiltingPoint: 0, fieldCapacity: 0, saturation: 0, areaM2: 0, drainsL: 0 };
const dripReaches = 0.95;
/** Roots bear standing water for so many days; what the valve adds beyond them drowns. An estimate */
const bornDays = 7;
const [minutesWithin, everyWithin, timesWithin] = [
  { min: 0, max: 720, unit: 'min' },
  { min: 1, max: 60, unit: 'd' },
  { min: 1, max: 6, unit: '' },
] as const;

/** @throws InvalidInputError naming what is outside its limits */
export function requireZone(zone: Pick<DripZone, 'emitterLPerH' | 'programme' | 'turf'>): void {
  requireWithin('emitterLPerH', zone.emitterLPerH, limits.emitterLPerH);
  const programmes = { programme: zone.programme, ...(zone.turf ? { 'turf.programme': zone.turf.programme } : {}) };
  for (const [path, { minutes, everyDays, timesADay }] of Object.entries(programmes)) {
    requireWithin(`${path}.minutes`, minutes, minutesWithin);
    requireWithin(`${path}.everyDays`, everyDays, everyWithin);
    requireWithin(`${path}.timesADay`, timesADay, timesWithin);
  }
}

/** What a plant gets each time the valve opens, L. */
export const runLitres = (
  { emitterLPerH }: Pick<DripZone, 'emitterLPerH'>,
  emitters: number,
  minutes: number,
): number => (emitterLPerH * emitters * minutes) / 60;

/** The programme of a zone on a day: new turf's until its day is over. */
export const programmeOn = ({ programme, turf }: Pick<DripZone, 'programme' | 'turf'>, day: IsoDate): ZoneProgramme =>
  turf && day <= turf.until ? turf.programme : programme;

/** Waterings of one plant over days of weather, the first on the first of them. L a day */
function dosesOf(zone: DripZone, { emitters }: ZonePlant, climate: readonly ClimateDay[]): [IsoDate, number][] {
  let wait = 0;
  return climate.flatMap(({ day }): [IsoDate, number][] => {
    const { minutes, everyDays, timesADay } = programmeOn(zone, day);
    if (wait > 0) {
      wait -= 1;
      return [];
    }
    wait = Math.round(everyDays) - 1;
    const litres = runLitres(zone, emitters, minutes) * timesADay;
    return litres > 0 ? [[day, litres]] : [];
  });
}

/**
 * What one programme for all does to each plant on a valve, through the same weather, all of them beginning moist. Trees
 * are followed by their own balance, patches by one store over their root depth.
 * @throws InvalidInputError for a programme outside its limits
 */
export function tryZone(zone: DripZone, climate: readonly ClimateDay[]): ZoneTrial[] {
  requireZone(zone);
  return zone.plants.map((plant) => {
    const doses = dosesOf(zone, plant, climate);
    const follow = (given: readonly (readonly [IsoDate, number])[]) =>
      plant.subject ? followTree(plant.subject, given, climate) : followPatch(zone, plant, given, climate);
    const { stressDays, waterlogged } = follow(doses);
    // What rain alone does is no fault of the programme.
    const anyway = new Set(waterlogged.length > 0 ? follow([]).waterlogged : []);
    const trial = {
      plant,
      runL: runLitres(zone, plant.emitters, zone.programme.minutes),
      litres: doses.reduce((sum, [, dose]) => sum + dose, 0),
      stressDays,
      waterloggedDays: waterlogged.length,
      anywayDays: waterlogged.filter((day) => anyway.has(day)).length,
      drownsFrom: waterlogged.find((day) => !anyway.has(day)) ?? null,
    };
    const drowns = trial.waterloggedDays - trial.anywayDays > bornDays;
    return { ...trial, drowns, because: whyTrial({ ...trial, drowns }, climate.length) };
  });
}

interface Outcome {
  readonly stressDays: number;
  readonly waterlogged: readonly IsoDate[];
}

function followTree(
  subject: WaterSubject,
  doses: readonly (readonly [IsoDate, number])[],
  climate: readonly ClimateDay[],
): Outcome {
  const [first] = climate;
  if (!first) return { stressDays: 0, waterlogged: [] };
  const start = waterStart(subject, first.day);
  const from = { ...start, ballL: holdsOf(ballStore(subject)), variance: 0 };
  const reaching = doses.map(([day, litres]) => [day, litres * dripReaches] as const);
  const { days, to } = followWater(subject, from, climate, { doses: reaching, readings: [] });
  const waterlogged = days.filter((day) => day.waterlogged).map(({ day }) => day);
  return { stressDays: to.stressDays - start.stressDays, waterlogged };
}

function followPatch(
  { soil, percolation }: DripZone,
  { kind, areaM2 }: ZonePlant,
  doses: readonly (readonly [IsoDate, number])[],
  climate: readonly ClimateDay[],
): Outcome {
  const { depthMm, use } = patches[kind === 'tree' ? 'shrub' : kind];
  const { wiltingPoint, fieldCapacity, saturation } = soilWater[soil ?? 'loam'];
  const store: WaterStore = {
    volumeL: areaM2 * depthMm,
    wiltingPoint,
    fieldCapacity,
    saturation,
    areaM2,
    drainsL: areaM2 * downMmOf(percolation),
  };
  const below = { ...nothing, drainsL: store.drainsL };
  const given = new Map(doses);
  let state: WaterState = { ballL: holdsOf(store), soilL: 0, variance: 0 };
  let stressDays = 0;
  const waterlogged: IsoDate[] = [];
  for (const { day, etMm, rainMm } of climate) {
    const demandL = etMm * use * areaM2;
    const dosesL = (given.get(day) ?? 0) * dripReaches;
    const today = { day, demandL, soilShare: 0, evaporationL: 0, rainMm, dosesL, soil: below, grownL: 0 };
    const next = balanceDay(store, state, today, []);
    if (next.stressed) stressDays += 1;
    if (next.waterlogged) waterlogged.push(day);
    state = next;
  }
  return { stressDays, waterlogged };
}

/** More than this share of days in stress is too little water. */
const stressShare = 0.1;

function whyTrial(trial: Omit<ZoneTrial, 'because'>, days: number): WaterReason[] {
  const { runL, stressDays, waterloggedDays, anywayDays, drownsFrom, drowns, plant } = trial;
  const gets = because('zone_gets', { runL, emitters: plant.emitters });
  if (drowns && drownsFrom !== null)
    return [gets, because('zone_drowns', { from: drownsFrom, waterloggedDays, anywayDays, days })];
  if (stressDays > stressShare * days) return [gets, because('zone_thirsts', { stressDays, days })];
  return [gets, because('zone_suits', { stressDays, days })];
}

/** Standing in water kills sooner than thirst: its days weigh so much more. An estimate */
const drownWeight = 3;
const triedDays = [1, 2, 3, 4, 5, 7, 10, 14] as const;
const triedMinutes = [5, 10, 15, 20, 30, 45, 60, 90, 120, 180, 240] as const;

export interface ZoneProposal {
  readonly programme: ZoneProgramme;
  readonly trials: readonly ZoneTrial[];
}

const harm = (trials: readonly ZoneTrial[]): number =>
  trials.reduce(
    (sum, { stressDays, waterloggedDays, anywayDays }) =>
      sum + stressDays + drownWeight * (waterloggedDays - anywayDays),
    0,
  );

/**
 * Seeks the programme that does all plants of a zone least harm together; of those that do equally little, the one that
 * takes least water. Yields how far it is, 0–1, so that whoever asks can do something else between.
 */
export function* seekProgramme(
  zone: DripZone,
  climate: readonly ClimateDay[],
): Generator<number, ZoneProposal, undefined> {
  let best: (ZoneProposal & { readonly harm: number; readonly litres: number }) | null = null;
  const programmes = triedDays.flatMap((everyDays) =>
    triedMinutes.map((minutes) => ({ minutes, everyDays, timesADay: 1 })),
  );
  for (const [i, programme] of programmes.entries()) {
    const trials = tryZone({ ...zone, programme, turf: null }, climate);
    const [harmed, litres] = [harm(trials), trials.reduce((sum, trial) => sum + trial.litres, 0)];
    if (best === null || harmed < best.harm || (harmed === best.harm && litres < best.litres)) {
      best = { programme, trials, harm: harmed, litres };
    }
    yield (i + 1) / programmes.length;
  }
  return best ?? { programme: zone.programme, trials: tryZone(zone, climate) };
}

/** `seekProgramme` in one go. */
export function bestProgramme(zone: DripZone, climate: readonly ClimateDay[]): ZoneProposal {
  const seek = seekProgramme(zone, climate);
  for (;;) {
    const step = seek.next();
    if (step.done) return step.value;
  }
}
