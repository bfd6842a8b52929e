import { unknownGround } from '../ground';
import { soakLitres } from '../pit';
import { fieldDefault, presets, soakRules, type SoakRule } from '../practice';
import { typicalStock, typicalSubject } from '../record';
import { addDaysTo } from '../calendar';
import { compareSoaks, soakTriedDays, type ClimateDay } from '.';

const stock = typicalStock('container', 50);
const ground = { soil: 'loam', percolation: 'good' } as const;
const plantedOn = '2026-05-10';
const subject = typicalSubject(stock, { ...ground, plantedOn, practice: fieldDefault });
const dry: ClimateDay[] = Array.from({ length: 90 }, (_, i) => ({
  day: addDaysTo(plantedOn, i),
  monthSerial: Date.parse(`${addDaysTo(plantedOn, i).slice(0, 8)}01`) / 86_400_000,
  etMm: 5,
  rainMm: 0,
  degrees: 12,
  resting: false,
}));
const every = (litres: number) =>
  Object.fromEntries(Object.keys(soakRules).map((rule) => [rule, litres])) as Record<SoakRule, number>;

it('tries every rule on the days after planting, and no more of them', () => {
  const tried = compareSoaks({ subject, litres: every(40), climate: dry });
  expect(tried.map(({ rule }) => rule)).toEqual(Object.keys(soakRules));
  expect(new Set(tried.map(({ days }) => days))).toEqual(new Set([soakTriedDays]));
  expect(compareSoaks({ subject, litres: every(40), climate: [] })).toEqual([]);
});

it('more water never makes a tree ask sooner, nor stress it more', () => {
  for (const percolation of ['good', 'slow', 'stands', 'fast'] as const) {
    let before = { asks: -1, stress: Infinity };
    for (const litres of [0, 5, 10, 20, 40, 80, 160]) {
      const [one] = compareSoaks({ subject: { ...subject, percolation }, litres: every(litres), climate: dry });
      const now = { asks: one?.asksAfterDays ?? Infinity, stress: one?.stressDays ?? NaN };
      expect(now.asks).toBeGreaterThanOrEqual(before.asks);
      expect(now.stress).toBeLessThanOrEqual(before.stress);
      before = now;
    }
  }
});

it('where water stands a large soak drowns the ball longer than a small one', () => {
  const standing = { ...subject, percolation: 'stands' as const };
  const drowned = (litres: number) =>
    compareSoaks({ subject: standing, litres: every(litres), climate: dry })[0]?.waterloggedDays ?? NaN;
  expect(drowned(160)).toBeGreaterThan(drowned(10));
});

describe('litres of the soak by each rule', () => {
  it.each(
    presets
      .filter(({ appliesTo }) => appliesTo.includes('container'))
      .map((practice) => [practice.name, practice] as const),
  )('are those of the plan, by %s', (_name, practice) => {
    const firstSoak = { ...practice.firstSoak, fixedL: 33, lPer25Mm: 12 };
    const input = {
      ground: { ...unknownGround, soil: 'loam' as const, slopePct: 0 },
      stock,
      practice: { ...practice, firstSoak },
    };
    const litres = soakLitres(input);
    // 12 L for each 25 mm of a trunk of 50 mm; a fixed volume is itself.
    expect(litres).toMatchObject({ none: 0, fixed: 33, by_caliper: 24 });
  });
  it('are none where there is no plan', () => {
    expect(soakLitres({ ground: unknownGround, stock, practice: fieldDefault })).toBeNull();
  });
});
