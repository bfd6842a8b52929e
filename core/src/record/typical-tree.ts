import { unknownGround } from '../ground';
import { middlingCrown } from '../match';
import { pitPlan } from '../pit';
import type { Practice } from '../practice';
import type { Stock, StockKind } from '../stock';
import { rootBlock, type WaterSubject } from '../water';
import { cameAs, surfaceOf, useOf } from './tree-water';

/** Stock of ordinary proportions: a ball about ten calipers wide, roots somewhat less deep. An estimate. */
export function typicalStock(kind: StockKind, caliperMm: number): Stock {
  const measures = { caliperMm, heightM: 1 + caliperMm / 25 };
  return kind === 'bare_root'
    ? { ...measures, kind, rootSpreadMm: caliperMm * 12, rootDepthMm: 250 }
    : { ...measures, kind, ballDiameterMm: caliperMm * 10, ballHeightMm: caliperMm * 7, topRootsDepthMm: 30 };
}

/** A tree of no record, as it is thought of when rules are compared: middling in crown and thirst, in the open. */
export const typicalSubject = (
  stock: Stock,
  { plantedOn, practice, ...ground }: Pick<WaterSubject, 'soil' | 'percolation' | 'plantedOn'> & { practice: Practice },
): WaterSubject => ({
  ...ground,
  block: rootBlock(stock),
  kind: stock.kind,
  plantedOn,
  heightAtPlantingM: stock.heightM,
  crown: middlingCrown,
  use: useOf.medium,
  surface: surfaceOf(practice),
  came: { share: cameAs.moist, errorShare: cameAs.errorShare },
});

/** The ring kept free of grass around it, as the practice plans one on level open ground. m² */
export function typicalRingM2(stock: Stock, { soil }: Pick<WaterSubject, 'soil'>, practice: Practice): number {
  const plan = pitPlan({ ground: { ...unknownGround, soil, slopePct: 0 }, stock, practice });
  return plan.kind === 'plan' ? plan.ringM2 : (Math.PI / 4) * (practice.mulch.leastRingDiameterMm / 1000) ** 2;
}
