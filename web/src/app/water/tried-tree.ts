import type { SpotDetail, WaterBasis } from '@sombra/contract';
import {
  addDaysTo,
  daysFrom,
  typicalDays,
  typicalRingM2,
  typicalStock,
  typicalSubject,
  unknownGround,
  waterClimate,
  waterInputs,
  type ClimateDay,
  type IsoDate,
  type PercolationClass,
  type PitInput,
  type PlantingWindow,
  type Practice,
  type SoilClass,
  type Species,
  type Stock,
  type StockKind,
  type TypicalYear,
  type WaterSubject,
} from '@sombra/core';
import { lifeOf } from '../spot/spot-context';

/** Rules are tried over a year. Days */
const mostDays = 365;

/** A tree to try rules on. */
export interface TriedTree {
  /** `null` for one that was never planted: it begins with the weather. */
  readonly plantedOn: IsoDate | null;
  readonly subjectAt: (day: IsoDate) => WaterSubject;
  readonly stock: Stock;
  /** What it is looked after by. */
  readonly care: Practice;
  readonly ringM2: number;
  readonly pit: PitInput;
}

/** One of ordinary proportions, in the open. */
export function usualTree(
  asked: {
    readonly kind: StockKind;
    readonly caliperMm: number;
    readonly soil: SoilClass;
    readonly percolation: PercolationClass;
  },
  practice: Practice,
): TriedTree {
  const stock = typicalStock(asked.kind, asked.caliperMm);
  const ground = { soil: asked.soil, percolation: asked.percolation };
  return {
    plantedOn: null,
    subjectAt: (plantedOn) => typicalSubject(stock, { ...ground, plantedOn, practice }),
    stock,
    care: practice,
    ringM2: typicalRingM2(stock, ground, practice),
    pit: { ground: { ...unknownGround, soil: ground.soil, slopePct: 0 }, stock, practice },
  };
}

/** A tree as it stands, under the practice that goes for it; `null` where it is not followed. */
export function realTree(detail: SpotDetail, library: readonly Species[]): TriedTree | null {
  const life = lifeOf(detail);
  const species = library.find(({ botanical }) => botanical === detail.tree?.species) ?? null;
  const inputs = waterInputs(detail.records, life, species);
  if (!inputs || !life.stock) return null;
  const { subject } = inputs;
  const { stock, care, plan, ground, dormant, autumn, assessment } = life;
  return {
    plantedOn: subject.plantedOn,
    subjectAt: () => subject,
    stock,
    care,
    ringM2: plan?.kind === 'plan' ? plan.ringM2 : typicalRingM2(stock, subject, care),
    pit: { ground, stock, practice: care, dormant, autumn, irrigation: assessment?.irrigation },
  };
}

const yearBefore = (today: IsoDate): IsoDate => addDaysTo(today, 1 - mostDays);

interface Of {
  readonly windows: readonly PlantingWindow[];
}

/** The weather that was since a planting, for a year at most. */
export function pastClimate(
  basis: WaterBasis,
  { windows, today, plantedOn }: Of & { readonly today: IsoDate; readonly plantedOn: IsoDate | null },
): readonly ClimateDay[] {
  const yearAgo = yearBefore(today);
  const from = plantedOn !== null && plantedOn > yearAgo ? plantedOn : yearAgo;
  return daysFrom(waterClimate(basis, { windows, today }).past, from, mostDays);
}

/** A year as it usually is, from a day on. */
export function typicalClimate(
  typical: TypicalYear,
  { basis, windows, from }: Of & { readonly basis: WaterBasis; readonly from: IsoDate },
): readonly ClimateDay[] {
  const recorded = typicalDays(typical, from, mostDays);
  const today = recorded.at(-1)?.day ?? from;
  return waterClimate({ station: basis.station, recorded, forecast: [] }, { windows, today }).past;
}
