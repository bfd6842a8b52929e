import fc from 'fast-check';
import { defaultPaceRules, learnPace, ruledPace, shapeOfWork, type WorkedDay } from './labour-pace';

const plain = { heavySoilShare: 0, heavyStockShare: 0 };
const day = (ratio: number, change: Partial<WorkedDay> = {}): WorkedDay => ({
  ...plain,
  ruledH: 20,
  workedH: 20 * ratio,
  ...change,
});
const width = ({ low, high }: { low: number; high: number }) => Math.log(high / low);

describe('the pace a programme learns', () => {
  it('is the rules before a day was logged, and says so', () => {
    const pace = ruledPace();
    expect([pace.days, pace.of(plain).factor, pace.because]).toEqual([0, 1, [{ code: 'pace_by_rules', facts: {} }]]);
    // t(4) = 1.533 × 0.25 × √(1 + 0.3²/0.25²): the pace's own doubt beside that of one day.
    expect(Math.log(pace.of(plain).high)).toBeCloseTo(1.533 * Math.sqrt(0.25 ** 2 + 0.3 ** 2), 2);
  });
  it('draws one slow day towards the rules by what each is worth', () => {
    // (1/0.25²)·ln 1.5 ÷ (1/0.25² + 1/0.3²): a normal mean between prior and one value, nothing of a part in it.
    const expected = (Math.log(1.5) * (1 / 0.0625)) / (1 / 0.0625 + 1 / 0.09);
    expect(Math.log(learnPace([day(1.5)]).of(plain).factor)).toBeCloseTo(expected, 9);
  });
  it('comes to what many days say', () => {
    const pace = learnPace(Array.from({ length: 60 }, (_, i) => day(i % 2 === 0 ? 1.3 : 1.36)));
    expect(pace.of(plain).factor).toBeCloseTo(Math.sqrt(1.3 * 1.36), 1);
    expect(pace.because[0]).toMatchObject({ code: 'pace_learnt', facts: { days: 60 } });
  });
  it('tells heavy soil from the pace as a whole', () => {
    const days = Array.from({ length: 40 }, (_, i) => day(i % 2 === 0 ? 1 : 1.6, { heavySoilShare: i % 2 }));
    const { of, because } = learnPace(days);
    expect(of(plain).factor).toBeCloseTo(1, 1);
    expect(of({ heavySoilShare: 1, heavyStockShare: 0 }).factor).toBeCloseTo(1.6, 1);
    expect(because.map(({ code }) => code)).toEqual(['pace_learnt', 'pace_heavy_soil']);
  });
  it('holds four days out of five that come after', () => {
    // Days scatter by 0.3 about 1.25 times the rules; a small generator with a fixed seed, Box and Muller's normals.
    let state = 12345;
    const next = () => (state = (state * 48271) % 2147483647) / 2147483647;
    const normal = () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
    const some = () => day(Math.exp(Math.log(1.25) + 0.3 * normal()));
    let held = 0;
    const tries = 2000;
    for (let i = 0; i < tries; i++) {
      const { low, high } = learnPace(Array.from({ length: 8 }, some)).of(plain);
      const { workedH, ruledH } = some();
      if (workedH / ruledH >= low && workedH / ruledH <= high) held += 1;
    }
    // One part in a hundred is what 2,000 tries scatter by; the prior, 0.25 a day, is a little too sure for 0.3.
    expect(held / tries).toBeGreaterThan(0.76);
    expect(held / tries).toBeLessThan(0.86);
  });
  it('is never surer of a day than days scatter, and surer with more days of one kind', () => {
    const ratios = fc.array(fc.double({ min: 0.5, max: 2, noNaN: true }), { maxLength: 30 });
    fc.assert(
      fc.property(ratios, (all) => {
        const logs = all.map(Math.log);
        const range = learnPace(all.map((ratio) => day(ratio))).of(plain);
        const mean = Math.log(range.factor);
        const scatter = logs.reduce((sum, one) => sum + (one - mean) ** 2, 4 * defaultPaceRules.daySd ** 2);
        const sd = Math.sqrt(scatter / (4 + logs.length));
        expect(width(range)).toBeGreaterThanOrEqual(2 * 1.2815 * sd);
      }),
    );
    const same = (n: number) => width(learnPace(Array.from({ length: n }, () => day(1.2))).of(plain));
    expect(same(3)).toBeGreaterThan(same(6));
    expect(same(6)).toBeGreaterThan(same(20));
  });
  it('takes the shape of a day from its trees', () => {
    const trees = [
      { hours: 2, heavySoil: true, heavyStock: false },
      { hours: 6, heavySoil: false, heavyStock: true },
    ];
    expect(shapeOfWork(trees)).toEqual({ heavySoilShare: 0.25, heavyStockShare: 0.75 });
    expect(shapeOfWork([])).toEqual(plain);
  });
  it.each([
    ['no hours', { workedH: 0 }],
    ['a share over one', { heavySoilShare: 1.2 }],
    ['what is no number', { ruledH: Number.NaN }],
  ])('refuses %s', (_name, change) => {
    expect(() => learnPace([day(1, change)])).toThrow(/must be within/);
  });
});
