import { trainedSettlement } from './settlement';

describe('settlement trained by measured drops', () => {
  it('is unknown while nothing was measured', () => {
    expect(trainedSettlement([], 0.1)).toBeNull();
  });

  it('is the ratio of drop to fill, drawn towards the practice while there are few', () => {
    // Drops 12 of 60 and 30 of 100: 42/160 = 0.2625; with five of 0.1: (2 × 0.2625 + 5 × 0.1)/7 = 0.1464.
    const trained = trainedSettlement(
      [
        { fillMm: 60, dropMm: 12 },
        { fillMm: 100, dropMm: 30 },
      ],
      0.1,
    );
    expect(trained?.measuredShare).toBeCloseTo(0.2625, 6);
    expect(trained?.share).toBeCloseTo(0.14643, 5);
    // Residuals −3.75 and +3.75: √(2 × 28.125 / 1) / 160 = 0.04688.
    expect(trained?.standardError).toBeCloseTo(0.046875, 6);
  });

  it('follows what was measured once there is much of it', () => {
    const drops = Array.from({ length: 200 }, () => ({ fillMm: 50, dropMm: 10 }));
    const trained = trainedSettlement(drops, 0.1);
    expect(trained?.share).toBeCloseTo(0.1976, 4);
    expect(trained?.standardError).toBe(0);
  });

  it('takes a ball that rose for one that did not sink, and none sinks deeper than its fill', () => {
    expect(trainedSettlement([{ fillMm: 50, dropMm: -20 }], 0.1)?.measuredShare).toBe(0);
    expect(trainedSettlement([{ fillMm: 50, dropMm: 90 }], 0.1)?.measuredShare).toBe(1);
  });

  it('refuses a drop without fill', () => {
    expect(() => trainedSettlement([{ fillMm: 0, dropMm: 5 }], 0.1)).toThrow('fillMm must be within 1–1000');
  });

  it('refuses what is no number', () => {
    expect(() => trainedSettlement([{ fillMm: 50, dropMm: NaN }], 0.1)).toThrow('dropMm must be a number, got NaN');
    expect(() => trainedSettlement([], NaN)).toThrow('practiceShare must be within 0–1');
  });
});
