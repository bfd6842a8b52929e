import { fieldDefault, withChoice } from '../practice';
import { mildWinterWindows } from '../season';
import { firstSeason, moistureChecks, moistureSpans } from './moisture-checks';

/** Trees rest from November to the end of March. */
const rests = [{ stock: 'bare_root', from: '11-01', to: '03-31', because: '' }] as const;

describe('the first growing season', () => {
  it.each([
    ['planted at rest', '2026-01-10', '2026-04-01', '2026-10-31'],
    ['planted in spring', '2026-05-04', '2026-05-04', '2026-10-31'],
    ['planted in autumn, six weeks before it rests', '2026-09-20', '2026-09-20', '2027-10-31'],
  ])('of a tree %s', (_words, plantedOn, from, until) => {
    expect(firstSeason(plantedOn, rests)).toEqual({ from, until });
  });
  it('is half a year where nobody said when trees rest', () => {
    expect(firstSeason('2026-05-01', [])).toEqual({ from: '2026-05-01', until: '2026-10-30' });
  });
  it('goes by the windows that ship', () => {
    const { from, until } = firstSeason('2026-01-10', mildWinterWindows);
    expect([from > '2026-01-10', until > from]).toEqual([true, true]);
  });
});

describe('moisture felt week by week', () => {
  const checks = { everyDays: 7, from: '2026-04-01', until: '2026-10-31' };
  it('a missed week shows', () => {
    const spans = moistureSpans(checks, ['2026-04-02', '2026-04-16'], '2026-04-22');
    expect(spans).toEqual([
      { from: '2026-04-01', until: '2026-04-07', read: true },
      { from: '2026-04-08', until: '2026-04-14', read: false },
      { from: '2026-04-15', until: '2026-04-21', read: true },
    ]);
  });
  it('a week that is not over is not missed yet', () => {
    expect(moistureSpans(checks, [], '2026-04-07')).toEqual([]);
    expect(moistureSpans(checks, [], '2026-04-08')).toHaveLength(1);
  });
  it('is a rule of the practice, which may ask for none', () => {
    const asked = (days: number) =>
      moistureChecks('2026-01-10', withChoice(fieldDefault, 'inspection.moistureEveryDays', days), rests);
    expect(asked(0)).toBeNull();
    expect(asked(14)).toMatchObject({ everyDays: 14, from: '2026-04-01' });
    expect(moistureChecks('2026-01-10', fieldDefault, rests)).toMatchObject({ everyDays: 7 });
  });
});
