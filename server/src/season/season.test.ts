import type { Outlook, Season } from '@sombra/contract';
import { addDaysTo, mildWinterWindows, type WeatherDay } from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';
import { insertWeather } from './repository';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
const day = (on: string, rainMm: number): WeatherDay => ({
  day: on,
  rainMm,
  tMinC: 12,
  tMaxC: 20,
  humidityMinPct: null,
  humidityMaxPct: null,
  windMs: null,
  radiationMj: null,
});

beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  await town.db('programme').update({ planting_windows: JSON.stringify(mildWinterWindows) });
  const week = (from: string, rain: number) => Array.from({ length: 7 }, (_, i) => day(addDaysTo(from, i), rain));
  await insertWeather(town.db, [...week('2026-11-16', 2), ...week('2025-11-23', 6)], 'recorded');
  await insertWeather(town.db, [day('2026-11-23', 9)], 'forecast');
  await town.db('planting_day').insert({ id: uuidv7(), on_day: '2026-11-28', title: 'Mole Street' });
  await town
    .db('field_round')
    .insert({ id: uuidv7(), title: 'Round', from_day: '2026-11-10', until_day: '2026-11-20' });
});
afterAll(() => town.stop());

describe('the season', () => {
  it('tells recorded weeks, forecast weeks and what is booked', async () => {
    const { body } = await cora.send<Season>('GET', '/api/season?from=2026-11-18&weeks=2');
    expect(body.weeks.map(({ monday, source }) => [monday, source])).toEqual([
      ['2026-11-16', 'recorded'],
      ['2026-11-23', 'forecast'],
    ]);
    expect(body.weeks[0]?.rain.mm).toBeCloseTo(14, 9);
    // One day of forecast, and six sevenths of the 42 mm the same week brought a year before.
    expect(body.weeks[1]?.rain.mm).toBeCloseTo(9 + 36, 9);
    expect(body.marks.map(({ kind }) => kind)).toEqual(['planting_day', 'round']);
    expect(body.windows.map(({ stock }) => stock)).toEqual(['container', 'balled']);
  });

  it('hands out windows and the days forecast, from today on', async () => {
    const today = await programmeToday(town.db);
    await insertWeather(town.db, [day(addDaysTo(today, 2), 4)], 'forecast');
    const { body } = await cora.send<Outlook>('GET', '/api/season/outlook');
    expect(body.windows).toEqual(mildWinterWindows);
    expect(body.forecast).toContainEqual({ day: addDaysTo(today, 2), tMinC: 12, tMaxC: 20, rainMm: 4 });
    expect(body.forecast.every((one) => one.day >= today)).toBe(true);
  });

  it.each(['from=2026-11-18', 'from=x&weeks=3', 'from=2026-11-18&weeks=900'])('refuses %s', async (query) => {
    expect((await cora.send('GET', `/api/season?${query}`)).status).toBe(400);
  });
});
