import type { NumberRange } from './errors';

/**
 * The widest values Sombra accepts as a measurement at all, used by the core, by every form and by every
 * file that is read. They catch slips (a tree of 40 km, a caliper typed in inches), not bad practice:
 * judging a value is the work of the practice. Sources: the largest stock machine-moved as a landscape
 * tree (ball 3 m, caliper 400 mm), the tallest street trees on record (under 100 m).
 */
export const limits = {
  ballDiameterMm: { min: 100, max: 3000, unit: 'mm' },
  ballHeightMm: { min: 80, max: 2000, unit: 'mm' },
  topRootsDepthMm: { min: 0, max: 600, unit: 'mm' },
  firstBranchM: { min: 0, max: 10, unit: 'm' },
  graftHeightMm: { min: 0, max: 3000, unit: 'mm' },
  putBackMm: { min: 0, max: 1000, unit: 'mm' },
  /** A programme lies where the sun rises on every day: beyond, what trees drink is not worked out. */
  latDeg: { min: -66, max: 66, unit: '°' },
  lngDeg: { min: -180, max: 180, unit: '°' },
  /** The Dead Sea's shore to the highest towns. */
  elevationM: { min: -430, max: 6000, unit: 'm' },
  carryM: { min: 0, max: 2000, unit: 'm' },
  waySlopePct: { min: 0, max: 100, unit: '%' },
  rootSpreadMm: { min: 100, max: 2000, unit: 'mm' },
  rootDepthMm: { min: 80, max: 1000, unit: 'mm' },
  caliperMm: { min: 8, max: 400, unit: 'mm' },
  treeHeightM: { min: 0.2, max: 25, unit: 'm' },
  slopePct: { min: 0, max: 60, unit: '%' },
  bearingDeg: { min: 0, max: 360, unit: '°' },
  stripWidthMm: { min: 300, max: 50000, unit: 'mm' },
  wireHeightM: { min: 2, max: 60, unit: 'm' },
  probeDepthMm: { min: 0, max: 1000, unit: 'mm' },
  percolationMinute: { min: 0, max: 2880, unit: 'min' },
  waterLevelMm: { min: 0, max: 2000, unit: 'mm' },
  flareAboveGradeMm: { min: -300, max: 400, unit: 'mm' },
  holeDepthMm: { min: 0, max: 3000, unit: 'mm' },
  holeWidthMm: { min: 150, max: 9000, unit: 'mm' },
  firstWaterL: { min: 0, max: 2000, unit: 'L' },
  wateringL: { min: 1, max: 2000, unit: 'L' },
  useTimes: { min: 0.4, max: 2.5, unit: '×' },
  ringMm: { min: 5, max: 500, unit: 'mm' },
  ringMinutes: { min: 1, max: 2880, unit: 'min' },
  mulchDepthMm: { min: 0, max: 600, unit: 'mm' },
  flareDepthMm: { min: -200, max: 600, unit: 'mm' },
  rootDiameterMm: { min: 1, max: 400, unit: 'mm' },
  wateredEveryDays: { min: 0.25, max: 60, unit: 'days' },
  rootCount: { min: 1, max: 200, unit: 'roots' },
  horizonMm: { min: 10, max: 3000, unit: 'mm' },
  percolationMmPerH: { min: 0, max: 2000, unit: 'mm/h' },
  clearanceM: { min: 0.1, max: 100, unit: 'm' },
  sunHours: { min: 0, max: 24, unit: 'h' },
  openSoilM2: { min: 0, max: 10000, unit: 'm²' },
  soilDepthMm: { min: 50, max: 3000, unit: 'mm' },
  underPavingM3: { min: 0, max: 2000, unit: 'm³' },
  probeStopsMm: { min: 0, max: 1500, unit: 'mm' },
  rockAtMm: { min: 0, max: 5000, unit: 'mm' },
  soilPh: { min: 2, max: 11, unit: 'pH' },
  saltDsM: { min: 0, max: 60, unit: 'dS/m' },
  sodiumSar: { min: 0, max: 100, unit: 'SAR' },
  pavementWidthM: { min: 0.3, max: 30, unit: 'm' },
  testHoleMm: { min: 100, max: 2000, unit: 'mm' },
  lng: { min: -180, max: 180, unit: '°' },
  lat: { min: -85, max: 85, unit: '°' },
} as const satisfies Record<string, NumberRange>;

export type Measure = keyof typeof limits;
