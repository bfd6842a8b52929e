import { addDaysTo, daysBetween, type IsoDate } from '../calendar';
import type { WeatherDay } from './reference-et';

type Measured = Exclude<keyof WeatherDay, 'day'>;

interface Column {
  readonly of: Measured;
  readonly unit: string;
  readonly metric: (value: number) => number;
}

const same = (value: number): number => value;
/** Columns by name: each says its unit, so that none is guessed. */
const columns: Readonly<Record<string, Column>> = {
  rain_mm: { of: 'rainMm', unit: 'mm', metric: same },
  rain_in: { of: 'rainMm', unit: 'in', metric: (value) => value * 25.4 },
  t_min_c: { of: 'tMinC', unit: '°C', metric: same },
  t_min_f: { of: 'tMinC', unit: '°F', metric: (value) => ((value - 32) * 5) / 9 },
  t_max_c: { of: 'tMaxC', unit: '°C', metric: same },
  t_max_f: { of: 'tMaxC', unit: '°F', metric: (value) => ((value - 32) * 5) / 9 },
  humidity_min_pct: { of: 'humidityMinPct', unit: '%', metric: same },
  humidity_max_pct: { of: 'humidityMaxPct', unit: '%', metric: same },
  wind_ms: { of: 'windMs', unit: 'm/s', metric: same },
  wind_kmh: { of: 'windMs', unit: 'km/h', metric: (value) => value / 3.6 },
  wind_mph: { of: 'windMs', unit: 'mph', metric: (value) => value * 0.44704 },
  radiation_mj: { of: 'radiationMj', unit: 'MJ/m² a day', metric: same },
  radiation_wm2: { of: 'radiationMj', unit: 'W/m²', metric: (value) => value * 0.0864 },
};
const needed: readonly Measured[] = ['rainMm', 'tMinC', 'tMaxC'];
const names = Object.keys(columns);
const namesOf = (of: Measured): string[] => names.filter((name) => columns[name]?.of === of);

/** What weather may be, in metric units; what lies outside is no weather. */
const possible: Readonly<Record<Measured, readonly [min: number, max: number, unit: string]>> = {
  rainMm: [0, 1500, 'mm'],
  tMinC: [-60, 60, '°C'],
  tMaxC: [-60, 60, '°C'],
  humidityMinPct: [0, 100, '%'],
  humidityMaxPct: [0, 100, '%'],
  windMs: [0, 80, 'm/s'],
  radiationMj: [0, 46, 'MJ/m²'],
};
/** What hardly ever happens: asked about before it is believed. */
const usual: Readonly<Partial<Record<Measured, readonly [min: number, max: number]>>> = {
  rainMm: [0, 300],
  tMinC: [-35, 32],
  tMaxC: [-30, 48],
  windMs: [0, 25],
};
/** Between night and day of one date. °C */
const widestSpanC = 32;

export interface ColumnFault {
  readonly column: string;
  readonly message: string;
}

/** What is wrong with the columns of a weather file: one that is missing, said twice, or without a unit we know. */
export function weatherColumnFaults(found: readonly string[]): ColumnFault[] {
  const faults: ColumnFault[] = [];
  if (!found.includes('day')) faults.push({ column: 'day', message: 'is missing: one row a day, as 2026-07-31' });
  for (const of of Object.keys(possible) as Measured[]) {
    const known = namesOf(of);
    const here = known.filter((name) => found.includes(name));
    const [first, second] = here;
    if (first && second)
      faults.push({ column: second, message: `says again what ${first} says; one of the two has to go` });
    if (here.length > 0) continue;
    const stem = (known[0] ?? '').replace(/_[a-z0-9]+$/, '');
    const unknown = found.find((name) => name === stem || name.startsWith(`${stem}_`));
    const choices = known.map((name) => `${name} (${columns[name]?.unit})`).join(' or ');
    if (unknown) faults.push({ column: unknown, message: `does not say a unit we know: name it ${choices}` });
    else if (needed.includes(of)) faults.push({ column: stem, message: `is missing: name it ${choices}` });
  }
  return faults;
}

export type WeatherRow =
  | { readonly ok: true; readonly value: WeatherDay; readonly questions: readonly ColumnFault[] }
  | { readonly ok: false; readonly faults: readonly ColumnFault[] };

const isoDay = /^\d{4}-\d{2}-\d{2}$/;

/** Reads one row of a weather file whose columns are sound. @param today where the programme is: no day after it was measured */
export function readWeatherRow(cells: Readonly<Partial<Record<string, string>>>, today: IsoDate): WeatherRow {
  const faults: ColumnFault[] = [];
  const questions: ColumnFault[] = [];
  const day = (cells['day'] ?? '').trim();
  const isDay = isoDay.test(day) && !Number.isNaN(Date.parse(day));
  if (!isDay) faults.push({ column: 'day', message: `must be a date as 2026-07-31, got ${day || 'nothing'}` });
  else if (day > today) faults.push({ column: 'day', message: `must not be after today, ${today}, got ${day}` });
  const read: Partial<Record<Measured, number | null>> = {};
  for (const name of names) {
    const column = columns[name];
    if (!column || !(name in cells)) continue;
    const text = (cells[name] ?? '').trim();
    if (text === '' && !needed.includes(column.of)) {
      read[column.of] = null;
      continue;
    }
    const typed = text === '' ? NaN : Number(text.replace(',', '.'));
    const value = column.metric(typed);
    const [min, max, unit] = possible[column.of];
    if (!(value >= min && value <= max)) {
      faults.push({ column: name, message: `must be within ${min} to ${max} ${unit}, got ${text || 'nothing'}` });
      continue;
    }
    read[column.of] = value;
    const [least, most] = usual[column.of] ?? [min, max];
    if (value < least || value > most) {
      questions.push({ column: name, message: `${text} ${column.unit} on ${day} hardly ever happens` });
    }
  }
  const { rainMm, tMinC = null, tMaxC = null } = read;
  if (tMinC !== null && tMaxC !== null) {
    if (tMinC > tMaxC)
      faults.push({
        column: 't_min',
        message: `must not be above the day's highest, got ${tMinC.toFixed(1)} over ${tMaxC.toFixed(1)} °C`,
      });
    else if (tMaxC - tMinC > widestSpanC) {
      questions.push({
        column: 't_max',
        message: `${(tMaxC - tMinC).toFixed(0)} °C between night and day on ${day} hardly ever happens`,
      });
    }
  }
  if (faults.length > 0 || tMinC === null || tMaxC === null) return { ok: false, faults };
  const value: WeatherDay = {
    day,
    rainMm: rainMm ?? 0,
    tMinC,
    tMaxC,
    humidityMinPct: read.humidityMinPct ?? null,
    humidityMaxPct: read.humidityMaxPct ?? null,
    windMs: read.windMs ?? null,
    radiationMj: read.radiationMj ?? null,
  };
  return { ok: true, value, questions };
}

export interface DaySpan {
  readonly from: IsoDate;
  readonly to: IsoDate;
  readonly days: number;
}

/** Days between the first and the last of these of which nothing is known. */
export function weatherGaps(days: readonly IsoDate[]): DaySpan[] {
  const sorted = [...new Set(days)].sort();
  return sorted.slice(1).flatMap((day, i) => {
    const before = sorted[i] ?? day;
    const missing = daysBetween(before, day) - 1;
    return missing > 0 ? [{ from: addDaysTo(before, 1), to: addDaysTo(day, -1), days: missing }] : [];
  });
}

/** A dry spell: so many days with less than so much rain each. A heat wave: so many days so far above their month. */
const dry = { days: 10, mm: 1 } as const;
const heat = { days: 3, overC: 5 } as const;

export interface Spell extends DaySpan {
  readonly kind: 'dry' | 'heat' | 'frost';
  /** Of a heat wave, its highest; of frost, its lowest. °C */
  readonly extremeC: number | null;
}

/** Dry spells of ten days and more, heat waves of three days five degrees over their month's mean, and nights of frost. */
export function weatherSpells(days: readonly WeatherDay[]): Spell[] {
  const months = new Map<string, { sum: number; n: number }>();
  for (const { day, tMaxC } of days) {
    const month = months.get(day.slice(5, 7)) ?? { sum: 0, n: 0 };
    months.set(day.slice(5, 7), { sum: month.sum + tMaxC, n: month.n + 1 });
  }
  const meanOf = (day: IsoDate): number => {
    const { sum, n } = months.get(day.slice(5, 7)) ?? { sum: 0, n: 1 };
    return sum / n;
  };
  const isHot = ({ day, tMaxC }: WeatherDay): boolean => tMaxC >= meanOf(day) + heat.overC;
  return [
    ...runs(days, ({ rainMm }) => rainMm < dry.mm, dry.days).map((run) => spell('dry', run)),
    ...runs(days, isHot, heat.days).map((run) => spell('heat', run)),
    ...runs(days, ({ tMinC }) => tMinC < 0, 1).map((run) => spell('frost', run)),
  ].sort((a, b) => a.from.localeCompare(b.from));
}

function runs(days: readonly WeatherDay[], holds: (day: WeatherDay) => boolean, least: number): WeatherDay[][] {
  const all: WeatherDay[][] = [];
  let open: WeatherDay[] = [];
  const close = (): void => {
    if (open.length >= least) all.push(open);
    open = [];
  };
  for (const day of days) {
    const last = open.at(-1);
    // A day that is missing ends a run: nobody knows what it was like.
    if (!holds(day) || (last && addDaysTo(last.day, 1) !== day.day)) close();
    if (holds(day)) open.push(day);
  }
  close();
  return all;
}

function spell(kind: Spell['kind'], run: readonly WeatherDay[]): Spell {
  const [from, to] = [run[0]?.day ?? '', run.at(-1)?.day ?? ''];
  const extremes = {
    dry: null,
    heat: Math.max(...run.map(({ tMaxC }) => tMaxC)),
    frost: Math.min(...run.map(({ tMinC }) => tMinC)),
  };
  return { kind, from, to, days: run.length, extremeC: extremes[kind] };
}
