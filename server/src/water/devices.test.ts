import { spotDetailSchema, type KeptDevice, type KeptZones, type SaveZone, type WaterList } from '@sombra/contract';
import { addDaysTo, type IsoDate } from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { openStandin } from '../../testing/standin';
import { sending, Visitor, type TestTown } from '../../testing/test-town';
import { openWaterTown } from '../../testing/water-town';
import { httpController } from '../adapters/controller';
import { followTrees } from './follow-service';
import { tendZones } from './zones-service';

let town: TestTown;
let cora: Visitor;
let today: IsoDate;
let spots: readonly string[];
let valves: { readonly url: string; stop(): void };

beforeAll(async () => {
  ({ town, cora, today, spots } = await openWaterTown(3));
  const { said, stop } = await openStandin('controller.mjs');
  valves = { url: /http:\S+/.exec(said)?.[0] ?? '', stop };
});
afterAll(async () => {
  valves.stop();
  await town.stop();
});

const clock = (day: IsoDate) =>
  fetch(`${valves.url}/clock`, { method: 'POST', body: JSON.stringify({ now: `${day}T04:00:00Z` }) });
const catalogue = async () => (await cora.send<KeptDevice[]>('GET', '/api/water/devices')).body;
const bag = async () => (await catalogue()).find(({ id }) => id === 'stem-bag');
const run = (litres: number, minutes = 10) => ({ litres, minutes });

describe('the catalogue', () => {
  it('is there on first asking, and a measurement stands beside its label', async () => {
    expect((await catalogue()).length).toBeGreaterThanOrEqual(8);
    expect(await bag()).toMatchObject({ labelledLPerH: 11, measured: null, atTrees: 0 });
    const asked = {
      id: uuidv7(),
      measuredOn: today,
      runs: [run(1), run(1.1), run(0.9)],
      note: 'three bags of the yard',
    };
    expect((await cora.send('POST', '/api/water/devices/stem-bag/runs', asked)).status).toBe(200);
    // Sent again it is the same measurement.
    await cora.send('POST', '/api/water/devices/stem-bag/runs', asked);
    // 6, 6.6 and 5.4 L/h: a mean of 6, a deviation of 0.6.
    const { measured } = (await bag()) ?? {};
    expect(measured).toMatchObject({ runs: 3, by: 'cora' });
    expect(measured?.lPerH).toBeCloseTo(6, 9);
    expect(measured?.spreadPct).toBeCloseTo(10, 9);
    expect(await town.db('device_run')).toHaveLength(1);
  });
  it.each([
    ['no run', { runs: [] }, 'runs'],
    ['a vessel of 900 L', { runs: [run(900)] }, 'runs.0.litres'],
    ['tomorrow', { measuredOn: '2999-01-01' }, 'measuredOn'],
  ])('refuses %s, and names the field', async (_words, change, path) => {
    const asked = { id: uuidv7(), measuredOn: today, runs: [run(1)], note: '', ...change };
    const { status, body } = await cora.send('POST', '/api/water/devices/stem-bag/runs', asked);
    expect([status, body.issues?.[0]?.path]).toEqual([400, path]);
  });
  it('takes one of the programme’s own, and refuses a stale change', async () => {
    const [base] = await catalogue();
    const { measured: _m, atTrees: _t, ...rest } = base as KeptDevice;
    const own = { ...rest, id: 'tall-tube', name: 'Tall tube', version: 0 };
    expect((await cora.send('PUT', '/api/water/devices', own)).status).toBe(200);
    expect((await cora.send('PUT', '/api/water/devices', own)).status).toBe(409);
    expect((await cora.send('PUT', '/api/water/devices', { ...own, name: 'Taller tube', version: 1 })).status).toBe(
      200,
    );
    expect((await cora.send('PUT', '/api/water/devices', { ...own, name: 'Stale', version: 1 })).status).toBe(409);
    expect((await catalogue()).find(({ id }) => id === 'tall-tube')).toMatchObject({ name: 'Taller tube' });
  });
  it('counts the trees it stands at, and no more once it is off', async () => {
    const [spotId = ''] = spots;
    const set = { setOn: today, deviceId: 'stem-bag', deviceName: 'Bag', joined: 1, offBy: addDaysTo(today, 200) };
    await cora.record(sending(spotId, { kind: 'device', facts: set }));
    expect((await bag())?.atTrees).toBe(1);
    await cora.record(sending(spotId, { kind: 'remedy', facts: { remedy: 'take_off_device', doneOn: today } }));
    expect((await bag())?.atTrees).toBe(0);
  });
});

describe('a zone', () => {
  const zoneId = uuidv7();
  const zone = (change: Partial<SaveZone['body']> = {}, version = 0): SaveZone => ({
    id: zoneId,
    name: 'Mole Street verge',
    body: {
      emitterLPerH: 4,
      plants: spots
        .slice(0, 2)
        .map((spotId, i) => ({ kind: 'tree', name: `Tree ${i}`, emitters: 6, areaM2: 0, spotId })),
      programme: { minutes: 30, everyDays: 2, timesADay: 1 },
      turf: null,
      ...change,
    },
    retired: false,
    version,
  });
  const read = async () => (await cora.send<KeptZones>('GET', '/api/water/zones')).body.zones[0];

  it('is told to the controller once, and what that says was run waters its trees, once', async () => {
    await followTrees(town.db);
    const before = (await cora.send<WaterList>('GET', '/api/water/trees')).body.lines;
    expect((await cora.send('PUT', '/api/water/zones', zone())).status).toBe(200);
    const controller = httpController(valves.url);
    await clock(addDaysTo(today, -10));
    await tendZones(town.db, controller);
    expect(await read()).toMatchObject({ told: { minutes: 30, everyDays: 2, timesADay: 1 }, problem: null });
    await clock(addDaysTo(today, 0));
    await tendZones(town.db, controller);
    await tendZones(town.db, controller);
    const records = await town.db('field_record').where({ kind: 'watering', spot_id: spots[0] });
    // Days −10, −8, …, −2 are over; 6 emitters of 4 L/h for half an hour give 12 L.
    expect(records.map(({ facts }: { facts: { litres: number } }) => facts.litres)).toEqual([12, 12, 12, 12, 12]);
    expect(records[0]).toMatchObject({ facts: { toldBy: 'controller' }, recorded_by: 'valve Mole Street verge' });
    expect((await read())?.runs).toHaveLength(5);
    // Whoever opens the tree reads them.
    const { body: detail } = await cora.send('GET', `/api/spots/${spots[0]}`);
    expect(spotDetailSchema.safeParse(detail).error).toBeUndefined();
    await followTrees(town.db);
    const after = (await cora.send<WaterList>('GET', '/api/water/trees')).body.lines;
    const share = (lines: WaterList['lines']) => lines.find(({ spotId }) => spotId === spots[0])?.share ?? 0;
    expect(share(after)).toBeGreaterThan(share(before) + 0.2);
  });

  it('new turf’s programme is told until its day, and set back by itself after it', async () => {
    const turf = { programme: { minutes: 8, everyDays: 1, timesADay: 4 }, until: addDaysTo(today, 1) };
    const controller = httpController(valves.url);
    await cora.send('PUT', '/api/water/zones', zone({ turf }, 1));
    await tendZones(town.db, controller);
    expect((await read())?.told).toEqual(turf.programme);
    await cora.send('PUT', '/api/water/zones', zone({ turf: { ...turf, until: addDaysTo(today, -1) } }, 2));
    await tendZones(town.db, controller);
    expect((await read())?.told).toEqual({ minutes: 30, everyDays: 2, timesADay: 1 });
  });

  it('says so where the controller does not answer, and tells it once it does', async () => {
    await cora.send('PUT', '/api/water/zones', zone({ programme: { minutes: 20, everyDays: 3, timesADay: 1 } }, 3));
    await tendZones(town.db, httpController('http://127.0.0.1:9'));
    expect((await read())?.problem).not.toBeNull();
    expect((await read())?.told).toMatchObject({ minutes: 30 });
    await tendZones(town.db, httpController(valves.url));
    expect(await read()).toMatchObject({ problem: null, told: { minutes: 20, everyDays: 3 } });
  });

  it('a controller whose clock runs a year ahead waters nothing', async () => {
    const before = await town.db('field_record').where({ kind: 'watering' });
    await clock(addDaysTo(today, 365));
    await tendZones(town.db, httpController(valves.url));
    expect(await town.db('field_record').where({ kind: 'watering' })).toHaveLength(before.length);
  });

  it.each([
    [
      'a tree of no spot',
      () => zone({ plants: [{ kind: 'tree', name: 'Lime', emitters: 2, areaM2: 0, spotId: null }] }, 4),
    ],
    [
      'a tree twice',
      () =>
        zone(
          { plants: [0, 1].map(() => ({ kind: 'tree', name: 'x', emitters: 1, areaM2: 0, spotId: spots[0] ?? '' })) },
          4,
        ),
    ],
    [
      'a lawn of no size',
      () => zone({ plants: [{ kind: 'turf', name: 'Lawn', emitters: 2, areaM2: 0, spotId: null }] }, 4),
    ],
    ['an emitter that gives nothing', () => zone({ emitterLPerH: 0 }, 4)],
    ['every 0 days', () => zone({ programme: { minutes: 20, everyDays: 0, timesADay: 1 } }, 4)],
  ])('refuses %s', async (_words, asked) => {
    expect((await cora.send('PUT', '/api/water/zones', asked())).status).toBe(400);
  });
  it('refuses a change from an older state', async () => {
    expect((await cora.send('PUT', '/api/water/zones', zone({}, 1))).status).toBe(409);
  });
});

it('a viewer may read and change nothing', async () => {
  const vic = await Visitor.signedIn(town.url, 'vic');
  expect((await vic.send('GET', '/api/water/devices')).status).toBe(200);
  const asked = { id: uuidv7(), measuredOn: today, runs: [run(1)], note: '' };
  expect((await vic.send('POST', '/api/water/devices/stem-bag/runs', asked)).status).toBe(403);
});
