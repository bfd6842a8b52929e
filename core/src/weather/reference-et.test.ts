import { extraterrestrialMj, referenceEtMm, type WeatherDay } from './reference-et';

const plain = (day: string, tMinC: number, tMaxC: number): WeatherDay => ({
  day,
  rainMm: 0,
  tMinC,
  tMaxC,
  humidityMinPct: null,
  humidityMaxPct: null,
  windMs: null,
  radiationMj: null,
});

describe('reference evapotranspiration', () => {
  it('agrees with FAO-56 example 18, Brussels on 6 July: 3.88 mm', () => {
    const day = { ...plain('2025-07-06', 12.3, 21.5), humidityMinPct: 63, humidityMaxPct: 84, windMs: 2.078 };
    const et = referenceEtMm({ ...day, radiationMj: 22.07 }, { latDeg: 50.8, elevationM: 100 });
    // The paper rounds its intermediate values to two digits.
    expect(et).toBeCloseTo(3.88, 1);
    expect(Math.abs(et - 3.88)).toBeLessThan(0.02);
  });

  it('agrees with FAO-56 example 20, Lyon on 15 July by Hargreaves: 5.03 mm', () => {
    const et = referenceEtMm(plain('2025-07-15', 14.8, 26.6), { latDeg: 45.72, elevationM: 200 });
    expect(Math.abs(et - 5.03)).toBeLessThan(0.02);
  });

  it('has the radiation above the air of FAO-56 example 8: 20° S on 3 September, 32.2 MJ', () => {
    expect(extraterrestrialMj(246, -20)).toBeCloseTo(32.2, 1);
  });

  it('never goes below nothing, and rises with wind in dry air', () => {
    const frost = { ...plain('2026-01-10', -20, -18), humidityMinPct: 100, humidityMaxPct: 100, windMs: 0 };
    expect(referenceEtMm({ ...frost, radiationMj: 3 }, { latDeg: 60, elevationM: 0 })).toBe(0);
    const dry = { ...plain('2026-07-10', 20, 34), humidityMinPct: 20, humidityMaxPct: 50, radiationMj: 25 };
    const by = (windMs: number) => referenceEtMm({ ...dry, windMs }, { latDeg: 37, elevationM: 40 });
    expect(by(5)).toBeGreaterThan(by(1));
  });

  it('refuses a night warmer than its day', () => {
    expect(() => referenceEtMm(plain('2026-07-10', 20, 18), { latDeg: 37, elevationM: 0 })).toThrow(
      'tMinC must not be above tMaxC 18, got 20',
    );
  });

  it.each([
    ['humidityMaxPct', NaN],
    ['humidityMinPct', 120],
    ['windMs', NaN],
    ['radiationMj', 80],
  ] as const)('refuses %s of %d', (key, value) => {
    const day = { ...plain('2026-07-10', 20, 28), humidityMinPct: 40, humidityMaxPct: 80, windMs: 2, radiationMj: 20 };
    expect(() => referenceEtMm({ ...day, [key]: value }, { latDeg: 37, elevationM: 0 })).toThrow(
      `${key} must be within`,
    );
  });
  it('refuses a station of no known height', () => {
    expect(() => referenceEtMm(plain('2026-07-10', 20, 28), { latDeg: 37, elevationM: NaN })).toThrow('elevationM');
  });
});
