import type { WeatherReport } from '@sombra/contract';
import { addDaysTo, type IsoDate } from '@sombra/core';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
let today: IsoDate;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  today = await programmeToday(town.db);
});
afterAll(() => town.stop());

const header = 'day,rain_mm,t_min_c,t_max_c';
const line = (ago: number, rest = '0,12,24') => `${addDaysTo(today, -ago)},${rest}`;
const send = async (lines: readonly string[] | Uint8Array, confirmed = 'no', first = header) => {
  const { cookie, token } = cora.credentials();
  const response = await fetch(`${town.url}/api/water/weather?confirmed=${confirmed}`, {
    method: 'POST',
    headers: { cookie, 'x-csrf-token': token, 'content-type': 'text/csv' },
    body: lines instanceof Uint8Array ? (lines as BodyInit) : [first, ...lines].join('\n'),
  });
  return {
    status: response.status,
    body: (await response.json()) as WeatherReport & { issues: { path: string }[]; title: string },
  };
};
const kept = async (): Promise<number> =>
  Number((await town.db('weather_day').count<{ count: number }[]>('* as count'))[0]?.count);

it('takes measured days, once, and tells what is missing between them', async () => {
  const lines = [line(20), line(19), line(10), line(9)];
  expect((await send(lines)).body).toMatchObject({
    stored: true,
    written: 4,
    same: 0,
    gaps: [{ from: addDaysTo(today, -18), to: addDaysTo(today, -11), days: 8 }],
  });
  expect((await send(lines)).body).toMatchObject({ stored: true, written: 0, same: 4 });
  const { body } = await send([line(20, '3,12,24')]);
  expect(body).toMatchObject({ written: 1 });
  expect(await kept()).toBe(4);
});

it('asks about a day of 900 mm before it is believed', async () => {
  const before = await kept();
  const first = await send([line(5, '900,12,24'), line(4)]);
  expect(first.body).toMatchObject({ stored: false, questions: [{ row: 2, column: 'rain_mm' }] });
  expect(await kept()).toBe(before);
  expect((await send([line(5, '900,12,24'), line(4)], 'yes')).body).toMatchObject({
    stored: true,
    written: 2,
    questions: [],
  });
});

it('reads inches and Fahrenheit where the columns say so, and nothing where they do not', async () => {
  expect((await send([line(30, '1,50,86')], 'no', 'day,rain_in,t_min_f,t_max_f')).body.stored).toBe(true);
  const row = (await town
    .db('weather_day')
    .where({ day: addDaysTo(today, -30) })
    .first()) as { rain_mm: number; t_max_c: number };
  expect(row.rain_mm).toBeCloseTo(25.4, 9);
  expect(row.t_max_c).toBeCloseTo(30, 9);
  const refused = await send([line(31)], 'no', 'day,rain_ft,t_min,t_max');
  expect(refused.status).toBe(400);
  expect(refused.body.title).toMatch(/rain_ft .*t_min .*t_max /);
});

it.each([
  ['a station that reports tomorrow', () => [line(-1)], 'day'],
  ['a day said twice', () => [line(40), line(40, '5,10,20')], 'day'],
  ['a night hotter than its day', () => [line(40, '0,30,20')], 't_min'],
])('refuses a file whole for %s', async (_name, lines, column) => {
  const before = await kept();
  const { body } = await send([line(41), ...lines()]);
  expect(body).toMatchObject({ stored: false, written: 0, issues: [{ column }] });
  expect(await kept()).toBe(before);
});

it('bytes that are no text are refused, and an empty file', async () => {
  expect((await send(['\u0000"'])).body).toMatchObject({ stored: false, written: 0 });
  expect((await send(new Uint8Array([0xff, 0xfe, 0x00]))).status).toBe(400);
  expect((await send([])).body.stored).toBe(false);
});

it('a gauge says the rain of a day that is on record, and of no other', async () => {
  const day = addDaysTo(today, -10);
  expect((await cora.send('PUT', '/api/water/gauge', { day, rainMm: 17.5 })).status).toBe(204);
  expect(await town.db('weather_day').where({ day }).first('rain_mm')).toEqual({ rain_mm: 17.5 });
  expect((await cora.send('PUT', '/api/water/gauge', { day: addDaysTo(today, -300), rainMm: 1 })).status).toBe(404);
  expect((await cora.send('PUT', '/api/water/gauge', { day: addDaysTo(today, 1), rainMm: 1 })).status).toBe(400);
  expect((await cora.send('PUT', '/api/water/gauge', { day, rainMm: -1 })).status).toBe(400);
});
