import type { SpotDetail } from '@sombra/contract';
import {
  triedTree,
  typicalRingM2,
  typicalStock,
  typicalSubject,
  unknownGround,
  type IsoDate,
  type PercolationClass,
  type PitInput,
  type Practice,
  type SoilClass,
  type Species,
  type Stock,
  type StockKind,
  type WaterSubject,
} from '@sombra/core';
import { lifeOf } from '../spot/spot-context';

/** A tree to try rules on. */
export interface AskedTree {
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
): AskedTree {
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
export function realTree(detail: SpotDetail, library: readonly Species[]): AskedTree | null {
  const life = lifeOf(detail);
  const species = library.find(({ botanical }) => botanical === detail.tree?.species) ?? null;
  const tried = triedTree(detail.records, life, species);
  if (!tried) return null;
  const { subject, stock, care, ringM2 } = tried;
  const { ground, dormant, autumn, assessment } = life;
  const pit = { ground, stock, practice: care, dormant, autumn, irrigation: assessment?.irrigation };
  return { plantedOn: subject.plantedOn, subjectAt: () => subject, stock, care, ringM2, pit };
}
