import { tryRulesProgressSchema, typicalYearSchema, type TryRulesProgress, type WaterList } from '@sombra/contract';
import { addDaysTo, type IsoDate } from '@sombra/core';
import { container, loam, look, planting, sending, type TestTown, type Visitor } from '../../testing/test-town';
import { openWaterTown } from '../../testing/water-town';
import { glasses } from '../map/glass-service';
import { followedAfter, keepWater } from '../record/water-repository';
import { insertWeather } from '../season/repository';
import { lockSpots } from '../spots/repository';
import { followTrees } from './follow-service';

let town: TestTown;
let cora: Visitor;
let today: IsoDate;
let spots: readonly string[];

beforeAll(async () => {
  ({ town, cora, today, spots } = await openWaterTown());
  await town.addSpot('Q-0009');
});
afterAll(() => town.stop());

const list = async (query = ''): Promise<WaterList> =>
  (await cora.send<WaterList>('GET', `/api/water/trees${query}`)).body;
const rows = (): Promise<unknown[]> =>
  town
    .db('tree_water')
    .orderBy('spot_id')
    .select('spot_id', 'day', 'ball_l', 'soil_l', 'variance', 'supply', 'next', 'stress_days', 'degree_days');
const checkpoints = (): Promise<unknown[]> => town.db('water_checkpoint').orderBy(['spot_id', 'day']);

async function plantedTree(ref: string, plantedOn: IsoDate): Promise<{ spotId: string }> {
  const { spotId } = await town.addSpot(ref);
  await cora.record(sending(spotId, { kind: 'ground', facts: loam }, 1));
  await cora.record(sending(spotId, { kind: 'stock', facts: container }, 2));
  await cora.record(sending(spotId, planting(plantedOn)));
  return { spotId };
}

/** What a run from scratch gives: nothing is left of what was worked out before. */
async function fromScratch(): Promise<{ trees: unknown[]; ends: unknown[] }> {
  const before = { trees: await rows(), ends: await checkpoints() };
  await town.db('tree_water').delete();
  await town.db('water_checkpoint').delete();
  await town.db('water_night').delete();
  await town.db.raw('insert into water_due select id from spot on conflict do nothing');
  await followTrees(town.db);
  expect({ trees: await rows(), ends: await checkpoints() }).toEqual(before);
  return before;
}

it('follows every planted tree, and lists who asks for water by when', async () => {
  await followTrees(town.db);
  const all = await list();
  expect(all.lines.map(({ ref }) => ref).sort()).toEqual(['Q-0000', 'Q-0001', 'Q-0002']);
  expect(all).toMatchObject({ day: today, waiting: 0, total: 3, counts: { now: 3, week: 0, later: 0, drowned: 0 } });
  expect(all.forecastUntil).toBe(addDaysTo(today, 10));
  expect((await list('?group=drowned')).lines).toEqual([]);
  expect(all.places).toEqual([{ name: 'Mole Street', count: 3 }]);
  const { body: csv } = await cora.send<string>('GET', '/api/water/trees.csv');
  expect(csv.split('\r\n').filter((line) => line.startsWith('Q-'))).toHaveLength(3);
  await fromScratch();
});

it('waits for whoever holds a spot without holding another one that they want', async () => {
  await followTrees(town.db);
  const [low = '', high = ''] = spots.toSorted();
  const stored = await followedAfter(town.db, { after: null, count: 9 });
  const trees = stored
    .toReversed()
    .map((tree) => ({ ...tree, after: tree.kept.checkpoint.day, monthEnds: [tree.kept.checkpoint] }));
  const holder = await town.db.transaction();
  const undone = new Error('only tried');
  try {
    await lockSpots(holder, [low]);
    const keeping = town.db.transaction(async (trx) => {
      await trx('water_checkpoint').delete();
      await keepWater(trx, trees, '2000-01-01');
      throw undone;
    });
    const ended = keeping.catch((error: unknown) => error);
    const waiting = async () =>
      (
        await town
          .db('pg_stat_activity')
          .whereRaw('datname = current_database()')
          .where({ wait_event_type: 'Lock' })
          .pluck('pid')
      ).length;
    while ((await waiting()) === 0) await new Promise((resolve) => setTimeout(resolve, 20));
    await lockSpots(holder, [high]);
    await holder.commit();
    expect(await ended).toBe(undone);
  } finally {
    if (!holder.isCompleted()) await holder.rollback();
  }
});

it('a watering logged late, taken back, and a probe read late come to what a run from scratch gives', async () => {
  const [first = '', second = ''] = spots;
  const dose = sending(first, { kind: 'watering', facts: { wateredOn: addDaysTo(today, -3), litres: 60 } });
  await cora.record(dose);
  await cora.record(sending(second, { kind: 'inspection', facts: look(addDaysTo(today, -40)).facts }));
  const report = await followTrees(town.db);
  expect(report.anew).toBeLessThanOrEqual(2);
  const watered = await fromScratch();
  expect((await list('?group=now')).total).toBe(2);
  await cora.record(
    sending(first, { kind: 'retraction', facts: { reason: 'another tree' }, supersedes: dose.record.id }),
  );
  await followTrees(town.db);
  expect((await fromScratch()).trees).not.toEqual(watered.trees);
  expect((await list('?group=now')).total).toBe(3);
});

it('a day of weather that is corrected, or comes at all, changes what it changes', async () => {
  const before = await rows();
  await town
    .db('weather_day')
    .where({ day: addDaysTo(today, -20) })
    .update({ rain_mm: 60 });
  await followTrees(town.db);
  const { trees } = await fromScratch();
  expect(trees).not.toEqual(before);
  await town
    .db('weather_day')
    .where({ day: addDaysTo(today, 2) })
    .update({ rain_mm: 70 });
  await followTrees(town.db);
  await fromScratch();
});

it('weather of an older year, read from a file long after, changes all that follows it', async () => {
  const { spotId } = await plantedTree('Q-0700', addDaysTo(today, -130));
  await followTrees(town.db);
  const { trees: before } = await fromScratch();
  const older = { t_min_c: 9, t_max_c: 15, source: 'recorded' };
  const days = Array.from({ length: 40 }, (_, i) => ({ ...older, day: addDaysTo(today, i - 140), rain_mm: i % 3 }));
  await town.db('weather_day').insert(days);
  await followTrees(town.db);
  const of = (all: unknown[]) => all.find((row) => (row as { spot_id: string }).spot_id === spotId);
  const { trees } = await fromScratch();
  expect(of(before)).toBeDefined();
  expect(of(trees)).not.toEqual(of(before));
});

it('night after night comes to what one run gives', async () => {
  await town
    .db('weather_day')
    .where({ source: 'recorded' })
    .where('day', '>', addDaysTo(today, -6))
    .update({ source: 'forecast' });
  await town.db.raw('insert into water_due select id from spot on conflict do nothing');
  await followTrees(town.db);
  for (let ago = 5; ago >= 0; ago--) {
    await town
      .db('weather_day')
      .where({ day: addDaysTo(today, -ago) })
      .update({ source: 'recorded' });
    await followTrees(town.db);
  }
  await fromScratch();
});

it('a watering of a day no station has measured yet counts at once', async () => {
  const [, , third = ''] = spots;
  await town.db('weather_day').where({ day: today }).update({ source: 'forecast' });
  await followTrees(town.db);
  expect((await list('?group=now')).lines.map(({ spotId }) => spotId)).toContain(third);
  await cora.record(sending(third, { kind: 'watering', facts: { wateredOn: today, litres: 80 } }));
  await followTrees(town.db);
  expect((await list('?group=now')).lines.map(({ spotId }) => spotId)).not.toContain(third);
  await town.db('weather_day').where({ day: today }).update({ source: 'recorded' });
  await followTrees(town.db);
  expect((await list('?group=now')).lines.map(({ spotId }) => spotId)).not.toContain(third);
  await fromScratch();
});

it('a tree planted while no weather was known is followed once there is some', async () => {
  const [first = ''] = spots;
  await town
    .db('weather_day')
    .where('day', '>', addDaysTo(today, -40))
    .update({ day: town.db.raw('day + 1000') });
  const { spotId } = await plantedTree('Q-0500', addDaysTo(today, -9));
  await followTrees(town.db);
  expect((await list('?limit=500')).lines.map((line) => line.spotId)).not.toContain(spotId);
  await town
    .db('weather_day')
    .where('day', '>', addDaysTo(today, 500))
    .update({ day: town.db.raw('day - 1000') });
  await followTrees(town.db);
  expect((await list('?limit=500')).lines.map((line) => line.spotId)).toEqual(expect.arrayContaining([first, spotId]));
  await fromScratch();
});

it('two servers that follow at the same time come to the same', async () => {
  await cora.record(sending(spots[0] ?? '', { kind: 'watering', facts: { wateredOn: today, litres: 25 } }));
  await Promise.all([followTrees(town.db), followTrees(town.db)]);
  await fromScratch();
});

it('a species that drinks otherwise than was known reaches its trees', async () => {
  const [before] = (await town.db('tree_water').where({ spot_id: spots[0] })) as { subject: { use: number } }[];
  const { body, version } = (await town.db('species').where({ botanical: 'Celtis australis' }).first()) as {
    body: object;
    version: number;
  };
  const changed = await cora.send('PUT', '/api/species', { species: { ...body, waterUse: 'high' }, version });
  expect(changed.status).toBeLessThan(300);
  await followTrees(town.db);
  const [after] = (await town.db('tree_water').where({ spot_id: spots[0] })) as { subject: { use: number } }[];
  expect(after?.subject.use).toBeGreaterThan(before?.subject.use ?? Infinity);
});

it('refuses a group there is none of, and a list without an end', async () => {
  expect((await cora.send('GET', '/api/water/trees?group=soon')).status).toBe(400);
  expect((await cora.send('GET', '/api/water/trees?limit=100000')).status).toBe(400);
});

it('the map fills a tree’s glass by its balance on the day that is looked at', async () => {
  const { spotId: id } = await plantedTree('Q-0777', addDaysTo(today, -70));
  await town.db('weather_day').where('day', '>', addDaysTo(today, -40)).update({ rain_mm: 0 });
  await followTrees(town.db);
  const on = async (day: IsoDate) => (await glasses(town.db, [id], { day, today })).get(id);
  const before = await on(today);
  await cora.record(sending(id, { kind: 'watering', facts: { wateredOn: today, litres: 90 } }));
  await followTrees(town.db);
  expect(before).toMatch(/dry/);
  expect(await on(today)).toMatch(/moist|wet/);
  // Before that watering it was as dry as ever, and ten days on it has drunk again.
  expect(await on(addDaysTo(today, -1))).toMatch(/dry/);
  const order = ['dry', 'slightly_dry', 'moist', 'wet', 'saturated'];
  expect(order.indexOf((await on(addDaysTo(today, 10))) ?? '')).toBeLessThanOrEqual(
    order.indexOf((await on(today)) ?? ''),
  );
  // Not planted yet: nothing stands in a ball that is not there.
  expect(await on(addDaysTo(today, -95))).toBeUndefined();
  // Of many trees at once only today is told: every other day each of them would have to be followed to it.
  const many = Array.from({ length: 401 }, () => id);
  expect((await glasses(town.db, many, { day: addDaysTo(today, -1), today })).size).toBe(0);
  expect((await glasses(town.db, many, { day: today, today })).size).toBe(1);
});

describe('rules tried on the trees of a place or a season', () => {
  const tried = async (asked: object): Promise<TryRulesProgress[]> => {
    const body = { place: null, season: null, weather: 'was', ...asked };
    const { status, body: text } = await cora.send<string>('POST', '/api/water/rules', body);
    expect(status).toBe(200);
    return text
      .trim()
      .split('\n')
      .map((line) => tryRulesProgressSchema.parse(JSON.parse(line)));
  };

  it('sums every rule over every tree, and goes by what was chosen', async () => {
    await followTrees(town.db);
    const { total } = await list();
    const lines = await tried({});
    const [last] = lines.slice(-1);
    if (last?.kind !== 'tried') throw new Error('not tried');
    expect(last.tried).toMatchObject({ trees: total, of: total, years: null });
    const of = (rule: string) => last.tried.rules.find((one) => one.rule === rule);
    expect(of('none')).toMatchObject({ litres: 0, visits: 0 });
    expect(of('balance')?.stressDays).toBeLessThan(of('none')?.stressDays ?? 0);
    expect((await tried({ place: 'Mole Street' })).at(-1)).toEqual(last);
    // Planted this season and the one before, each by itself, come to all.
    const year = Number(today.slice(0, 4));
    const counts = await Promise.all(
      [year - 1, year].map(async (season) => {
        const { status, body } = await cora.send<string>('POST', '/api/water/rules', {
          place: null,
          season,
          weather: 'was',
        });
        const found =
          status === 200 ? tryRulesProgressSchema.parse(JSON.parse(body.trim().split('\n').at(-1) ?? '')) : null;
        return found?.kind === 'tried' ? found.tried.of : 0;
      }),
    );
    expect(counts.reduce((sum, one) => sum + one, 0)).toBe(total);
  });

  it('says so where nobody stands, and where too few years are known to say what is typical', async () => {
    const refused = async (asked: object) => {
      const body = { place: null, season: null, weather: 'was', ...asked };
      const answer = await cora.send<{ title?: string } | string>('POST', '/api/water/rules', body);
      return [
        answer.status,
        typeof answer.body === 'string' ? answer.body.trim().split('\n').at(-1) : answer.body.title,
      ];
    };
    expect(await refused({ place: 'Nowhere' })).toEqual([400, expect.stringMatching(/^No tree is followed there/)]);
    expect(JSON.stringify(await refused({ weather: 'typical' }))).toMatch(/Too few years of weather are known/);
    expect((await refused({ season: 1200 }))[0]).toBe(400);
    expect((await cora.send('GET', '/api/water/typical')).body).toBeNull();
  });

  it('in a typical year, once three are known', async () => {
    const known = await town.db('weather_day').where({ source: 'recorded' }).min('day as day').first();
    const first = addDaysTo(today, -1500);
    const days = Array.from({ length: 1500 }, (_, i) => addDaysTo(first, i)).filter(
      (day) => day < (known as { day: string }).day,
    );
    await insertWeather(
      town.db,
      days.map((day) => ({
        day,
        rainMm: 2,
        tMinC: 12,
        tMaxC: 22,
        humidityMinPct: null,
        humidityMaxPct: null,
        windMs: null,
        radiationMj: null,
      })),
      'recorded',
    );
    const typical = typicalYearSchema.parse((await cora.send('GET', '/api/water/typical')).body);
    expect(typical?.days).toHaveLength(366);
    const [last] = (await tried({ weather: 'typical' })).slice(-1);
    // 1,500 days hold every month whole four times, wherever they begin.
    expect(last).toMatchObject({ kind: 'tried', tried: { years: 4, days: 365 } });
  });
});
