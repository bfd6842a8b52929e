import type { Measure } from '../limits';
import type { Quantity } from '../units';
import type { TermCode } from './glossary';

/** A number that people measure: what it is called, what it is said in, and the limits it has. */
export interface MeasuredFact {
  readonly name: string;
  readonly measure: Measure;
  readonly quantity: Quantity;
}

const length = <M extends Measure>(name: string, measure: M) => ({ name, measure, quantity: 'lengthMm' as const });
const as = <M extends Measure, Q extends Quantity>(quantity: Q, name: string, measure: M) => ({
  name,
  measure,
  quantity,
});

/** The measured facts of records, and what forms ask besides; fields, histories and files all speak by this table. */
export const measuredFacts = {
  slopePct: as('slopePct', 'Slope', 'slopePct'),
  fallsTowardsDeg: as('bearingDeg', 'Falls towards', 'bearingDeg'),
  stripWidthMm: length('Strip width', 'stripWidthMm'),
  wireHeightM: as('heightM', 'Lowest wire above ground', 'wireHeightM'),
  distanceM: as('clearanceM', 'Distance', 'clearanceM'),
  sunHours: as('hours', 'Sun on midsummer day', 'sunHours'),
  winterWindDeg: as('bearingDeg', 'Winter wind from', 'bearingDeg'),
  summerWindDeg: as('bearingDeg', 'Summer wind from', 'bearingDeg'),
  openSoilM2: as('areaM2', 'Open soil', 'openSoilM2'),
  soilDepthMm: length('Soil depth', 'soilDepthMm'),
  underPavingM3: as('volumeM3', 'Rooting space under paving', 'underPavingM3'),
  probeStopsMm: length('Hand probe stops at', 'probeStopsMm'),
  rockAtMm: length('Rock at', 'rockAtMm'),
  soilPh: as('ph', 'Soil pH', 'soilPh'),
  saltDsM: as('saltDsM', 'Salt', 'saltDsM'),
  sodiumSar: as('sodiumSar', 'Sodium', 'sodiumSar'),
  pavementM: as('clearanceM', 'To the pavement', 'clearanceM'),
  pavementWidthM: as('clearanceM', 'Pavement width', 'pavementWidthM'),
  pavementDeg: as('bearingDeg', 'Pavement lies towards', 'bearingDeg'),
  holeDepthMm: length('Test hole', 'testHoleMm'),
  caliperMm: length('Caliper', 'caliperMm'),
  heightM: as('heightM', 'Height', 'treeHeightM'),
  firstBranchM: as('heightM', 'First branch', 'firstBranchM'),
  graftHeightMm: length('Graft above the flare', 'graftHeightMm'),
  ballDiameterMm: length('Ball diameter', 'ballDiameterMm'),
  ballHeightMm: length('Ball height as received', 'ballHeightMm'),
  topRootsDepthMm: length('Topmost roots below the surface', 'topRootsDepthMm'),
  surplusLeftMm: length('Surplus that stays on', 'topRootsDepthMm'),
  rootSpreadMm: length('Root spread', 'rootSpreadMm'),
  rootDepthMm: length('Flare to lowest root', 'rootDepthMm'),
  flareAboveGradeMm: length('Flare above grade', 'flareAboveGradeMm'),
  holeWidthMm: length('Hole width', 'holeWidthMm'),
  dugDepthMm: length('Hole depth before anything went back', 'holeDepthMm'),
  putBackMm: length('Put back and firmed under the ball', 'putBackMm'),
  flareBeforeSoakMm: length('Flare above grade before the soak', 'flareAboveGradeMm'),
  toppedUpMm: length('Sunken fill topped up by', 'putBackMm'),
  metRootMm: length('Thickest root of a neighbour in the pit', 'rootDiameterMm'),
  firstWaterL: as('volumeL', 'First water', 'firstWaterL'),
  litres: as('volumeL', 'Water given', 'wateringL'),
  ringMm: length('Water in the ring', 'ringMm'),
  ringMinutes: as('minute', 'The ring emptied in', 'ringMinutes'),
  flareDepthMm: length('Flare below the surface', 'flareDepthMm'),
  flareRoundMm: length('Flare round the trunk', 'flareDepthMm'),
  mulchDepthMm: length('Mulch depth', 'mulchDepthMm'),
  diebackPct: as('sharePct', 'Of the crown, dead', 'sharePct'),
  barkPct: as('sharePct', 'Unsound bark, of the girth', 'sharePct'),
  circlingPct: as('sharePct', 'Circling roots, of the ball’s face', 'sharePct'),
  shootMm: length('Shoots this year', 'shootMm'),
  shootBeforeMm: length('Shoots last year', 'shootMm'),
  depthMm: length('Depth of the root', 'rootDepthAtTrunkMm'),
  bearingDeg: as('bearingDeg', 'Stands towards', 'bearingDeg'),
  fromDeg: as('bearingDeg', 'Presses from', 'bearingDeg'),
  toDeg: as('bearingDeg', 'Presses to', 'bearingDeg'),
  diameterMm: length('Thickness', 'rootDiameterMm'),
  bestFaceDeg: as('bearingDeg', 'Best face looks towards', 'bearingDeg'),
  stemRootCount: as('roots', 'Roots from the buried stem', 'rootCount'),
  stemRootMm: length('the thickest of them', 'rootDiameterMm'),
  waterDsM: as('saltDsM', 'Salt of the water it is given', 'saltDsM'),
  waterSar: as('sodiumSar', 'Sodium of that water', 'sodiumSar'),
  neighbourM: as('clearanceM', 'Its trunk stands away', 'clearanceM'),
  neighbourRootMm: length('Its thickest root here', 'rootDiameterMm'),
  wateredEveryDays: as('days', 'Watered by the nursery every', 'wateredEveryDays'),
  toMm: length('Down to', 'horizonMm'),
  rateMmPerH: as('rateMmPerH', 'Drains, by a hole in it', 'percolationMmPerH'),
  tankL: as('volumeL', 'Tank', 'tankL'),
  pourLPerMin: as('flowLPerMin', 'Pours', 'pourLPerMin'),
  kmPerH: as('speedKmPerH', 'Speed', 'truckKmPerH'),
  flowLPerMin: as('flowLPerMin', 'Flow', 'fillLPerMin'),
  connectMinutes: as('minute', 'Connecting', 'connectMinutes'),
  emitterLPerH: as('flowLPerH', 'An emitter gives', 'emitterLPerH'),
  volumeL: as('volumeL', 'Holds', 'deviceL'),
  inletMm: length('Opening', 'inletMm'),
  fillMinutes: as('minute', 'Minutes to fill', 'deviceFillMinutes'),
  soakMinutes: as('minute', 'Soaks first', 'deviceSoakMinutes'),
  labelledLPerH: as('flowLPerH', 'Runs, by its label', 'labelledLPerH'),
  perCaliperMm: length('One for each so much caliper', 'perCaliperMm'),
  clearStemMm: length('Trunk free of branches', 'clearStemMm'),
  mostSlopePct: as('slopePct', 'Slope at most', 'slopePct'),
  elevationM: as('distanceM', 'Height above the sea', 'elevationM'),
} as const satisfies Readonly<Record<string, MeasuredFact>>;

export type MeasuredName = keyof typeof measuredFacts;

export const isMeasured = (name: string): name is MeasuredName => name in measuredFacts;

/** Measured facts whose names hold a word of the work. */
export const termOfFact: Partial<Readonly<Record<MeasuredName, TermCode>>> = {
  caliperMm: 'caliper',
  flareAboveGradeMm: 'proud',
  flareBeforeSoakMm: 'proud',
  flareDepthMm: 'flare',
  topRootsDepthMm: 'flare',
  graftHeightMm: 'flare',
  ballDiameterMm: 'ball',
  ballHeightMm: 'ball',
  mulchDepthMm: 'mulch_ring',
  holeDepthMm: 'percolation',
  barkPct: 'collar',
};
