import {
  defaultGroundRules as rules,
  defaultPercolationLimits as drainage,
  judgeSite,
  siteThings,
  unknownAssessment,
  unknownGround,
  type Assessment,
  type GroundFacts,
} from '../src/ground';
import { fall } from './checked-case';

/** A place where everything was measured and nothing is near: tests change one thing at a time. */
export const clearGround: GroundFacts = {
  ...unknownGround,
  soil: 'loam',
  slopePct: 2,
  stripWidthMm: 'open',
  wireHeightM: 'none',
  percolation: fall(40),
};
export const clearances = siteThings.map((thing) => ({ thing, distanceM: 30, by: 'tape' as const }));
export const clearAssessment: Assessment = {
  ...unknownAssessment('2026-11-20'),
  owner: 'park',
  clearances,
  privateLines: 'none',
  sunHours: 9,
  openSoilM2: 60,
  soilDepthMm: 800,
};

/** The verdict on that place by the shipped rules, with what a case changes. */
export const judgeClear = (change: { ground?: Partial<GroundFacts>; assessment?: Partial<Assessment> } = {}) =>
  judgeSite({
    ground: { ...clearGround, ...change.ground },
    assessment: { ...clearAssessment, ...change.assessment },
    rules,
    drainage,
  });
