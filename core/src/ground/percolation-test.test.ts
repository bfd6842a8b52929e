import { defaultPercolationLimits, percolationRate } from './percolation';
import { inTime, soakedMinutes, testReadings, type PercolationTest } from './percolation-test';

const test: PercolationTest = {
  testedOn: '2026-11-20',
  holeDepthMm: 400,
  soakedAt: '2026-11-20T09:00:00Z',
  filledAt: '2026-11-20T10:30:00Z',
  readings: [
    { at: '2026-11-20T10:30:00Z', levelMm: 300 },
    { at: '2026-11-20T11:00:00Z', levelMm: 290 },
    { at: '2026-11-20T11:30:00Z', levelMm: 280 },
    { at: '2026-11-20T12:00:00Z', levelMm: 270 },
  ],
};

describe('a percolation test on the spot', () => {
  it('turns taps into minutes since filling', () => {
    expect(testReadings(test).map(({ minute }) => minute)).toEqual([0, 30, 60, 90]);
    expect(soakedMinutes(test)).toBe(90);
    expect(soakedMinutes({ ...test, soakedAt: null })).toBe(0);
  });

  it('gives the rate of its fall', () => {
    const rate = percolationRate(testReadings(test), defaultPercolationLimits);
    expect(rate).toMatchObject({ kind: 'rate', class: 'slow' });
    if (rate.kind === 'rate') expect(rate.rateMmPerH).toBeCloseTo(20, 6);
  });

  it('has a clock that went backwards questioned, not computed', () => {
    const back = test.readings.map((reading, i) => (i === 2 ? { ...reading, at: '2026-11-20T09:50:00Z' } : reading));
    expect(percolationRate(testReadings({ ...test, readings: back }), defaultPercolationLimits)).toEqual({
      kind: 'questioned',
      question: 'clock_backwards',
      atReading: 2,
    });
  });

  it('refuses a reading of two days later, and can leave it out', () => {
    const late = { at: '2026-11-22T10:31:00Z', levelMm: 200 };
    const long = { ...test, readings: [...test.readings, late] };
    expect(() => testReadings(long)).toThrow('readings[4].at must be within 0–2880 min, got 2881');
    expect(testReadings(inTime(long))).toEqual(testReadings(test));
    const inTwoDays = { ...long, readings: [...test.readings, { ...late, at: '2026-11-22T10:30:00Z' }] };
    expect(testReadings(inTime(inTwoDays)).at(-1)).toEqual({ minute: 2880, levelMm: 200 });
  });

  it('refuses a level no hole has', () => {
    const deep = { ...test, readings: [{ at: test.filledAt, levelMm: 2500 }] };
    expect(() => testReadings(deep)).toThrow('readings[0].levelMm must be within 0–2000 mm, got 2500');
  });
});
