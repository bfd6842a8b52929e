import fc from 'fast-check';
import {
  defaultWeatherRules as rules,
  judgeHour,
  thunderWaitMin,
  watchWeather,
  type HourOfWeather,
} from './weather-watch';

const fair = (hour: number, change: Partial<HourOfWeather> = {}): HourOfWeather => ({
  hour,
  rainMm: 0,
  temperatureC: 16,
  humidityPct: 70,
  gustMs: 5,
  thunderKm: null,
  soilC: 12,
  ...change,
});
const day = (bad: Readonly<Record<number, Partial<HourOfWeather>>> = {}) =>
  Array.from({ length: 24 }, (_, hour) => fair(hour, bad[hour]));
const morning = { beginHour: 9, endHour: 13, neededH: 3, latestEndHour: 15 };
const codes = (watch: ReturnType<typeof watchWeather>) => watch.because.map(({ code }) => code);

describe('weather watch', () => {
  it('goes on a fair day, and in light rain', () => {
    expect(watchWeather(day(), morning)).toMatchObject({ advice: 'go', beginHour: 9 });
    const drizzle = watchWeather(day({ 9: { rainMm: 2 }, 10: { rainMm: 2.5 } }), morning);
    expect([drizzle.advice, codes(drizzle)]).toEqual(['go', ['weather_fair']]);
  });
  it.each([
    ['thunder within ten kilometres', { thunderKm: 10 }, 'weather_thunder'],
    ['gusts of Beaufort 7', { gustMs: 14 }, 'weather_gusts'],
    ['heavy rain', { rainMm: 8 }, 'weather_heavy_rain'],
    ['frozen soil', { soilC: -0.5 }, 'weather_frozen'],
    // 40 °C at 40 % feels like 48 °C.
    ['heat', { temperatureC: 40, humidityPct: 40 }, 'weather_heat_stops'],
  ] as const)('stops for %s', (_name, bad, code) => {
    const judged = judgeHour(fair(9, bad));
    expect([judged.stops, judged.because[0]?.code]).toEqual([true, code]);
    const all = Object.fromEntries(Array.from({ length: 24 }, (_, hour) => [hour, bad]));
    expect(watchWeather(day(all), morning)).toMatchObject({ advice: 'call_off', beginHour: null });
  });
  it('does not stop for what is just under a limit', () => {
    const under = { thunderKm: 10.1, gustMs: 13.8, rainMm: 7.5, soilC: 0.1 };
    expect(judgeHour(fair(9, under)).stops).toBe(false);
  });
  it('begins later where enough hours are left after it', () => {
    const watch = watchWeather(day({ 9: { rainMm: 9 }, 10: { gustMs: 15 } }), morning);
    expect([watch.advice, watch.beginHour, codes(watch)[0]]).toEqual(['delay', 11, 'weather_begin_later']);
  });
  it('waits out the hour after thunder', () => {
    expect(watchWeather(day({ 9: { thunderKm: 4 } }), morning).beginHour).toBe(11);
  });
  it('calls off where what is left is too short', () => {
    const watch = watchWeather(day({ 11: { thunderKm: 4 } }), morning);
    expect([watch.advice, codes(watch)[0]]).toEqual(['call_off', 'weather_no_run']);
  });
  it('goes as asked where the bad hour comes after the work', () => {
    expect(watchWeather(day({ 12: { gustMs: 20 } }), morning)).toMatchObject({ advice: 'go', beginHour: 9 });
  });
  it('says that it does not know where no forecast reaches', () => {
    const watch = watchWeather(
      day().filter(({ hour }) => hour < 11),
      morning,
    );
    expect([watch.advice, watch.because[0]]).toEqual([
      'unknown',
      { code: 'weather_not_forecast', facts: { hours: 2, ofHours: 4 } },
    ]);
  });
  it('works in short turns between the two limits of heat', () => {
    // 31 °C at 60 %: 88 °F at 60 % is printed as 95 °F, 35 °C.
    const judged = judgeHour(fair(9, { temperatureC: 31, humidityPct: 60 }));
    expect([judged.stops, judged.level, judged.because[0]?.code]).toEqual([false, 'watch', 'weather_heat_breaks']);
  });
  it('counts thirty minutes since the last thunder', () => {
    expect([thunderWaitMin(0, 0), thunderWaitMin(0, 29 * 60_000), thunderWaitMin(0, 30 * 60_000)]).toEqual([30, 1, 0]);
  });
  it('never goes into an hour that stops work, and never begins before it was asked', () => {
    const hours = fc.array(fc.record({ gustMs: fc.double({ min: 0, max: 25, noNaN: true }), thunder: fc.boolean() }), {
      minLength: 24,
      maxLength: 24,
    });
    fc.assert(
      fc.property(hours, fc.integer({ min: 1, max: 4 }), (all, neededH) => {
        const forecast = all.map(({ gustMs, thunder }, hour) => fair(hour, { gustMs, thunderKm: thunder ? 3 : null }));
        const watch = watchWeather(forecast, { ...morning, neededH });
        if (watch.beginHour === null) return;
        expect(watch.beginHour).toBeGreaterThanOrEqual(9);
        const worked = forecast.filter(
          ({ hour }) => hour >= (watch.beginHour ?? 0) && hour < (watch.beginHour ?? 0) + neededH,
        );
        for (const one of worked) expect([one.gustMs >= rules.gustStopMs, one.thunderKm]).toEqual([false, null]);
      }),
    );
  });
});
