import { addDaysTo } from '../src/calendar';
import { middlingCrown } from '../src/match';
import {
  calibrate,
  chooseDevice,
  defaultWateringRules,
  deviceCatalogue,
  hosePositions,
  rootBlock,
  tryZone,
  waterClimate,
  wateringLeave,
  type ClimateDay,
  type DeviceSite,
  type DripZone,
  type WaterReason,
  type WaterSubject,
} from '../src/water';
import type { Stock } from '../src/stock';

export const zoneStock: Stock = {
  kind: 'container',
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 0,
};
export const plantedOn = '2026-05-01';

export const zoneTree = (percolation: WaterSubject['percolation'] = 'good'): WaterSubject => ({
  block: rootBlock(zoneStock),
  kind: 'container',
  soil: percolation === 'good' ? 'loam' : 'clay',
  percolation,
  plantedOn,
  heightAtPlantingM: 3,
  crown: middlingCrown,
  use: 0.5,
  surface: 0.12,
  came: { share: 0.9, errorShare: 0.25 },
});

/** A summer of so many days without rain, at 17 to 30 °C. */
export function drySummer(days = 100): readonly ClimateDay[] {
  const recorded = Array.from({ length: days }, (_, i) => ({
    day: addDaysTo(plantedOn, i),
    rainMm: 0,
    tMinC: 17,
    tMaxC: 30,
    humidityMinPct: null,
    humidityMaxPct: null,
    windMs: null,
    radiationMj: null,
  }));
  const today = addDaysTo(plantedOn, days);
  const station = { latDeg: 37, elevationM: 20 };
  return waterClimate({ station, recorded, forecast: [] }, { windows: [], today }).past;
}

export const levelSite: DeviceSite = {
  doseL: 40,
  caliperMm: 50,
  clearStemMm: 1200,
  slopePct: 0,
  compacted: false,
  slowSoil: false,
  takesLPerH: 40,
};

export const mixedZone = (change: Partial<DripZone> = {}): DripZone => ({
  emitterLPerH: 4,
  plants: [
    { kind: 'tree', name: 'Lime', emitters: 6, areaM2: 0, subject: zoneTree() },
    { kind: 'shrub', name: 'Hedge', emitters: 20, areaM2: 10 },
    { kind: 'turf', name: 'Lawn', emitters: 60, areaM2: 30 },
  ],
  soil: 'loam',
  percolation: 'good',
  programme: { minutes: 30, everyDays: 2, timesADay: 1 },
  turf: null,
  ...change,
});

/** All that devices and zones give as why. */
export function deviceReasons(): WaterReason[] {
  const steep = { ...levelSite, slopePct: 30, clearStemMm: 300, compacted: true, slowSoil: true, takesLPerH: 1 };
  const flow = { lPerMin: 10, doseL: 40, ballDiameterMm: 600, uphillDeg: 90 };
  const drowns = mixedZone({
    plants: [{ kind: 'tree', name: 'Lime', emitters: 6, areaM2: 0, subject: zoneTree('stands') }],
    percolation: 'stands',
    programme: { minutes: 120, everyDays: 1, timesADay: 1 },
  });
  const thirsts = mixedZone({ programme: { minutes: 1, everyDays: 14, timesADay: 1 } });
  const zones = [drowns, thirsts, mixedZone({ programme: { minutes: 90, everyDays: 1, timesADay: 1 } })];
  const strict = {
    ...defaultWateringRules,
    days: { ...defaultWateringRules.days, tue: false },
    fromHour: 18,
    untilHour: 8,
  };
  return [
    ...wateringLeave(strict, '2026-06-02', 'truck').because,
    ...calibrate([{ litres: 1, minutes: 10 }]).because,
    ...calibrate([
      { litres: 1, minutes: 10 },
      { litres: 3, minutes: 10 },
    ]).because,
    ...[levelSite, steep].flatMap((site) =>
      chooseDevice(site, deviceCatalogue, { 'stem-bag': 4 }).flatMap(({ because }) => because),
    ),
    ...hosePositions({ ...flow, slopePct: 0 }).because,
    ...hosePositions({ ...flow, lPerMin: 1, slopePct: 20 }).because,
    ...zones.flatMap((zone) => tryZone(zone, drySummer()).flatMap(({ because }) => because)),
  ];
}
