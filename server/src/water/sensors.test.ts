import { spotDetailSchema } from '@sombra/contract';
import { addDaysTo, type IsoDate, type SensorFacts } from '@sombra/core';
import type { SensorService } from '../adapters/sensors';
import { Visitor, type TestTown } from '../../testing/test-town';
import { openWaterTown } from '../../testing/water-town';
import { followTrees } from './follow-service';
import { readSensors } from './sensors-service';

let town: TestTown;
let today: IsoDate;
let spots: readonly string[];
beforeAll(async () => {
  ({ town, today, spots } = await openWaterTown(3));
  await followTrees(town.db);
});
afterAll(() => town.stop());

/** Values by the hour, as `shareOf` says by how many days ago. */
const feed = (ref: string, shareOf: (daysAgo: number, hour: number) => number): SensorService => ({
  sensors: () => Promise.resolve([{ id: `S-${ref}`, ref }]),
  values: (_id, from, until) => {
    const hours = Math.floor((until.getTime() - from.getTime()) / 3_600_000);
    return Promise.resolve(
      Array.from({ length: hours }, (_, i) => {
        const at = new Date(from.getTime() + i * 3_600_000);
        const daysAgo = Math.round((Date.parse(today) - Date.parse(at.toISOString().slice(0, 10))) / 86_400_000);
        return { at: at.toISOString(), share: shareOf(daysAgo, i % 24) };
      }),
    );
  },
});
const kept = async (at: number): Promise<SensorFacts[]> =>
  (await town.db('field_record').where({ kind: 'sensor', spot_id: spots[at] }).orderByRaw(`facts->>'readOn'`)).map(
    ({ facts }: { facts: SensorFacts }) => facts,
  );
const share = async (at: number): Promise<number> =>
  (await town.db('tree_water').where({ spot_id: spots[at] }).first<{ share: number }>('share')).share;

it('a sound sensor corrects its ball, each day once', async () => {
  const before = await share(0);
  const wet = feed('Q-0000', (_ago, hour) => 0.95 + hour / 1000);
  expect(await readSensors(town.db, wet)).toBe(16);
  expect(await readSensors(town.db, wet)).toBe(0);
  const days = await kept(0);
  expect(days).toHaveLength(16);
  expect(days.every(({ flag }) => flag === null || flag === 'drifts')).toBe(true);
  expect(days.at(-1)?.readOn).toBe(addDaysTo(today, -1));
  await followTrees(town.db);
  expect(await share(0)).toBeGreaterThan(before + 0.2);
  const cora = await Visitor.signedIn(town.url, 'cora');
  const { body } = await cora.send('GET', `/api/spots/${spots[0]}`);
  expect(spotDetailSchema.safeParse(body).error).toBeUndefined();
});
it('one that hangs is kept with why, and moves nothing once it is known to hang', async () => {
  await readSensors(
    town.db,
    feed('Q-0001', () => 0.52),
  );
  const flags = (await kept(1)).map(({ flag }) => flag);
  expect(flags.slice(0, 2)).toEqual([null, null]);
  expect(new Set(flags.slice(2))).toEqual(new Set(['stuck']));
});
it('a sensor of a tree nobody knows is left out, and one that says nothing is kept as silent', async () => {
  expect(
    await readSensors(
      town.db,
      feed('Q-9999', () => 0.5),
    ),
  ).toBe(0);
  const silent = { ...feed('Q-0002', () => 0.5), values: () => Promise.resolve([]) };
  await readSensors(town.db, silent);
  expect((await kept(2)).every(({ flag, share: one }) => flag === 'silent' && one === null)).toBe(true);
});
