import { requireWithin } from '../errors';
import { because, type DayReason } from './reasons';

/** What of a day's work may go at another pace than the rules say: shares of its ruled hours, 0–1. */
export interface WorkShape {
  /** In clay and clay loam. */
  readonly heavySoilShare: number;
  /** On trees too heavy for three to lift. */
  readonly heavyStockShare: number;
}

/** One day as it was worked. Person-hours. */
export interface WorkedDay extends WorkShape {
  readonly ruledH: number;
  readonly workedH: number;
}

/** How many times the ruled hours work takes: likely, and the range that holds four days out of five. */
export interface PaceRange {
  readonly factor: number;
  readonly low: number;
  readonly high: number;
}

export interface LabourPace {
  /** Days it rests on. */
  readonly days: number;
  /** For work of this shape, on one day to come. */
  readonly of: (shape: WorkShape) => PaceRange;
  readonly because: readonly DayReason[];
}

/** What the rules are worth beside logged days, and how far days scatter before any was logged: estimates. */
export interface PaceRules {
  /** Spread of the logarithm of the pace as a whole that is borne before a day was seen. */
  readonly paceSd: number;
  /** The same of what heavy soil, or heavy stock, adds. */
  readonly partSd: number;
  /** Scatter of one day about the pace. */
  readonly daySd: number;
  /** How many days that scatter is worth. */
  readonly daySdWorth: number;
}
export const defaultPaceRules: PaceRules = { paceSd: 0.3, partSd: 0.25, daySd: 0.25, daySdWorth: 4 };

/** Of a normal distribution, what holds four fifths on both sides. */
const z80 = 1.2816;

/**
 * Corrects the labour rules by the days a programme logged: ridge regression of ln(worked ÷ ruled hours) on a pace for
 * all work, one for heavy soil and one for heavy stock, each drawn towards 0 by its prior (conjugate normal and
 * inverse gamma; Gelman et al., Bayesian Data Analysis, 3rd ed., ch. 14). The range is Student's t for one day to come:
 * its spread is never under the scatter of single days, so a few lucky days do not make it sure.
 * @throws InvalidInputError for a day without hours, or a share outside 0–1
 */
export function learnPace(days: readonly WorkedDay[], rules: PaceRules = defaultPaceRules): LabourPace {
  const rows = days.map((day) => ({ x: featuresOf(day), y: logRatio(day) }));
  const { paceSd, partSd, daySd, daySdWorth } = rules;
  const drawn = [paceSd, partSd, partSd].map((sd) => (daySd / sd) ** 2);
  const xx = drawn.map((prior, i) =>
    drawn.map((_, j) => rows.reduce((sum, { x }) => sum + at(x, i) * at(x, j), i === j ? prior : 0)),
  );
  const spread = inverse(xx);
  const xy = drawn.map((_, i) => rows.reduce((sum, { x, y }) => sum + at(x, i) * y, 0));
  const b = spread.map((row) => dot(row, xy));
  const missed =
    rows.reduce((sum, { x, y }) => sum + (y - dot(x, b)) ** 2, 0) +
    dot(
      drawn,
      b.map((one) => one * one),
    );
  const freedom = daySdWorth + rows.length;
  const sd = Math.sqrt((daySdWorth * daySd ** 2 + missed) / freedom);
  const of = (shape: WorkShape): PaceRange => {
    const x = featuresOf(shape);
    const mean = dot(x, b);
    const reach =
      quantile80(freedom) *
      sd *
      Math.sqrt(
        1 +
          dot(
            x,
            spread.map((row) => dot(row, x)),
          ),
      );
    return { factor: Math.exp(mean), low: Math.exp(mean - reach), high: Math.exp(mean + reach) };
  };
  return { days: rows.length, of, because: learnt(rows.length, b) };
}

const noPart: WorkShape = { heavySoilShare: 0, heavyStockShare: 0 };
/** Before any day was logged: the rules, as widely as days scatter. */
export const ruledPace = (): LabourPace => learnPace([]);

function learnt(days: number, b: readonly number[]): DayReason[] {
  if (days === 0) return [because('pace_by_rules', {})];
  const percent = (log: number) => (Math.exp(log) - 1) * 100;
  const parts = [
    because('pace_learnt', { days, changePct: percent(at(b, 0)) }),
    because('pace_heavy_soil', { changePct: percent(at(b, 1)) }),
    because('pace_heavy_stock', { changePct: percent(at(b, 2)) }),
  ];
  // What moved by less than one in twenty is not worth a sentence.
  return parts.filter(({ code, facts }) => code === 'pace_learnt' || Math.abs(facts.changePct) >= 5);
}

const featuresOf = ({ heavySoilShare, heavyStockShare }: WorkShape): readonly number[] => [
  1,
  requireWithin('heavySoilShare', heavySoilShare, { min: 0, max: 1, unit: '' }),
  requireWithin('heavyStockShare', heavyStockShare, { min: 0, max: 1, unit: '' }),
];

const logRatio = ({ workedH, ruledH }: WorkedDay): number =>
  Math.log(
    requireWithin('workedH', workedH, { min: 0.01, max: 10_000, unit: 'h' }) /
      requireWithin('ruledH', ruledH, { min: 0.01, max: 10_000, unit: 'h' }),
  );

/** Student's t that holds four fifths: Cornish and Fisher's expansion, within 0.01 from four degrees of freedom on. */
function quantile80(freedom: number): number {
  const first = (z80 ** 3 + z80) / (4 * freedom);
  return z80 + first + (5 * z80 ** 5 + 16 * z80 ** 3 + 3 * z80) / (96 * freedom ** 2);
}

const at = (row: readonly number[], i: number): number => row[i] ?? 0;
const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, one, i) => sum + one * at(b, i), 0);

/** Of a symmetric positive matrix, by Gauss and Jordan: no pivot can vanish. */
function inverse(matrix: readonly (readonly number[])[]): number[][] {
  const n = matrix.length;
  const rows = matrix.map((row, i) => [...row, ...Array.from({ length: n }, (_, j) => (i === j ? 1 : 0))]);
  for (let i = 0; i < n; i++) {
    const pivot = (rows[i] ?? []).map((one) => one / at(rows[i] ?? [], i));
    rows[i] = pivot;
    for (let k = 0; k < n; k++) {
      if (k === i) continue;
      const times = at(rows[k] ?? [], i);
      rows[k] = (rows[k] ?? []).map((one, j) => one - times * at(pivot, j));
    }
  }
  return rows.map((row) => row.slice(n));
}

/** A day's shape from its trees: shares of their ruled hours. */
export function shapeOfWork(
  trees: readonly { readonly hours: number; readonly heavySoil: boolean; readonly heavyStock: boolean }[],
): WorkShape {
  const all = trees.reduce((sum, { hours }) => sum + hours, 0);
  if (all === 0) return noPart;
  const share = (of: 'heavySoil' | 'heavyStock') =>
    Math.min(1, trees.filter((one) => one[of]).reduce((sum, { hours }) => sum + hours, 0) / all);
  return { heavySoilShare: share('heavySoil'), heavyStockShare: share('heavyStock') };
}
