import type {
  Assignment,
  DroughtWatch,
  FieldPeople,
  InvoiceReport,
  Fleet,
  KeptRules,
  SeekRounds,
  WaterFillPoint,
  WaterRound,
  WaterTruck,
} from '@sombra/contract';
import { addDaysTo, weekdays, type IsoDate, type Weekday } from '@sombra/core';
import { randomUUID } from 'node:crypto';
import { container, loam, planting, sending, Visitor, type TestTown } from '../../testing/test-town';
import { pdfText } from '../../testing/pdf-text';
import { openWaterTown } from '../../testing/water-town';
import { followTrees } from './follow-service';

let town: TestTown;
let cora: Visitor;
let today: IsoDate;
let spots: readonly string[];
let wes: string;
let truck: WaterTruck;

beforeAll(async () => {
  ({ town, cora, today, spots } = await openWaterTown(4));
  await followTrees(town.db);
  wes =
    (await cora.send<FieldPeople>('GET', '/api/assignments/people')).body.find(({ name }) => name === 'wes')?.id ?? '';
  truck = {
    id: randomUUID(),
    name: 'Blue truck',
    onFoot: false,
    tankL: 600,
    pourLPerMin: 40,
    kmPerH: 25,
    depot: [-25.401, 36.901],
    retired: false,
    version: 0,
  };
  expect((await cora.send('PUT', '/api/water/trucks', truck)).status).toBe(200);
});
afterAll(() => town.stop());

const asked = (change: Partial<SeekRounds> = {}): SeekRounds => ({
  id: randomUUID(),
  title: 'Dry week',
  onDay: today,
  groups: ['now', 'week'],
  place: null,
  trucks: [{ truckId: truck.id, shiftMinutes: 240 }],
  seed: 1,
  ...change,
});
const plan = async (round: SeekRounds) => {
  const { status, body } = await cora.send<string>('POST', '/api/water/rounds', round);
  return { status, body };
};
const read = async (id: string): Promise<WaterRound> =>
  (await cora.send<WaterRound>('GET', `/api/water/rounds/${id}`)).body;
const served = ({ plan: { trucks } }: WaterRound) =>
  trucks.flatMap(({ steps }) => steps).filter(({ kind }) => kind === 'stop').length;

describe('the fleet', () => {
  const fill: WaterFillPoint = {
    id: randomUUID(),
    name: 'Hydrant at the clinic',
    position: [-25.402, 36.902],
    flowLPerMin: 120,
    connectMinutes: 4,
    permit: 'Water works, 12/26',
    retired: false,
    version: 0,
  };
  it('is kept by version: who was second is told, and changes nothing', async () => {
    const { body } = await cora.send<Fleet>('PUT', '/api/water/fill-points', fill);
    expect(body.fills).toMatchObject([{ name: fill.name, position: fill.position, version: 1 }]);
    expect((await cora.send('PUT', '/api/water/fill-points', { ...fill, name: 'Other' })).status).toBe(409);
    const next = await cora.send<Fleet>('PUT', '/api/water/fill-points', { ...fill, flowLPerMin: 90, version: 1 });
    expect(next.body.fills).toMatchObject([{ name: fill.name, flowLPerMin: 90, version: 2 }]);
    expect((await cora.send('PUT', '/api/water/fill-points', { ...fill, version: 1 })).status).toBe(409);
  });

  it.each([
    ['a truck without a tank', 'trucks', { tankL: 0 }, 'tankL'],
    ['a truck that pours nothing', 'trucks', { pourLPerMin: 0 }, 'pourLPerMin'],
    ['a truck of no name', 'trucks', { name: ' ' }, 'name'],
    ['a depot off the globe', 'trucks', { depot: [-25, 91] }, 'depot.1'],
  ])('refuses %s', async (_name, door, change, path) => {
    const { status, body } = await cora.send('PUT', `/api/water/${door}`, { ...truck, id: randomUUID(), ...change });
    expect([status, body.issues?.[0]?.path]).toEqual([400, path]);
  });
});

describe('a round', () => {
  it('serves the trees that ask, is given out with each dose, and tells what became of each stop', async () => {
    const round = asked();
    const { body } = await plan(round);
    expect(body).toContain('"kind":"found"');
    const draft = await read(round.id);
    expect([draft.state, served(draft), draft.plan.left]).toEqual(['draft', 4, []]);
    const [first] = draft.plan.trucks;
    expect(first?.minutes).toBeGreaterThanOrEqual(draft.plan.leastMinutes - 1e-6);

    const give = (people: object[], version = draft.version) =>
      cora.send<WaterRound>('POST', `/api/water/rounds/${round.id}/give`, { version, people });
    expect((await give([])).status).toBe(400);
    expect((await give([{ truckId: truck.id, userId: wes }], 9)).status).toBe(409);
    for (let i = 0; i < 2; i++) expect((await give([{ truckId: truck.id, userId: wes }])).body.state).toBe('given');

    const visitor = await Visitor.signedIn(town.url, 'wes');
    const mine = (await visitor.send<Assignment[]>('GET', '/api/assignments')).body.filter(
      ({ kind }) => kind === 'watering',
    );
    expect(mine).toHaveLength(1);
    const [assignment] = mine;
    const order = first?.steps.flatMap((step) => (step.kind === 'stop' ? [step.spotId] : [])) ?? [];
    expect(assignment?.spotIds).toEqual(order);
    const doses = Object.fromEntries(
      first?.steps.flatMap((step) => (step.kind === 'stop' ? [[step.spotId, step.litres]] : [])) ?? [],
    );
    expect(assignment?.water?.doses).toEqual(doses);

    const [one = '', two = ''] = order;
    await visitor.record(sending(one, { kind: 'watering', facts: { wateredOn: today, litres: 33 } }));
    await visitor.record(
      sending(two, { kind: 'not_done', facts: { task: 'watering', triedOn: today, reason: 'gate locked' } }),
    );
    const { stops, given } = await read(round.id);
    expect(stops[one]).toEqual({ state: 'watered', litres: 33, why: null });
    expect(stops[two]).toEqual({ state: 'could_not', litres: null, why: 'gate locked' });
    expect(given).toEqual([{ truckId: truck.id, userName: 'wes' }]);
    // What was given out is not planned over.
    expect((await plan(round)).body).toContain('failed');
  });

  it('shortens itself after rain, and says why', async () => {
    const round = asked();
    await plan(round);
    await town.db('weather_day').where({ day: today }).update({ rain_mm: 90 });
    await followTrees(town.db);
    const { stops } = await read(round.id);
    expect(Object.values(stops).filter(({ state }) => state === 'not_needed').length).toBeGreaterThan(0);
    expect(Object.values(stops).find(({ state }) => state === 'not_needed')?.why).toMatch(/by now$/);
    await town.db('weather_day').where({ day: today }).update({ rain_mm: 0 });
    await followTrees(town.db);
  });

  it('leaves what a shift is too short for, or a tank too small, and says so', async () => {
    const slow = { ...truck, id: randomUUID(), name: 'Slow', pourLPerMin: 0.5 };
    await cora.send('PUT', '/api/water/trucks', slow);
    const short = asked({ trucks: [{ truckId: slow.id, shiftMinutes: 30 }] });
    await plan(short);
    const { plan: found } = await read(short.id);
    expect(found.left.length).toBeGreaterThan(0);
    expect(found.left[0]?.why).toBe('no_time');
    const can = { ...truck, id: randomUUID(), name: 'Can', onFoot: true, tankL: 1, kmPerH: 4 };
    await cora.send('PUT', '/api/water/trucks', can);
    const small = asked({ trucks: [{ truckId: can.id, shiftMinutes: 240 }] });
    await plan(small);
    expect((await read(small.id)).plan.left.every(({ why }) => why === 'tank_too_small')).toBe(true);
  });

  it.each<[string, () => Partial<SeekRounds>, string]>([
    ['a day that has passed', () => ({ onDay: addDaysTo(today, -1) }), 'onDay'],
    ['nobody who asks', () => ({ groups: ['drowned'] }), 'groups'],
    ['a place there is none of', () => ({ place: 'Nowhere' }), 'groups'],
    ['a truck that is not there', () => ({ trucks: [{ truckId: randomUUID(), shiftMinutes: 60 }] }), 'trucks'],
    ['no truck', () => ({ trucks: [] }), 'trucks'],
  ])('is refused for %s', async (_name, change) => {
    const round = asked(change());
    const { status, body } = await cora.send<{ status?: number }>('POST', '/api/water/rounds', round);
    expect([status, body.status]).toEqual([400, 400]);
    expect((await cora.send('GET', `/api/water/rounds/${round.id}`)).status).toBe(404);
  });

  it('is refused on a day on which restrictions allow no truck, and not on foot', async () => {
    const ada = await Visitor.signedIn(town.url, 'ada');
    const { body: kept } = await ada.send<KeptRules>('GET', '/api/rules');
    const none = Object.fromEntries(weekdays.map((day) => [day, false])) as Record<Weekday, boolean>;
    const watering = { ...kept.rules.watering, days: none };
    const { body: strict } = await ada.send<KeptRules>('PUT', '/api/rules', { ...kept.rules, watering });
    const { body } = await cora.send<{ title: string; issues: { path: string }[] }>(
      'POST',
      '/api/water/rounds',
      asked(),
    );
    expect([body.title, body.issues[0]?.path]).toEqual(['Restrictions allow no watering on any day.', 'onDay']);
    const cart = { ...truck, id: randomUUID(), name: 'Cart', onFoot: true, tankL: 90, kmPerH: 4 };
    await cora.send('PUT', '/api/water/trucks', cart);
    const onFoot = asked({ trucks: [{ truckId: cart.id, shiftMinutes: 240 }] });
    await plan(onFoot);
    expect(served(await read(onFoot.id))).toBeGreaterThan(0);
    await ada.send('PUT', '/api/rules', { ...strict.rules, watering: kept.rules.watering });
  });

  it('is read by other programmes: GPX and GeoJSON', async () => {
    const round = asked();
    await plan(round);
    const { body: gpx } = await cora.send<string>('GET', `/api/water/rounds/${round.id}.gpx`);
    expect(gpx.match(/<rtept /g)).toHaveLength(served(await read(round.id)) + 2);
    const { body } = await cora.send<{ features: { geometry: { type: string } }[] }>(
      'GET',
      `/api/water/rounds/${round.id}.geojson`,
    );
    expect(body.features.filter(({ geometry }) => geometry.type === 'LineString')).toHaveLength(1);
  });

  it('goes along on paper: a sheet a truck, each stop with room for what was given', async () => {
    const round = asked();
    await plan(round);
    const kept = await read(round.id);
    const answer = await fetch(`${town.url}/api/water/rounds/${round.id}.pdf`, {
      headers: { cookie: cora.credentials().cookie },
    });
    const pages = pdfText(new Uint8Array(await answer.arrayBuffer()));
    expect(pages).toHaveLength(kept.plan.trucks.length);
    for (const truck of kept.plan.trucks) {
      for (const step of truck.steps) expect(pages.join(' ')).toContain(step.kind === 'stop' ? step.ref : step.name);
    }
    expect(pages[0]).toContain('not given yet');
    expect((await cora.send('GET', `/api/water/rounds/${randomUUID()}.pdf`)).status).toBe(404);
  });

  it('given by two at once is given once', async () => {
    const round = asked();
    await plan(round);
    const otto = await Visitor.signedIn(town.url, 'otto');
    const people = [{ truckId: truck.id, userId: wes }];
    const { version } = await read(round.id);
    const answers = await Promise.all(
      [cora, otto].map((who) => who.send('POST', `/api/water/rounds/${round.id}/give`, { version, people })),
    );
    expect(answers.map(({ status }) => status)).toEqual([200, 200]);
    const count = await town
      .db('assignment')
      .where({ title: 'Dry week: Blue truck' })
      .count<{ count: number }[]>('* as count');
    expect(Number(count[0]?.count)).toBe(2);
    expect(spots.length).toBe(4);
  });
});

describe('an invoice for watering', () => {
  const check = async (csv: string) =>
    cora.send<InvoiceReport>('POST', '/api/water/invoice', new TextEncoder().encode(csv), {
      'content-type': 'text/csv',
    });
  it('is held against what was recorded at the trees, line by line', async () => {
    const [one = '', , , other = ''] = spots;
    await cora.record(sending(one, { kind: 'watering', facts: { wateredOn: addDaysTo(today, -6), litres: 50 } }));
    await cora.record(sending(other, { kind: 'watering', facts: { wateredOn: addDaysTo(today, -6), litres: 20 } }));
    const day = addDaysTo(today, -6);
    const { body } = await check(
      `ref,watered_on,litres\nQ-0000,${day},50\nQ-0003,${day},50\nQ-0002,${day},50\nnone,${day},50`,
    );
    expect(body.lines.map(({ row, verdict }) => [row, verdict])).toEqual([
      [2, 'proven'],
      [3, 'less_water'],
      [4, 'not_on_record'],
      [5, 'not_on_record'],
    ]);
    expect(body.lines[0]?.proof).toMatchObject({ by: 'cora', litres: 50, photos: 0, unseen: false });
  });
  it('names each row that cannot be read, and checks the others', async () => {
    const { body } = await check('ref,watered_on,litres\n,2026-07-01,50\nQ-0000,July,50\nQ-0000,2026-07-01,5000');
    expect(body.issues.map(({ row, column }) => [row, column])).toEqual([
      [2, 'ref'],
      [3, 'watered_on'],
      [4, 'litres'],
    ]);
    expect((await check('tree,day\nx,y')).status).toBe(400);
  });
});

it('a long dry spell brings established trees back into rounds, with a dose by their caliper', async () => {
  const { spotId } = await town.addSpot('Q-0900');
  await cora.record(sending(spotId, { kind: 'ground', facts: loam }, 1));
  await cora.record(sending(spotId, { kind: 'stock', facts: container }, 2));
  await cora.record(sending(spotId, planting(addDaysTo(today, -1400))));
  // Planted this spring and never measured: followed by nobody, and not established for that.
  const young = await town.addSpot('Q-0901');
  await cora.record(sending(young.spotId, planting(addDaysTo(today, -90))));
  await town.db('weather_day').where('source', 'recorded').update({ rain_mm: 0 });
  await followTrees(town.db);
  const { body: watch } = await cora.send<DroughtWatch>('GET', '/api/water/drought');
  expect(watch.grades.filter(({ trees }) => trees > 0)).toMatchObject([{ trees: 1, level: 'water' }]);
  const without = asked();
  await plan(without);
  const withThem = asked({ groups: ['now', 'week', 'drought'] });
  await plan(withThem);
  const [few, more] = [await read(without.id), await read(withThem.id)];
  expect(few.stops[spotId]).toBeUndefined();
  expect(more.stops[spotId]).toMatchObject({ state: 'open' });
});
