import type { Knex } from 'knex';
import type { WeatherService } from '../adapters/weather';
import { oneAtATime } from '../platform/db';
import { keepDoing } from '../platform/keep-doing';
import { timeZone } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { keepDays, keepHours, keepProblem, keepStation, readAt } from './repository';

const hourMs = 3_600_000;
/** Read so long back, for hours the server slept through, and so far ahead. */
const [backH, aheadH] = [72, 240];
const staleMs = hourMs;

/** Reads every station where the last reading is an hour old; several servers may try, one does. */
export async function readWeather(db: Knex, service: WeatherService, now: Date): Promise<void> {
  const last = await readAt(db);
  if (last && now.getTime() - last.getTime() < staleMs) return;
  try {
    // Asked before anything is held in the database.
    const stations = await service.stations();
    const from = new Date(now.getTime() - backH * hourMs);
    const read = await Promise.all(
      stations.map(async (station) => ({ station, hours: await service.hours(station.id, from, backH + aheadH) })),
    );
    await db.transaction(async (trx) => {
      await oneAtATime(trx, 'weather');
      for (const { station, hours } of read) {
        await keepStation(trx, station);
        await keepHours(
          trx,
          station.id,
          hours.filter((hour) => hour.source === 'forecast' || Date.parse(hour.at) <= now.getTime()),
        );
      }
      await keepDays(trx, { today: await programmeToday(trx), timeZone: await timeZone(trx) });
    });
  } catch (error) {
    await keepProblem(db, 'the weather service is not reached, or answers with what is no weather');
    throw error;
  }
}

/** Reads in the background until stopped; a service that is away is asked again. */
export function keepReading(
  db: Knex,
  service: WeatherService,
  onError: (error: unknown) => void,
  everyMs = 60_000,
): () => Promise<void> {
  // At once, so that nobody waits a minute for the first forecast.
  return keepDoing(() => readWeather(db, service, new Date()), { everyMs, atOnce: true, onError });
}
