import type { GroundFacts, PercolationReading, Stock, StockKind } from '@sombra/core';
import type { Dice } from './seed';
import type { Place, Trouble, Zone } from './streets';

/** What is true of the ground at one spot. */
export interface Site extends Zone, Pick<Place, 'stripWidthMm' | 'wireHeightM'> {
  readonly slopePct: number;
  readonly fallsTowardsDeg: number;
  readonly trouble?: Trouble | undefined;
}

const toStep = (value: number, step: number): number => Math.round(value / step) * step;

/** A test hole read every half hour: a faster first fall while the soil still drinks, then the street's rate. */
export function percolationTest(rateMmPerH: number, from: Dice): PercolationReading[] {
  // A hole that drains fast is read more often, so that water is left for the later readings.
  const everyMin = rateMmPerH > 100 ? 10 : rateMmPerH > 45 ? 20 : 30;
  const readings: PercolationReading[] = [];
  let level = 300;
  for (let i = 0; i <= 5; i++) {
    readings.push({ minute: i * everyMin, levelMm: Math.max(0, Math.round(level)) });
    const soaking = i === 0 ? 1.5 : 1;
    level -= Math.max(0, rateMmPerH * soaking * (everyMin / 60) * from.between(0.96, 1.04));
  }
  return readings;
}

export function measuredGround(site: Site, from: Dice): GroundFacts {
  const slopePct = site.slopePct === 0 ? 0 : Math.max(0, Math.round(from.around(site.slopePct, 0.6)));
  return {
    soil: site.soil,
    stony: site.stony,
    compacted: site.compacted,
    percolation: percolationTest(site.percolationMmPerH * from.between(0.85, 1.15), from),
    slopePct,
    fallsTowardsDeg: slopePct === 0 ? null : Math.round(from.around(site.fallsTowardsDeg, 4)),
    stripWidthMm: site.stripWidthMm === 'open' ? 'open' : toStep(from.around(site.stripWidthMm, 40), 50),
    wireHeightM: site.wireHeightM === 'none' ? 'none' : Math.round(from.around(site.wireHeightM, 0.2) * 10) / 10,
  };
}

/** Stock of ordinary proportions: a ball about ten to twelve calipers wide, a little less high. */
export function measuredStock(kind: StockKind, from: Dice, surplusMm: number): Stock {
  if (kind === 'bare_root') {
    return {
      kind,
      caliperMm: from.whole(18, 32),
      heightM: Math.round(from.between(1.8, 2.8) * 10) / 10,
      rootSpreadMm: toStep(from.between(420, 620), 10),
      rootDepthMm: toStep(from.between(240, 330), 10),
    };
  }
  const caliperMm = kind === 'container' ? from.whole(32, 52) : from.whole(48, 72);
  const heightM = Math.round((1.6 + caliperMm / 22) * 10) / 10;
  const ballDiameterMm = toStep(caliperMm * from.between(9.6, 11.2), 10);
  return {
    kind,
    caliperMm,
    heightM,
    firstBranchM: Math.round(heightM * 4) / 10,
    ballDiameterMm,
    ballHeightMm: toStep(
      ballDiameterMm * (kind === 'container' ? from.between(0.82, 0.95) : from.between(0.68, 0.8)),
      10,
    ),
    topRootsDepthMm: toStep(Math.max(0, surplusMm), 5),
  };
}
