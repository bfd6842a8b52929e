import { TZDate } from '@date-fns/tz';
import {
  addDaysTo,
  daysBetween,
  followWater,
  InvalidInputError,
  ofKind,
  sensorDay,
  standing,
  type FieldRecord,
  type IsoDate,
  type SensorDay,
  type ClimateDay,
} from '@sombra/core';
import type { Knex } from 'knex';
import type { MoistureSensor, SensorService } from '../adapters/sensors';
import { asActor, type Db } from '../platform/db';
import { keepDoing } from '../platform/keep-doing';
import { timeZone } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { recordsOfSpots } from '../record/repository';
import { checkpointsOf, lastNight, storedWater } from '../record/water-repository';
import { toldId } from '../record/told-id';
import { keepTold } from '../recording/service';
import { spotsByRef } from '../spots/repository';

/** Days are read so far back: what a sensor is judged by. */
const daysBack = 16;
const everyMs = 30 * 60_000;

const idOf = (sensorId: string, spotId: string, day: IsoDate): string => toldId(`sensor ${sensorId}/${spotId}`, day);

const daysOf = (records: readonly FieldRecord[], sensorId: string): SensorDay[] =>
  ofKind(standing(records), 'sensor')
    .map(({ facts }) => facts)
    .filter(({ sensor }) => sensor === sensorId)
    .map(({ readOn: day, share, values, flag }) => ({ day, share, values, flag }))
    .sort((a, b) => a.day.localeCompare(b.day));

/** What the balance says of a ball without its readings, day by day. */
async function expectedOf(
  db: Db,
  spotId: string,
  past: readonly ClimateDay[],
  from: IsoDate,
): Promise<Map<IsoDate, number>> {
  const stored = (await storedWater(db, [spotId])).get(spotId);
  const before = (await checkpointsOf(db, [spotId])).get(spotId)?.filter(({ day }) => day < from) ?? [];
  const at = before.at(-1);
  if (!stored || !at) return new Map();
  const { subject, given } = stored.inputs;
  const days = past.filter(({ day }) => day > at.day);
  return new Map(followWater(subject, at, days, { ...given, readings: [] }).days.map(({ day, share }) => [day, share]));
}

/**
 * Keeps what each sensor said of every day that is over, once: a day that is believed is a reading of its ball, one that is
 * not stands on record with why. A sensor of a tree that is not planted here is left out.
 */
export async function readSensors(db: Knex, service: SensorService): Promise<number> {
  const today = await programmeToday(db);
  const zone = await timeZone(db);
  const sensors = await service.sensors();
  const spots = new Map(
    (
      await spotsByRef(
        db,
        sensors.map(({ ref }) => ref),
      )
    ).map((spot) => [spot.ref, spot]),
  );
  const past = (await lastNight(db))?.past ?? [];
  let kept = 0;
  for (const sensor of sensors) {
    const spot = spots.get(sensor.ref);
    if (!spot) continue;
    try {
      kept += await readSensor(db, service, { sensor, spotId: spot.id, past, today, zone });
    } catch (error) {
      // Its tree went meanwhile: that stops no other sensor.
      if (!(error instanceof InvalidInputError)) throw error;
    }
  }
  return kept;
}

async function readSensor(
  db: Knex,
  service: SensorService,
  of: { sensor: MoistureSensor; spotId: string; past: readonly ClimateDay[]; today: IsoDate; zone: string },
): Promise<number> {
  const { sensor, spotId, past, today, zone } = of;
  const records = (await recordsOfSpots(db, [spotId])).get(spotId) ?? [];
  const plantedOn = ofKind(standing(records), 'planting').at(-1)?.facts.plantedOn;
  if (!plantedOn) return 0;
  const known = new Set(ofKind(records, 'sensor').map(({ id }) => id));
  const span = Array.from({ length: daysBack }, (_, i) => addDaysTo(today, i - daysBack));
  const missing = span.filter((day) => day > plantedOn && !known.has(idOf(sensor.id, spotId, day)));
  const [first, last] = [missing[0], missing.at(-1)];
  if (first === undefined || last === undefined) return 0;
  const midnight = (day: IsoDate): Date => new Date(new TZDate(`${day}T00:00:00`, zone).getTime());
  const values = await service.values(sensor.id, midnight(first), midnight(addDaysTo(last, 1)));
  const expected = await expectedOf(db, spotId, past, addDaysTo(today, -daysBack));
  const before = daysOf(records, sensor.id);
  for (const day of missing) {
    const [from, until] = [midnight(day).getTime(), midnight(addDaysTo(day, 1)).getTime()];
    const ofDay = values.filter(({ at }) => Date.parse(at) >= from && Date.parse(at) < until);
    const judged = sensorDay(
      day,
      ofDay,
      before.filter((one) => daysBetween(one.day, day) > 0),
      expected,
    );
    before.push(judged);
    const { share, values: count, flag } = judged;
    const facts = { readOn: day, sensor: sensor.id, share, values: count, flag };
    await asActor(db, `sensor ${sensor.id}`, (trx) =>
      keepTold(trx, {
        spotId,
        by: `sensor ${sensor.id}`,
        recordId: idOf(sensor.id, spotId, day),
        told: { kind: 'sensor', facts },
      }),
    );
  }
  return missing.length;
}

/** Reads sensors in the background until stopped. */
export const keepReadingSensors = (
  db: Knex,
  service: SensorService,
  onError: (error: unknown) => void,
): (() => Promise<void>) => keepDoing(() => readSensors(db, service), { everyMs, atOnce: true, onError });
