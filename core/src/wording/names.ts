import type { DecisionKind, RecordKind, Stage } from '../record';
import type { Level, PercolationQuestion } from '../reason';
import type { PercolationClass, SoilClass } from '../ground';
import type { MulchContact, ProbeClass, StakeState } from '../inspect';
import type { StockKind } from '../stock';

export const soilNames: Readonly<Record<SoilClass, string>> = {
  sand: 'sand',
  sandy_loam: 'sandy loam',
  loam: 'loam',
  clay_loam: 'clay loam',
  clay: 'clay',
};

export const percolationNames: Readonly<Record<PercolationClass, string>> = {
  stands: 'water stands',
  slow: 'slow',
  good: 'good',
  fast: 'fast',
};

export const stockNames: Readonly<Record<StockKind, string>> = {
  container: 'container',
  balled: 'balled',
  bare_root: 'bare-root',
};

export const mulchContactNames: Readonly<Record<MulchContact, string>> = {
  clear: 'clear of the trunk',
  touching: 'touching the trunk',
  heaped: 'heaped on the trunk',
};

export const stakeNames: Readonly<Record<StakeState, string>> = {
  none: 'no stake',
  in_place: 'in place, loose',
  tight: 'tie tight',
  biting: 'tie biting',
  broken: 'broken or leaning',
};

export const probeNames: Readonly<Record<ProbeClass, string>> = {
  dry: 'dry',
  slightly_dry: 'drying',
  moist: 'moist',
  wet: 'wet',
  saturated: 'waterlogged',
};

export const levelNames: Readonly<Record<Level, string>> = {
  good: 'Good',
  watch: 'Watch',
  act: 'Act',
  urgent: 'Urgent',
};

export const stageNames: Readonly<Record<Stage, string>> = {
  ground: 'Ground',
  match: 'Match',
  stock: 'Stock',
  pit: 'Pit',
  day: 'Day',
  water: 'Water',
  inspect: 'Inspect',
  results: 'Results',
};

export const decisionNames: Readonly<Record<DecisionKind, string>> = {
  measure_ground: 'Measure the ground',
  measure_stock: 'Measure the stock',
  resolve_pit: 'No pit plan',
  record_planting: 'Plant and record as built',
  do_remedy: 'Remedy',
  look: 'Inspect',
};

export const recordNames: Readonly<Record<RecordKind, string>> = {
  ground: 'Ground facts',
  stock: 'Stock measures',
  planting: 'Planted, as built',
  inspection: 'Inspection',
  remedy: 'Remedy done',
  move: 'Spot moved',
  retraction: 'Taken back',
};

export const questionNames: Readonly<Record<PercolationQuestion, string>> = {
  too_few_readings: 'A rate needs at least three readings',
  clock_backwards: 'A reading is not later than the one before it',
  level_rises: 'The level rises between two readings',
  refilled: 'The hole was refilled: start a new series from there',
  hole_empty_too_soon: 'The hole emptied before three readings: read more often',
};

/** Names of recorded facts, for tables and messages. */
export const factNames: Readonly<Record<string, string>> = {
  soil: 'Soil',
  stony: 'Stony',
  compacted: 'Compacted',
  percolation: 'Percolation readings',
  slopePct: 'Slope',
  fallsTowardsDeg: 'Falls towards',
  stripWidthMm: 'Strip width',
  wireHeightM: 'Wires',
  kind: 'Stock kind',
  caliperMm: 'Caliper',
  heightM: 'Height',
  ballDiameterMm: 'Ball diameter',
  ballHeightMm: 'Ball height',
  topRootsDepthMm: 'Topmost roots below the surface',
  rootSpreadMm: 'Root spread',
  rootDepthMm: 'Flare to lowest root',
  plantedOn: 'Planted on',
  flareAboveGradeMm: 'Flare above grade',
  holeWidthMm: 'Hole width',
  firstWaterL: 'First water',
  inspectedOn: 'Inspected on',
  flareDepthMm: 'Flare depth',
  mulchDepthMm: 'Mulch depth',
  mulchContact: 'Mulch at the trunk',
  stake: 'Stake and tie',
  probe: 'Probe at ball depth',
  circlingRoots: 'Circling roots',
  remedy: 'Remedy',
  doneOn: 'Done on',
  movedOn: 'Moved on',
  reason: 'Reason',
};
