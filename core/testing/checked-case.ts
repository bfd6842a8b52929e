import { unknownGround, type GroundFacts } from '../src/ground';
import type { BallStock, BareRootStock } from '../src/stock';

/** The trees and the ground whose numbers were worked out independently; tests start from them. */
export const container = {
  kind: 'container',
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 60,
} as const satisfies BallStock;

export const bareRoot = {
  kind: 'bare_root',
  caliperMm: 25,
  heightM: 2,
  rootSpreadMm: 500,
  rootDepthMm: 300,
} as const satisfies BareRootStock;

/** Readings of a test hole that falls so many millimetres an hour. */
export const fall = (mm: number) => [0, 1, 2, 3].map((i) => ({ minute: i * 60, levelMm: 900 - i * mm }));

/** Level, open, drained loam under no wire. */
export const openLoam: GroundFacts = {
  ...unknownGround,
  soil: 'loam',
  slopePct: 0,
  stripWidthMm: 'open',
  wireHeightM: 'none',
  percolation: fall(60),
};
