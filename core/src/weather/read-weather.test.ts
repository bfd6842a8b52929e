import { addDaysTo } from '../calendar';
import { readWeatherRow, weatherColumnFaults, weatherGaps, weatherSpells, type WeatherDay } from '.';

const today = '2026-08-15';
const row = (cells: Record<string, string>) =>
  readWeatherRow({ day: '2026-08-01', rain_mm: '0', t_min_c: '16', t_max_c: '29', ...cells }, today);

describe('the columns of a weather file', () => {
  it.each([
    ['metric', ['day', 'rain_mm', 't_min_c', 't_max_c'], []],
    [
      'inches and Fahrenheit, with the rest',
      ['day', 'rain_in', 't_min_f', 't_max_f', 'humidity_min_pct', 'humidity_max_pct', 'wind_mph', 'radiation_wm2'],
      [],
    ],
    ['other columns beside', ['day', 'rain_mm', 't_min_c', 't_max_c', 'note'], []],
  ])('are sound: %s', (_name, found, faults) => {
    expect(weatherColumnFaults(found)).toEqual(faults);
  });

  it.each([
    ['no unit', ['day', 'rain', 't_min_c', 't_max_c'], 'rain', /name it rain_mm \(mm\) or rain_in \(in\)/],
    ['rain in feet', ['day', 'rain_ft', 't_min_c', 't_max_c'], 'rain_ft', /unit we know/],
    [
      'a temperature without a unit',
      ['day', 'rain_mm', 't_min', 't_max_c'],
      't_min',
      /t_min_c \(°C\) or t_min_f \(°F\)/,
    ],
    ['no day', ['rain_mm', 't_min_c', 't_max_c'], 'day', /is missing/],
    ['no highest', ['day', 'rain_mm', 't_min_c'], 't_max', /is missing/],
    ['rain twice', ['day', 'rain_mm', 'rain_in', 't_min_c', 't_max_c'], 'rain_in', /again what rain_mm says/],
  ])('are refused with %s', (_name, found, column, message) => {
    const [fault, ...more] = weatherColumnFaults(found);
    expect([fault?.column, more]).toEqual([column, []]);
    expect(fault?.message).toMatch(message);
  });
});

describe('a row of weather', () => {
  it('is read in the units it names', () => {
    const read = readWeatherRow(
      { day: '2026-08-01', rain_in: '1', t_min_f: '50', t_max_f: '86', wind_kmh: '36', radiation_wm2: '200' },
      today,
    );
    if (!read.ok) throw new Error('refused');
    expect(read.value.rainMm).toBeCloseTo(25.4, 9);
    expect([read.value.tMinC, read.value.tMaxC]).toEqual([10, 30]);
    expect(read.value.windMs).toBeCloseTo(10, 9);
    expect(read.value.radiationMj).toBeCloseTo(17.28, 9);
    expect(read.questions).toEqual([]);
  });

  it('leaves open what was not measured, and takes a comma', () => {
    const read = row({ rain_mm: '2,5', humidity_min_pct: '' });
    expect(read).toMatchObject({ ok: true, value: { rainMm: 2.5, humidityMinPct: null, windMs: null } });
  });

  it.each([
    ['tomorrow', { day: '2026-08-16' }, 'day'],
    ['a date of another order', { day: '01/08/2026' }, 'day'],
    ['the thirty-first of no month', { day: '2026-13-31' }, 'day'],
    ['no rain said', { rain_mm: '' }, 'rain_mm'],
    ['rain below nothing', { rain_mm: '-1' }, 'rain_mm'],
    ['words', { t_max_c: 'warm' }, 't_max_c'],
    ['a night hotter than the day', { t_min_c: '31' }, 't_min'],
    ['86 degrees Celsius', { t_max_c: '86' }, 't_max_c'],
    ['humidity of 120 %', { humidity_max_pct: '120' }, 'humidity_max_pct'],
  ])('is refused: %s', (_name, cells, column) => {
    const read = row(cells);
    expect(read.ok ? [] : read.faults.map((fault) => fault.column)).toContain(column);
  });

  it.each([
    ['900 mm in a day', { rain_mm: '900' }, 'rain_mm'],
    ['51 °C', { t_max_c: '51' }, 't_max_c'],
    ['40 °C between night and day', { t_min_c: '2', t_max_c: '42' }, 't_max'],
  ])('is asked about: %s', (_name, cells, column) => {
    const read = row(cells);
    expect(read.ok && read.questions.map((one) => one.column)).toContain(column);
  });
});

describe('what is missing, and what stood out', () => {
  const july = Array.from({ length: 31 }, (_, i) => addDaysTo('2026-06-15', i)).filter((day) => day < '2026-07-01');
  it('a month without a row is a gap of its days', () => {
    expect(weatherGaps([...july, '2026-08-01', '2026-08-02'])).toEqual([
      { from: '2026-07-01', to: '2026-07-31', days: 31 },
    ]);
    expect(weatherGaps(['2026-08-01'])).toEqual([]);
  });

  const day = (i: number, change: Partial<WeatherDay> = {}): WeatherDay => ({
    day: addDaysTo('2026-06-01', i),
    rainMm: 5,
    tMinC: 12,
    tMaxC: 24,
    humidityMinPct: null,
    humidityMaxPct: null,
    windMs: null,
    radiationMj: null,
    ...change,
  });
  it('ten dry days are a spell, nine are none, and a missing day ends one', () => {
    const dry = (count: number) => Array.from({ length: count }, (_, i) => day(i, { rainMm: 0.4 }));
    expect(weatherSpells([...dry(10), day(10)])).toMatchObject([{ kind: 'dry', from: '2026-06-01', days: 10 }]);
    expect(weatherSpells([...dry(9), day(9)])).toEqual([]);
    expect(weatherSpells(dry(12).filter((_day, i) => i !== 6))).toEqual([]);
  });
  it('three days five degrees over their month are a heat wave; a cold night is frost', () => {
    const month = Array.from({ length: 30 }, (_, i) => day(i, i >= 10 && i < 13 ? { tMaxC: 33 } : {}));
    expect(weatherSpells(month)).toMatchObject([
      { kind: 'heat', from: '2026-06-11', to: '2026-06-13', days: 3, extremeC: 33 },
    ]);
    expect(weatherSpells([day(0, { tMinC: -2 })])).toMatchObject([{ kind: 'frost', extremeC: -2 }]);
  });
});
