import { drainsSlowly, type GroundFacts, type PercolationClass, type SoilClass } from '../ground';
import { allowanceRules, type Practice } from '../practice';
import type { Reasoned } from '../reason';
import { because, type PitReason } from './reasons';
import type { Stock } from '../stock';

export interface FlareInput {
  readonly ground: GroundFacts;
  readonly stock: Stock;
  readonly practice: Practice;
  /** Soil put back under the ball, by the practice or because the hole was dug too deep. */
  readonly fillUnderBallMm: number;
  readonly dugByPractice: boolean;
  readonly fillFirmed?: boolean | undefined;
  /** Surplus that stays on the ball at planting. */
  readonly surplusLeftMm: number;
  /** Roots of the buried stem that stay for now: the tree stands higher, so that they can be reached. */
  readonly stemRootsKept: { readonly count: number; readonly thickestMm: number } | null;
}

/**
 * Height of the flare above grade at the uphill edge: the practice's base, a share of the ball, an allowance for soil
 * and drainage, for what still settles under the ball, for surplus that comes off later, and enough for a graft.
 */
export function flareHeight(
  input: FlareInput,
  {
    soil,
    percolation,
    rootsHeightMm,
  }: { soil: SoilClass; percolation: PercolationClass | undefined; rootsHeightMm: number },
): Reasoned<PitReason> {
  const { practice, ground } = input;
  const rule = practice.flareAboveGrade;
  const reasons: PitReason[] = [because('flare_base', { baseMm: rule.baseMm, practice: practice.name })];
  // Rock under a ball turns roots up as clay does: the larger share there too.
  const tight = drainsSlowly(percolation) || ground.stony || rule.heavySoils.includes(soil);
  const ballShare = tight ? Math.max(rule.ballShare, rule.ballShareHeavy) : rule.ballShare;
  const ballExtraMm = ballShare * rootsHeightMm;
  if (ballShare > 0) {
    const facts = { sharePct: ballShare * 100, ballHeightMm: rootsHeightMm, extraMm: ballExtraMm };
    reasons.push(because('flare_ball_share', facts));
  }
  const allowances: { extraMm: number; reason: PitReason }[] = [];
  const allow = (extraMm: number, reason: PitReason) => allowances.push({ extraMm, reason });
  if (rule.heavySoils.includes(soil)) {
    allow(rule.heavySoilExtraMm, because('flare_heavy_soil', { extraMm: rule.heavySoilExtraMm, soil }));
  }
  if (ground.stony) allow(rule.stonyExtraMm, because('flare_stony', { extraMm: rule.stonyExtraMm }));
  if (drainsSlowly(percolation)) {
    allow(rule.slowSoilExtraMm, because('flare_slow', { extraMm: rule.slowSoilExtraMm, percolation }));
  }
  if (percolation === undefined) reasons.push(because('flare_percolation_unknown', {}));
  reasons.push(...allowances.map((allowance) => allowance.reason));
  const extras = allowances.map((allowance) => allowance.extraMm).filter((extraMm) => extraMm > 0);
  const sum = extras.reduce((total, extraMm) => total + extraMm, 0);
  const adds = allowanceRules[rule.allowances].sum;
  const extraMm = adds ? sum : Math.max(0, ...extras);
  if (!adds && extras.length > 1) {
    reasons.push(because('flare_larger_allowance_rules', { extraMm }));
  }
  const { fillUnderBallMm, surplusLeftMm } = input;
  if (input.dugByPractice && fillUnderBallMm > 0) reasons.push(because('base_put_back', { fillMm: fillUnderBallMm }));
  const firmed = input.fillFirmed ?? true;
  const share = firmed ? rule.settlementFirmed : rule.settlementLoose;
  const settlementMm = fillUnderBallMm * share;
  if (settlementMm > 0) {
    reasons.push(because('flare_settlement', { fillUnderBallMm, sharePct: share * 100, settlementMm, firmed }));
  }
  const kept = input.stemRootsKept;
  if (kept) {
    const months = practice.roots.clearLaterMonths;
    reasons.push(because('flare_for_stem_roots', { ...kept, extraMm: rule.laterExtraMm, months }));
  }
  const laterMm = surplusLeftMm > 0 || kept ? rule.laterExtraMm : 0;
  if (surplusLeftMm > 0) {
    const months = practice.roots.clearLaterMonths;
    reasons.push(because('flare_for_later', { leftMm: surplusLeftMm, extraMm: laterMm, months }));
  }
  const heightMm = rule.baseMm + ballExtraMm + extraMm + settlementMm + laterMm;
  const graftMm = input.stock.graftHeightMm;
  const graftLiftMm = graftMm === undefined ? 0 : Math.max(0, rule.graftLeastMm - (graftMm + heightMm));
  if (graftMm !== undefined && graftLiftMm > 0) {
    reasons.push(because('flare_for_graft', { graftMm, leastMm: rule.graftLeastMm, extraMm: graftLiftMm }));
  }
  return { value: heightMm + graftLiftMm, because: reasons };
}
