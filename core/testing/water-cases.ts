import { addDaysTo, type IsoDate } from '../src/calendar';
import { unknownAssessment, unknownGround } from '../src/ground';
import { shippedSpecies, type Species } from '../src/match';
import { fieldDefault } from '../src/practice';
import {
  spotLife,
  treeWater,
  type FieldRecord,
  type RecordFacts,
  type RecordKind,
  type TreeWater,
} from '../src/record';
import { mildWinterWindows } from '../src/season';
import type { WeatherDay } from '../src/weather';

let made = 0;
export const rec = <K extends RecordKind>(kind: K, facts: RecordFacts[K]): FieldRecord => {
  made += 1;
  const recordedAt = new Date(1.8e12 + made * 60_000).toISOString();
  return { id: `r${made}`, kind, facts, supersedes: null, recordedAt } as FieldRecord;
};
export const [plantedOn, today]: [IsoDate, IsoDate] = ['2026-05-01', '2026-06-30'];
const [base] = shippedSpecies;
if (!base) throw new Error('the library is empty');
export const thirsty: Species = { ...base, waterUse: 'high' };
export const sparing: Species = { ...base, waterUse: 'low' };
export const station = { latDeg: 36.9, elevationM: 20 };
const dry = (day: IsoDate, change: Partial<WeatherDay> = {}): WeatherDay => ({
  day,
  rainMm: 0,
  tMinC: 17,
  tMaxC: 30,
  humidityMinPct: null,
  humidityMaxPct: null,
  windMs: null,
  radiationMj: null,
  ...change,
});
export const span = (from: IsoDate, days: number, change: Partial<WeatherDay> = {}): WeatherDay[] =>
  Array.from({ length: days }, (_, i) => dry(addDaysTo(from, i), change));

export const ground = (change: object = {}) =>
  rec('ground', { ...unknownGround, soil: 'loam', slopePct: 0, ...change });
export const stock = (moist: boolean | null = true) =>
  rec('stock', {
    kind: 'container',
    caliperMm: 50,
    heightM: 3,
    ballDiameterMm: 450,
    ballHeightMm: 400,
    topRootsDepthMm: 60,
    arrival: { covered: null, moist, wateredEveryDays: null },
  });
export const planting = (firstWaterL = 50) =>
  rec('planting', {
    plantedOn,
    flareAboveGradeMm: [40],
    holeWidthMm: 1125,
    firstWaterL,
    practiceId: 'field-default',
    practiceVersion: 1,
  });
export const look = (inspectedOn: IsoDate, probe: 'dry' | 'moist' | 'saturated') =>
  rec('inspection', {
    inspectedOn,
    flareDepthMm: null,
    mulchDepthMm: null,
    mulchContact: null,
    stake: null,
    probe,
    circlingRoots: null,
  });
export const watered = (wateredOn: IsoDate, litres: number) => rec('watering', { wateredOn, litres });
export const loam = [ground(), stock(), planting()];

/** A container tree of May in loam, followed through two hot months without rain. */
export function follow(
  records: readonly FieldRecord[],
  asked: { species?: Species; recorded?: WeatherDay[]; forecast?: WeatherDay[]; windy?: boolean } = {},
): TreeWater {
  const wind = asked.windy ? [rec('assessment', { ...unknownAssessment(plantedOn), wind: 'exposed' })] : [];
  const kept = [...records, ...wind];
  const basis = spotLife(kept, { practice: fieldDefault, windows: mildWinterWindows });
  const weather = { station, recorded: asked.recorded ?? span(plantedOn, 61), forecast: asked.forecast ?? [] };
  const found = treeWater({ records: kept, basis, species: asked.species ?? thirsty, weather, today });
  if (!found) throw new Error('not followed');
  return found;
}

/** Ground that takes no water. */
export const standing = ground({
  percolation: [
    { minute: 0, levelMm: 300 },
    { minute: 120, levelMm: 299 },
    { minute: 240, levelMm: 298 },
  ],
});

/** Each reason the water of a tree gives, as it comes about. */
export const treeWaterReasons = () => {
  const rain = { rainMm: 12, tMaxC: 20 };
  const at = addDaysTo(plantedOn, 1);
  const often = Array.from({ length: 60 }, (_, i) => watered(addDaysTo(plantedOn, i + 1), 40));
  const year = span(addDaysTo(today, -400), 401, { tMaxC: 16, tMinC: 9 });
  return [
    follow(loam),
    follow([...loam, watered(today, 200)], { forecast: span('2026-07-01', 10) }),
    follow([...loam, watered(today, 200)], { species: sparing, recorded: year, forecast: span('2026-07-01', 2, rain) }),
    follow(loam, { recorded: span(plantedOn, 61, rain), forecast: span('2026-07-01', 10, rain) }),
    follow([...loam, watered(today, 200)]),
    follow([standing, stock(), planting(), ...often]),
    follow([...loam, look(at, 'dry')]),
    follow([...loam, look(today, 'saturated')]),
  ].flatMap(({ because }) => because);
};
