import type { WeatherDay } from '../weather';
import { isCoolCloudy, remedyWork } from './remedy-work';

const day = (change: Partial<WeatherDay>): WeatherDay => ({
  ...{ day: '2026-11-29', rainMm: 0, tMinC: 9, tMaxC: 16, humidityMinPct: 40, humidityMaxPct: 80 },
  ...{ windMs: 2, radiationMj: 20 },
  ...change,
});

describe('a day for work at roots', () => {
  it.each<[string, Partial<WeatherDay>, boolean]>([
    ['sunny', {}, false],
    ['with rain', { rainMm: 1 }, true],
    ['under cloud', { radiationMj: 12 }, true],
    ['humid at noon', { humidityMinPct: 65 }, true],
    ['of unknown sky', { radiationMj: null, humidityMinPct: null }, false],
    ['cloudy and hot', { rainMm: 1, tMaxC: 23 }, false],
    ['cloudy, with frost', { rainMm: 1, tMinC: 0 }, false],
  ])('%s: %s', (_what, change, expected) => {
    expect(isCoolCloudy(day(change))).toBe(expected);
  });
});

it('lays roots open on cool days alone, and leaves air tools to an arborist', () => {
  for (const remedy of [
    'cut_root',
    'stage_root_cuts',
    'examine_roots',
    'clear_to_flare',
    'lift_and_replant',
  ] as const) {
    expect(remedyWork[remedy].weather).toBe('cool_cloudy');
  }
  for (const work of Object.values(remedyWork)) {
    if (work.tools.includes('air_tool')) expect(work.hands).toBe('arborist');
  }
});
