import { requireWithin } from '../errors';
import type { IsoDate } from '../calendar';
import { limits } from '../limits';
import { because, type GroundReason } from './reasons';
import type { PercolationReading } from './percolation';

/** A percolation test as it was run on the spot, each tap with the clock of the device. */
export interface PercolationTest {
  readonly testedOn: IsoDate;
  readonly holeDepthMm: number;
  /** Instants, ISO 8601: when the soaking began, and when the hole was filled for reading; `null` for no soak. */
  readonly soakedAt: string | null;
  readonly filledAt: string;
  readonly readings: readonly { readonly at: string; readonly levelMm: number }[];
}

/**
 * Minutes since filling and level of each reading, to a tenth of a minute. A clock set back shows as minutes
 * that do not rise: `percolationRate` questions them.
 * @throws InvalidInputError for a level outside `limits`, or a reading more than two days from the filling
 */
export function testReadings(test: PercolationTest, path = 'readings'): PercolationReading[] {
  return test.readings.map(({ at, levelMm }, i) => {
    requireWithin(`${path}[${i}].levelMm`, levelMm, limits.waterLevelMm);
    // Before the filling: the clock was set back. The order of minutes tells, the size does not matter.
    const minute = Math.max(0, minuteOf(test, at));
    return { minute: requireWithin(`${path}[${i}].at`, minute, limits.percolationMinute), levelMm };
  });
}

const minuteOf = ({ filledAt }: PercolationTest, at: string): number =>
  Math.round((Date.parse(at) - Date.parse(filledAt)) / 6000) / 10;

/** The test without what was read more than two days after the filling: by then it is another hole. */
export const inTime = (test: PercolationTest): PercolationTest => ({
  ...test,
  readings: test.readings.filter(({ at }) => minuteOf(test, at) <= limits.percolationMinute.max),
});

/** Says that a hole was soaked for less than the rules of the programme ask; nothing where it was long enough. */
export function soakShort(test: PercolationTest, leastMin: number): GroundReason[] {
  const minutes = soakedMinutes(test);
  return minutes < leastMin ? [because('presoak_short', { minutes, leastMin })] : [];
}

/** Minutes between the beginning of the soak and the filling; 0 for none. */
export function soakedMinutes({ soakedAt, filledAt }: PercolationTest): number {
  if (soakedAt === null) return 0;
  return Math.max(0, (Date.parse(filledAt) - Date.parse(soakedAt)) / 60_000);
}
