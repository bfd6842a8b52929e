import { addDaysTo, type IsoDate, type WeatherDay } from '@sombra/core';
import { programmeToday } from '../src/programme/today';
import { insertWeather } from '../src/season/repository';
import { container, loam, openTestTown, planting, sending, Visitor, type TestTown } from './test-town';

export interface WaterTown {
  readonly town: TestTown;
  readonly cora: Visitor;
  readonly today: IsoDate;
  /** Planted so long ago that they ask for water by now. */
  readonly spots: readonly string[];
}

const weatherOn = (day: IsoDate, rainMm: number): WeatherDay => ({
  day,
  rainMm,
  tMinC: 16,
  tMaxC: 29,
  humidityMinPct: 45,
  humidityMaxPct: 80,
  windMs: 3,
  radiationMj: 22,
});
const since = 100;

/** A town of young trees after a dry hundred days, with ten days of forecast. */
export async function openWaterTown(trees = 3): Promise<WaterTown> {
  const town = await openTestTown();
  const cora = await Visitor.signedIn(town.url, 'cora');
  const today = await programmeToday(town.db);
  const days = Array.from({ length: since + 11 }, (_, i) =>
    weatherOn(addDaysTo(today, i - since), i % 12 === 0 ? 9 : 0),
  );
  await insertWeather(town.db, days.slice(0, since + 1), 'recorded');
  await insertWeather(town.db, days.slice(since + 1), 'forecast');
  const spots: string[] = [];
  for (let i = 0; i < trees; i++) {
    const { spotId } = await town.addSpot(`Q-000${i}`);
    await cora.record(sending(spotId, { kind: 'ground', facts: loam }, 1));
    await cora.record(sending(spotId, { kind: 'stock', facts: container }, 2));
    await cora.record(sending(spotId, planting(addDaysTo(today, -80 + i))));
    spots.push(spotId);
  }
  return { town, cora, today, spots };
}
