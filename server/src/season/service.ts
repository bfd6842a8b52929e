import type { Outlook, Season } from '@sombra/contract';
import { addDaysTo, addMonthsTo, mondayOf, seasonWeeks, windowSpans, type IsoDate } from '@sombra/core';
import type { Knex } from 'knex';
import { bandMarks, programmeSeason, weatherDays } from './repository';
import { programmeToday } from '../programme/today';

/** Years of weather read to tell what a week usually brings. */
const yearsBack = 6;

/** The weeks of the band: weather, planting windows and what is booked. */
export async function season(db: Knex, asked: { from: IsoDate; weeks: number }): Promise<Season> {
  const from = mondayOf(asked.from);
  const span = { from, to: addDaysTo(from, 7 * asked.weeks - 1) };
  const [{ station, windows }, weather, marks] = await Promise.all([
    programmeSeason(db),
    weatherDays(db, { from: addMonthsTo(from, -12 * yearsBack), to: span.to }),
    bandMarks(db, span),
  ]);
  return {
    weeks: seasonWeeks({ ...weather, station }, { from, weeks: asked.weeks }),
    windows: windowSpans(windows, span),
    marks,
  };
}

/** Days ahead for which a forecast is worth reading. */
const daysAhead = 16;

/** Windows and forecast, for judging whether a day is a time to plant. */
export async function outlook(db: Knex): Promise<Outlook> {
  const from = await programmeToday(db);
  const { windows } = await programmeSeason(db);
  const { forecast } = await weatherDays(db, { from, to: addDaysTo(from, daysAhead) });
  return { windows, forecast: forecast.map(({ day, tMinC, tMaxC, rainMm }) => ({ day, tMinC, tMaxC, rainMm })) };
}
