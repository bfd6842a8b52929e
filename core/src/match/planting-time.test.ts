import { mildWinterWindows } from '../season';
import { judgePlantingTime, type ForecastDay } from './planting-time';

const week = (change: Partial<ForecastDay> = {}): ForecastDay[] =>
  Array.from({ length: 7 }, (_, i) => ({
    day: `2026-12-${String(10 + i)}`,
    tMinC: 9,
    tMaxC: 16,
    rainMm: 4,
    ...change,
  }));
const judge = (kind: 'container' | 'balled' | 'bare_root', day: string, forecast: ForecastDay[] = []) => {
  const { level, because } = judgePlantingTime({ kind, day, windows: mildWinterWindows, forecast });
  return [level, ...because.map(({ code }) => code)];
};

describe('planting time', () => {
  it('follows the season of each kind of stock', () => {
    expect(judge('bare_root', '2026-12-10')).toEqual(['good', 'window_open']);
    expect(judge('bare_root', '2026-11-10')).toEqual(['act', 'window_closed']);
    expect(judge('balled', '2026-11-10')).toEqual(['good', 'window_open']);
    expect(judge('container', '2026-07-10')).toEqual(['watch', 'window_closed']);
  });

  it('hangs out of season on how the tree came, and not in its season', () => {
    const came = (day: string, covered: boolean | null, moist: boolean | null) => {
      const arrival = { covered, moist, wateredEveryDays: null };
      const judged = judgePlantingTime({ kind: 'container', day, windows: mildWinterWindows, forecast: [], arrival });
      return [judged.level, judged.because.at(-1)?.code];
    };
    expect(came('2026-07-10', true, true)).toEqual(['watch', 'came_well']);
    expect(came('2026-07-10', true, false)).toEqual(['urgent', 'came_dry']);
    expect(came('2026-07-10', false, null)).toEqual(['urgent', 'came_dry']);
    expect(came('2026-07-10', null, true)).toEqual(['act', 'came_unasked']);
    expect(came('2026-12-10', false, false)).toEqual(['good', 'window_open']);
  });

  it('follows the forecast of the week', () => {
    expect(judge('balled', '2026-12-10', week())).toEqual(['good', 'window_open', 'forecast_rain']);
    expect(judge('balled', '2026-12-10', week({ tMinC: -5 }))).toEqual(['act', 'window_open', 'forecast_frost']);
    expect(judge('container', '2026-12-10', week({ tMaxC: 33 }))).toEqual(['act', 'window_open', 'forecast_heat']);
  });

  it('leaves days gone by out of it', () => {
    const past = week({ tMinC: -9 }).map((one) => ({ ...one, day: '2026-12-01' }));
    expect(judge('balled', '2026-12-10', past)).toEqual(['good', 'window_open']);
  });
});
