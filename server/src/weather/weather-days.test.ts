import { addDaysTo, type IsoDate } from '@sombra/core';
import { openTestTown, type TestTown } from '../../testing/test-town';
import { programmeToday } from '../programme/today';
import { keepDays, keepHours, keepStation } from './repository';

let town: TestTown;
let today: IsoDate;
beforeAll(async () => {
  town = await openTestTown();
  today = await programmeToday(town.db);
});
afterAll(() => town.stop());

const dayOf = async (day: IsoDate) =>
  town.db('weather_day').where({ day }).first<{ rain_mm: string; t_max_c: string; humidity_max_pct: string }>();
/** A day of even rain, at one temperature. */
const hours = (day: IsoDate, rainMm: number, temperatureC: number, humidityPct: number) =>
  Array.from({ length: 24 }, (_, hour) => ({
    at: `${day}T${String(hour).padStart(2, '0')}:00:00Z`,
    source: 'recorded' as const,
    rainMm: rainMm / 24,
    temperatureC,
    humidityPct,
    gustMs: 3,
    thunderKm: null,
    soilC: null,
  }));

it('a day is the mean of the stations by the square of their distance from the middle of the spots', async () => {
  await town.addSpot('Q-0800');
  const middle = await town
    .db('spot')
    .first<{ lng: number; lat: number }>(town.db.raw('avg(st_x(position)) as lng, avg(st_y(position)) as lat'));
  const north = (km: number): [number, number] => [middle?.lng ?? 0, (middle?.lat ?? 0) + km / 111.2];
  const yesterday = addDaysTo(today, -1);
  await keepStation(town.db, { id: 'near', name: 'Near', position: north(2) });
  await keepStation(town.db, { id: 'far', name: 'Far', position: north(-6) });
  await keepHours(town.db, 'near', hours(yesterday, 10, 20, 60));
  await keepDays(town.db, { today, timeZone: 'UTC' });
  expect(Number((await dayOf(yesterday))?.rain_mm)).toBeCloseTo(10, 1);

  // At 2 and 6 km the near one weighs nine times as much.
  await town.db('weather_day').where({ day: yesterday }).update({ source: 'forecast' });
  await keepHours(town.db, 'far', hours(yesterday, 40, 30, 80));
  await keepDays(town.db, { today, timeZone: 'UTC' });
  const both = await dayOf(yesterday);
  expect(Number(both?.rain_mm)).toBeCloseTo(13, 1);
  expect(Number(both?.t_max_c)).toBeCloseTo(21, 1);
  expect(Number(both?.humidity_max_pct)).toBe(62);
});
