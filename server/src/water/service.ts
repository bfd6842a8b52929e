import type { WaterBasis } from '@sombra/contract';
import { addDaysTo } from '@sombra/core';
import type { Knex } from 'knex';
import { speciesLibrary } from '../match/repository';
import { programmeToday } from '../programme/today';
import { programmeSeason, weatherDays } from '../season/repository';

/** A year, so that what is ahead of the forecast is as it was, and the weeks a tree was planted before. */
const daysBack = 430;
const daysAhead = 16;

/** Weather and species as the water of trees is worked out from them, on a device too. */
export async function waterBasis(db: Knex): Promise<WaterBasis> {
  const today = await programmeToday(db);
  const { station } = await programmeSeason(db);
  const weather = await weatherDays(db, { from: addDaysTo(today, -daysBack), to: addDaysTo(today, daysAhead) });
  return { station, ...weather, species: await speciesLibrary(db) };
}
