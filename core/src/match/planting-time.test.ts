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
