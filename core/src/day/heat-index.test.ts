import { heatIndexC } from './heat-index';

const f = (celsius: number) => (celsius * 9) / 5 + 32;
const c = (fahrenheit: number) => ((fahrenheit - 32) * 5) / 9;

describe('heat index', () => {
  // National Weather Service, Heat Index chart: temperature °F, humidity %, apparent °F, printed to the whole degree.
  it.each([
    [80, 40, 80],
    [80, 90, 86],
    [84, 70, 90],
    [86, 60, 91],
    [90, 70, 105],
    [92, 50, 99],
    [96, 50, 108],
    [100, 40, 109],
    [104, 40, 119],
    [110, 40, 136],
  ])('%d °F at %d %% feels like %d °F', (temperature, humidity, feels) => {
    // The chart rounds, and its printed corners differ by up to one from the regression it rests on.
    expect(Math.abs(f(heatIndexC(c(temperature), humidity)) - feels)).toBeLessThanOrEqual(1.1);
  });
  it('is about the air temperature where it is cool', () => {
    expect(Math.abs(heatIndexC(15, 60) - 15)).toBeLessThan(1.5);
  });
  it('feels hotter the moister the air', () => {
    for (const t of [28, 32, 38]) expect(heatIndexC(t, 75)).toBeGreaterThan(heatIndexC(t, 45));
  });
  it.each([
    [Number.NaN, 50],
    [61, 50],
    [30, 101],
  ])('refuses %d °C at %d %%', (t, h) => {
    expect(() => heatIndexC(t, h)).toThrow(/must be within/);
  });
});
