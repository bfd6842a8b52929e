import { bermPlaces, pitSides, shoulders, type Practice } from '../practice';
import { because, type PitReason } from './reasons';
import { bermFromMm, bermSoilL, shoulderSoilL, stadiumArea, type PitShape } from './pit-geometry';

/**
 * Where the soil of one pit goes, in litres as it lies firm in the ground: dug + caved + bought = back + mound + bank +
 * berm + left.
 */
export interface SoilBalance {
  /** Lifted out, what is dug deeper and put back under the ball included. */
  readonly dugL: number;
  /** Broken in from the sides around the standing tree: never lifted. */
  readonly cavedL: number;
  /** Site soil back in the pit and under the ball. */
  readonly backL: number;
  /** Drawn up to the ball where it stands proud, as on level ground. */
  readonly moundL: number;
  /** More of that downhill. */
  readonly bankL: number;
  readonly bermL: number;
  readonly leftL: number;
  /** Topsoil, where the spoil does not do. */
  readonly boughtL: number;
}

export interface SoilInput {
  readonly practice: Practice;
  readonly shape: PitShape;
  readonly meanDepthMm: number;
  readonly pitL: number;
  readonly backfillL: number;
  /** Of the fill, what is mixed in and bought. */
  readonly mixedInL: number;
  readonly deeperMm: number;
  readonly ballMm: number;
  /** The ball's top over the ground at its uphill edge, surplus that stays included. */
  readonly topMm: number;
  readonly slopePct: number;
  readonly stripMm: number | 'open';
  readonly bermHeightMm: number | null;
  /** Bare roots are covered to the flare; a ball covers itself. */
  readonly bare: boolean;
}

/** Spoil fills first, then mounds and rings; what it cannot do is bought as topsoil, what remains is left over. */
export function soilBalance(input: SoilInput): SoilBalance {
  const { practice, shape } = input;
  const base = stadiumArea(shape.bottomWidthMm, shape.bottomLengthMm) / 1e6;
  const deeperL = base * input.deeperMm;
  const straightL = base * input.meanDepthMm;
  const cavedL = pitSides[practice.pitWidth.sides].cavedIn ? Math.max(0, input.pitL - straightL) : 0;
  const dugL = input.pitL - cavedL + deeperL;
  const backL = input.backfillL - input.mixedInL + deeperL;
  const shoulder = shoulderSoilL({
    ballMm: input.ballMm,
    heightMm: input.topMm,
    slopePct: input.slopePct,
    stripMm: input.stripMm,
    rule: shoulders[practice.flareAboveGrade.shoulder],
  });
  const bermL = ringL(input);
  const covered = input.bare ? coverL(input) : { levelL: 0, slopeL: 0 };
  const moundL = shoulder.moundL + covered.levelL;
  const bankL = shoulder.bankL + covered.slopeL;
  const over = dugL + cavedL - backL - moundL - bankL - bermL;
  return { dugL, cavedL, backL, moundL, bankL, bermL, leftL: Math.max(0, over), boughtL: Math.max(0, -over) };
}

/** Soil over spread roots, from the ground up to a level top at the flare. */
function coverL({ ballMm, topMm, slopePct }: SoilInput): { readonly levelL: number; readonly slopeL: number } {
  const m2 = ((Math.PI / 4) * ballMm ** 2) / 1e6;
  return { levelL: m2 * topMm, slopeL: m2 * (slopePct / 100) * (ballMm / 2) };
}

/** A ring of turf takes no soil. */
function ringL({ practice, bermHeightMm, ballMm, shape }: SoilInput): number {
  const { at, of } = bermPlaces[practice.berm.where];
  if (bermHeightMm === null || at === null || of === 'turf') return 0;
  const straightMm = at === 'pit' ? shape.lengthMm - shape.widthMm : 0;
  return bermSoilL({
    fromMm: bermFromMm(at, { ballMm, pitMm: shape.widthMm }),
    heightMm: bermHeightMm,
    straightMm,
  });
}

/** Why so much is left over, or bought. */
export function soilBecause(soil: SoilBalance, bulking: number): readonly PitReason[] {
  const { dugL, cavedL, backL, moundL, bankL, bermL, leftL, boughtL } = soil;
  const moved = because('soil_moved', { dugL, cavedL, backL });
  const built = moundL + bankL + bermL > 0 ? [because('soil_built', { moundL, bankL, bermL })] : [];
  if (boughtL > 0) return [moved, ...built, because('soil_bought', { boughtL })];
  return [moved, ...built, because('spoil_bulks', { leftL, bulking })];
}
