import fc from 'fast-check';
import { iceThickness, isIcing, type IcyHour } from './ice-load';

const hour = (rainMm: number, temperatureC = -1, gustMs = 0): IcyHour => ({ rainMm, temperatureC, gustMs });

describe('ice round a twig', () => {
  it('by the simple model, worked by hand', () => {
    // R = N / (ρ π) √((P ρ₀)² + (3.6 V W)²), W = 0.067 P^0.846, mean wind 0.6 of the gust.
    expect(iceThickness([hour(2)])[0]).toBeCloseTo(2 / (0.9 * Math.PI), 9);
    // 1 mm under gusts of 10 m/s: V = 6, 3.6 × 6 × 0.067 = 1.4472; √(1 + 2.0944) = 1.75909; ÷ 2.82743 = 0.62215.
    expect(iceThickness([hour(1, -2, 10)])[0]).toBeCloseTo(0.62215, 4);
    expect(iceThickness([hour(1), hour(1), hour(1)]).at(-1)).toBeCloseTo(3 / (0.9 * Math.PI), 9);
  });
  it.each([
    ['rain above freezing', hour(5, 0.1), false],
    ['dry snow', hour(5, -5), false],
    ['frost without rain', hour(0, -2), false],
    ['at freezing', hour(5, 0), true],
  ])('%s: %j', (_said, one, icing) => {
    expect(isIcing(one)).toBe(icing);
    expect((iceThickness([one])[0] ?? 0) > 0).toBe(icing);
  });
  it('stays while it is frosty and dry, and is gone with the thaw', () => {
    const [iced = 0, cold = 0, mild = 0, thawed] = iceThickness([hour(3), hour(0, -6), hour(0, 0.8), hour(0, 1.5)]);
    expect(iced).toBeGreaterThan(1);
    expect([cold, mild, thawed]).toEqual([iced, iced, 0]);
  });
  it('is never less with more rain or more wind', () => {
    const any = fc.record({
      rainMm: fc.float({ min: 0, max: 20, noNaN: true }),
      gustMs: fc.float({ min: 0, max: 40, noNaN: true }),
    });
    fc.assert(
      fc.property(any, ({ rainMm, gustMs }) => {
        const [mm = 0] = iceThickness([hour(rainMm, -1, gustMs)]);
        expect(iceThickness([hour(rainMm + 1, -1, gustMs)])[0]).toBeGreaterThan(mm);
        expect(iceThickness([hour(rainMm, -1, gustMs + 1)])[0] ?? 0).toBeGreaterThanOrEqual(mm);
      }),
    );
  });
  it('refuses rain that is none', () => {
    expect(() => iceThickness([hour(-1)])).toThrow('rainMm must be within 0–500 mm');
  });
});
