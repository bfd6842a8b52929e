import { requireFinite, requireWithin } from '../errors';
import { limits } from '../limits';

/** A ball that stood on soil put back under it: how much of that soil there was, and how far the ball sank since. */
export interface MeasuredDrop {
  readonly fillMm: number;
  readonly dropMm: number;
}

export interface Settlement {
  /** Share by which such fill settles, 0–1: the practice's value, corrected by what was measured. */
  readonly share: number;
  readonly measuredShare: number;
  readonly standardError: number;
  readonly drops: number;
}

/** The practice's value counts as this many measured drops: a few odd ones do not overturn it. */
const priorDrops = 5;

/**
 * Settlement of fill under a ball as trained by measured drops: their ratio (sum of drops over sum of fill, so that
 * thick fills, measured relatively better, count more), shrunk towards the practice's value. A ball that rose is a
 * slip of the rule and counts as no drop. `null` while nothing was measured.
 * Source: ratio estimator and its standard error, Cochran, Sampling Techniques (1977), ch. 6.
 * @throws InvalidInputError for a fill outside `limits.putBackMm`, or of 0, and for a drop or a share that is no number
 */
export function trainedSettlement(drops: readonly MeasuredDrop[], practiceShare: number): Settlement | null {
  requireWithin('practiceShare', practiceShare, { min: 0, max: 1, unit: 'share' });
  if (drops.length === 0) return null;
  const measured = drops.map(({ fillMm, dropMm }) => ({
    fillMm: requireWithin('fillMm', fillMm, { ...limits.putBackMm, min: 1 }),
    dropMm: Math.min(fillMm, Math.max(0, requireFinite('dropMm', dropMm))),
  }));
  const n = measured.length;
  const fillMm = measured.reduce((sum, one) => sum + one.fillMm, 0);
  const measuredShare = measured.reduce((sum, one) => sum + one.dropMm, 0) / fillMm;
  const squares = measured.reduce((sum, one) => sum + (one.dropMm - measuredShare * one.fillMm) ** 2, 0);
  const standardError = n > 1 ? Math.sqrt((n * squares) / (n - 1)) / fillMm : measuredShare;
  const share = (n * measuredShare + priorDrops * practiceShare) / (n + priorDrops);
  return { share, measuredShare, standardError, drops: n };
}
