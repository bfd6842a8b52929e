import type { RainGauge, User, WeatherReport } from '@sombra/contract';
import {
  addDaysTo,
  InvalidInputError,
  NotFoundError,
  readWeatherRow,
  weatherColumnFaults,
  weatherGaps,
  type ColumnFault,
  type WeatherDay,
} from '@sombra/core';
import type { Knex } from 'knex';
import { asActor } from '../platform/db';
import { openCsv, readEach, refuseDuplicates } from '../platform/csv-rows';
import { programmeToday } from '../programme/today';
import { keepMeasured, keepRain, weatherDays } from '../season/repository';

/** Gaps are told of so far back. Days */
const gapsBack = 730;

/**
 * Takes measured days out of a file, all or none: columns that do not say their unit, rows that are no weather and days
 * that have not been are refused; what hardly ever happens is asked about first.
 * @throws InvalidInputError, path `file`, for columns that are missing or do not say a unit we know
 */
export async function importWeather(
  db: Knex,
  user: User,
  { bytes, confirmed }: { readonly bytes: Uint8Array; readonly confirmed: boolean },
): Promise<WeatherReport> {
  const today = await programmeToday(db);
  const { rows, columns } = openCsv(bytes);
  const [fault, ...more] = weatherColumnFaults(columns);
  if (fault) {
    const words = [fault, ...more].map(({ column, message }) => `${column} ${message}`).join('; ');
    throw new InvalidInputError(`the columns are not sound: ${words}`, 'file', { title: `Columns: ${words}` });
  }
  const asked: (ColumnFault & { readonly row: number })[] = [];
  const read = refuseDuplicates(
    readEach<WeatherDay>(rows, (cells, row) => {
      const found = readWeatherRow(cells, today);
      if (found.ok) asked.push(...found.questions.map((question) => ({ row, ...question })));
      return found.ok ? { ok: true, value: found.value } : { ok: false, faults: [...found.faults] };
    }),
    'day',
    ({ day }) => day,
  );
  const days = read.good.map(({ value }) => value);
  const stored = read.issues.length === 0 && (confirmed || asked.length === 0) && days.length > 0;
  const written = stored ? await asActor(db, user.name, (trx) => keepMeasured(trx, days)) : 0;
  const known = await weatherDays(db, { from: addDaysTo(today, -gapsBack), to: today });
  return {
    stored,
    written,
    same: stored ? days.length - written : 0,
    issues: [...read.issues],
    questions: stored ? [] : asked,
    gaps: weatherGaps([...known.recorded, ...(stored ? [] : days)].map(({ day }) => day)),
  };
}

/** The rain of a day as a gauge says it. @throws InvalidInputError for a day to come; NotFoundError where the day is not on record */
export async function readGauge(db: Knex, user: User, { day, rainMm }: RainGauge): Promise<void> {
  const today = await programmeToday(db);
  if (day > today) throw new InvalidInputError(`day must not be after today, ${today}, got ${day}`, 'day');
  const kept = await asActor(db, user.name, (trx) => keepRain(trx, day, rainMm));
  if (!kept) {
    throw new NotFoundError('no weather of that day', 'day', {
      title: 'No temperatures of that day are known: read a weather file first',
    });
  }
}
