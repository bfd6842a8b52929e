import type { WaterBasis, WaterFilter, WaterList, WaterListQuery } from '@sombra/contract';
import { addDaysTo } from '@sombra/core';
import type { Knex } from 'knex';
import { speciesLibrary } from '../match/repository';
import { csvRow } from '../platform/csv';
import { currentRules } from '../rules/repository';
import { programmeToday } from '../programme/today';
import { dueCount, lastNight } from '../record/water-repository';
import { programmeSeason, weatherDays } from '../season/repository';
import { unreadCount, waterByDay, waterCounts, waterLines, waterPlaces } from './repository';

/** A year, so that what is ahead of the forecast is as it was, and the weeks a tree was planted before. */
const daysBack = 430;
const daysAhead = 16;

/** Weather and species as the water of trees is worked out from them, on a device too. */
export async function waterBasis(db: Knex): Promise<WaterBasis> {
  const today = await programmeToday(db);
  const { station } = await programmeSeason(db);
  const weather = await weatherDays(db, { from: addDaysTo(today, -daysBack), to: addDaysTo(today, daysAhead) });
  const { watering } = await currentRules(db);
  return { watering, station, ...weather, species: await speciesLibrary(db) };
}

/** Who asks for water by when, the most urgent first, as of the last night that was worked out. */
export async function waterList(db: Knex, query: WaterListQuery): Promise<WaterList> {
  const today = await programmeToday(db);
  const asked = { ...query, today };
  const [night, waiting, { counts, total, litres }, unread, places, days, lines] = await Promise.all([
    lastNight(db),
    dueCount(db),
    waterCounts(db, asked),
    unreadCount(db, asked),
    waterPlaces(db, asked),
    waterByDay(db, asked),
    waterLines(db, asked),
  ]);
  return {
    day: night?.past.at(-1)?.day ?? null,
    forecastUntil: night?.forecastUntil ?? null,
    workedAt: night?.endedAt ?? null,
    waiting,
    counts,
    unread,
    litres,
    total,
    places,
    days,
    lines,
  };
}

const page = 2000;

/** The same list as a file: dates ISO, litres and shares as numbers. RFC 4180. */
export async function* waterCsv(db: Knex, filter: WaterFilter): AsyncGenerator<string> {
  const today = await programmeToday(db);
  yield csvRow([
    'ref',
    'place',
    'species',
    'planted_on',
    'ball_share',
    'ball_share_error',
    'next',
    'next_on',
    'litres',
    'stress_days',
    'waterlogged_days',
    'felt_on',
    'lng',
    'lat',
  ]);
  for (let offset = 0; ; offset += page) {
    const lines = await waterLines(db, { ...filter, today, offset, limit: page });
    for (const {
      ref,
      place,
      species,
      plantedOn,
      share,
      errorShare,
      next,
      stressDays,
      waterloggedDays,
      readOn,
      position,
    } of lines) {
      const [on, litres] = next.kind === 'water' ? [next.on, next.litres.toFixed(1)] : ['', ''];
      const shares = [share.toFixed(3), errorShare.toFixed(3)];
      const days = [String(stressDays), String(waterloggedDays), readOn ?? ''];
      yield csvRow([ref, place, species ?? '', plantedOn, ...shares, next.kind, on, litres, ...days, ...position]);
    }
    if (lines.length < page) return;
  }
}
