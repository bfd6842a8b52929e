import type { DroughtWatch, WaterBasis, WaterFilter, WaterList, WaterListQuery } from '@sombra/contract';
import { addDaysTo, droughtOf, grades, useOf, type Grade } from '@sombra/core';
import type { Knex } from 'knex';
import { speciesLibrary } from '../match/repository';
import { csvRow } from '../platform/csv';
import type { Db } from '../platform/db';
import { currentRules } from '../rules/repository';
import { programmeToday } from '../programme/today';
import { dueCount, lastNight } from '../record/water-repository';
import { programmeSeason, weatherDays } from '../season/repository';
import { establishedBySpecies, unreadCount, waterByDay, waterCounts, waterLines, waterPlaces } from './repository';

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

/** Of the library, what a species asks for; one that is not known there is taken for middling. */
export const useBySpecies = async (db: Db): Promise<Map<string, Grade>> =>
  new Map((await speciesLibrary(db)).map(({ botanical, waterUse }) => [botanical, waterUse]));

/** How dry it is for trees that are established, by how thirsty they are, and how many of each there are. */
export async function droughtWatch(db: Db): Promise<DroughtWatch> {
  const night = await lastNight(db);
  const use = await useBySpecies(db);
  const counts: Record<Grade, number> = { low: 0, medium: 0, high: 0 };
  for (const { species, trees } of await establishedBySpecies(db, await programmeToday(db)))
    counts[use.get(species ?? '') ?? 'medium'] += trees;
  const past = night?.past ?? [];
  return {
    day: past.at(-1)?.day ?? null,
    grades: grades.map((grade) => ({ use: grade, ...droughtOf(past, useOf[grade]), trees: counts[grade] })),
  };
}
