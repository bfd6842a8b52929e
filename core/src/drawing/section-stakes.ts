import type { StakePlan } from '../pit';
import { stakeFootMm, type Frame, type PitSectionInput } from './section-frame';
import { line, polygon, type Shape } from './shapes';

const stakeHalfMm = 28;
/** Heights above the break, from its upper end. px */
const tieDownPx = 46;
const branchDownPx = 14;

/** Sides on which stakes are drawn: one stands to windward, on the left; two or more left and right. */
const sidesOf = ({ stakes }: StakePlan): readonly number[] => (stakes === 1 ? [-1] : [-1, 1]);

export const tieY = (f: Frame): number => f.gutter.top + tieDownPx;
export const branchY = (f: Frame): number => f.gutter.top + branchDownPx;

/** Stakes from their foot in firm ground to the tie; trunk and stakes are broken where the drawing leaves its scale. */
export function stakesUp(input: PitSectionInput, f: Frame): Shape[] {
  const { stakes, stock } = input;
  if (!stakes || f.breakY === null) return [];
  const trunkHalf = Math.max(3, (stock.caliperMm / 2) * f.scale);
  const [trunkX] = f.at(0, 0);
  const head = headOf(trunkX, trunkHalf, f);
  return [
    ...sidesOf(stakes).flatMap((side) => oneStake(side, stakes, trunkX, f)),
    ...head,
    ...branches(input, trunkX, f),
    ...windArrow(input, trunkX, f),
  ];
}

function oneStake(side: number, stakes: StakePlan, trunkX: number, f: Frame): Shape[] {
  const xMm = side * stakes.fromTrunkMm;
  const half = Math.max(2.5, stakeHalfMm * f.scale);
  const breakY = f.breakY ?? f.gutter.top;
  const [x, footY] = f.at(xMm, f.gradeAt(xMm) - stakeFootMm(stakes));
  const shaft = (from: number, to: number): Shape =>
    polygon('stake', [
      [x - half, from],
      [x + half, from],
      [x + half, to],
      [x - half, to],
    ]);
  const tie = line('tie', [
    [x, tieY(f) - 3],
    [trunkX, tieY(f) + 3],
    [x, tieY(f) + 3],
    [trunkX, tieY(f) - 3],
  ]);
  return [shaft(breakY + 3, footY), shaft(tieY(f) - 12, breakY - 4), ...breakMarks(x, half + 3, breakY), tie];
}

/** The trunk above the break. */
function headOf(x: number, half: number, f: Frame): Shape[] {
  const breakY = f.breakY ?? f.gutter.top;
  const shaft = polygon('trunk', [
    [x - half, f.gutter.top],
    [x + half, f.gutter.top],
    [x + half, breakY - 4],
    [x - half, breakY - 4],
  ]);
  return [shaft, ...breakMarks(x, half + 4, breakY)];
}

function branches({ stock }: PitSectionInput, x: number, f: Frame): Shape[] {
  if (stock.firstBranchM === undefined) return [];
  const y = branchY(f);
  return [-1, 1].map((side) =>
    line('root', [
      [x, y],
      [x + side * 26, y - 12],
    ]),
  );
}

/** One stake stands to windward, on the left: the wind comes from there. Across two stakes it blows through the sheet. */
function windArrow({ stakes, windsDeg = [] }: PitSectionInput, x: number, f: Frame): Shape[] {
  if (stakes?.stakes !== 1 || windsDeg.length === 0) return [];
  const y = branchY(f);
  const [from, to] = [Math.max(f.gutter.left, x - 90), x - 34];
  return [
    line('dimension', [
      [from, y],
      [to, y],
    ]),
    line('dimension', [
      [to - 7, y - 4],
      [to, y],
      [to - 7, y + 4],
    ]),
  ];
}

/** Two slanted strokes: what lies between is left out. */
const breakMarks = (x: number, half: number, y: number): Shape[] =>
  [y - 4, y + 3].map((at) =>
    line('dimension', [
      [x - half, at + 3],
      [x + half, at - 3],
    ]),
  );
