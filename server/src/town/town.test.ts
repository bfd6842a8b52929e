import type { Facets, Near, Problem, SpotList } from '@sombra/contract';
import { addDaysTo } from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import {
  container,
  loam,
  look,
  openTestTown,
  planting,
  sending,
  Visitor,
  type TestTown,
} from '../../testing/test-town';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
let today: string;
const spots: Record<string, string> = {};

const list = async (query: string): Promise<SpotList> => (await cora.send<SpotList>('GET', `/api/spots?${query}`)).body;
const refs = async (query: string): Promise<string[]> => (await list(query)).lines.map(({ ref }) => ref);

async function plant(ref: string, plantedOn: string, looks: readonly string[] = []): Promise<void> {
  const { spotId } = await town.addSpot(ref);
  spots[ref] = spotId;
  await cora.record(sending(spotId, { kind: 'ground', facts: loam }, 1));
  await cora.record(sending(spotId, { kind: 'stock', facts: container }, 2));
  await cora.record(sending(spotId, planting(plantedOn)));
  for (const on of looks) await cora.record(sending(spotId, look(on)));
}

beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  today = await programmeToday(town.db);
  await plant('A-0001', addDaysTo(today, -400), [addDaysTo(today, -360)]);
  await plant('A-0002', addDaysTo(today, -40));
  spots['A-0003'] = (await town.addSpot('A-0003')).spotId;
});
afterAll(() => town.stop());

describe('a list of spots', () => {
  it('is filtered by every part at once', async () => {
    expect(await refs('planted=yes')).toEqual(['A-0001', 'A-0002']);
    expect(await refs('planted=no')).toEqual(['A-0003']);
    expect(await refs('stage=ground,inspect&ref=A-0003,A-0001')).toEqual(['A-0001', 'A-0003']);
    expect(await refs('probe=moist')).toEqual(['A-0001']);
    expect(await refs('species=Celtis%20australis&place=Mole%20Street&planted=no')).toEqual(['A-0003']);
    expect(await refs('recordedBy=cora')).toEqual(['A-0001', 'A-0002']);
    expect(await refs('recordedBy=nobody')).toEqual([]);
    expect(await refs('area=-25.5,36.8;-25.3,36.8;-25.3,37')).toHaveLength(3);
    expect(await refs('area=-25.5,36.8;-25.45,36.8;-25.45,37')).toEqual([]);
  });

  it('is sorted either way, what is missing last', async () => {
    expect(await refs('sort=plantedOn')).toEqual(['A-0001', 'A-0002', 'A-0003']);
    expect(await refs('sort=plantedOn&down=true')).toEqual(['A-0002', 'A-0001', 'A-0003']);
  });

  it('comes in pages that know the whole', async () => {
    const page = await list('offset=1&limit=1');
    expect(page).toMatchObject({ total: 3, lines: [{ ref: 'A-0002' }] });
  });

  it('tells the place of a spot in it', async () => {
    const rank = async (query: string) =>
      (await cora.send<{ index: number | null }>('GET', `/api/spots/rank?${query}`)).body.index;
    expect(await rank(`spotId=${spots['A-0002']}`)).toBe(1);
    expect(await rank(`spotId=${spots['A-0002']}&sort=plantedOn&down=true`)).toBe(0);
    expect(await rank(`spotId=${spots['A-0003']}&planted=yes`)).toBeNull();
  });

  it('shows a past day as it was, and tomorrow by what is due', async () => {
    const was = await list(`on=${addDaysTo(today, -100)}`);
    expect(was.lines.map(({ ref, stage }) => [ref, stage])).toEqual([
      ['A-0001', 'inspect'],
      ['A-0002', 'ground'],
      ['A-0003', 'ground'],
    ]);
    expect(was.lines[0]?.probe).toBe('moist');
    expect((await list(`on=${addDaysTo(today, -380)}`)).lines[0]?.probe).toBeNull();
    expect((await list('on=2022-12-31')).total).toBe(0);
    const late = async (on: string) => refs(`due=late&on=${on}`);
    expect(await late(addDaysTo(today, 400))).toEqual(['A-0001', 'A-0002']);
  });

  it('tells what there is to choose from', async () => {
    const { body } = await cora.send<Facets>('GET', '/api/spots/facets');
    expect(body.species).toEqual([{ name: 'Celtis australis', count: 3 }]);
    expect(body.places).toEqual([{ name: 'Mole Street', count: 3 }]);
    expect(body.stages).toEqual([
      { name: 'inspect', count: 2 },
      { name: 'ground', count: 1 },
    ]);
    expect(body.levels).toEqual([{ name: 'good', count: 2 }]);
    expect(body.waits).toEqual([]);
  });

  it('tells what the spots of one stage wait for, and shows those that wait for one thing', async () => {
    const { body } = await cora.send<Facets>('GET', '/api/spots/facets?stage=ground');
    const codes = body.waits.map(({ because, count }) => [because?.code, count] as const);
    expect(codes).toEqual(expect.arrayContaining([['percolation_missing', 1]]));
    expect(await refs('stage=ground&waits=percolation_missing')).toEqual(['A-0003']);
    expect(await refs('waits=species_missing')).toEqual([]);
    expect((await cora.send('GET', "/api/spots?waits=x';--")).status).toBe(400);
  });

  it('shows what was planted within a span of days', async () => {
    const [from, until] = [addDaysTo(today, -60), addDaysTo(today, -20)];
    expect(await refs(`plantedFrom=${from}`)).toEqual(['A-0002']);
    expect(await refs(`plantedUntil=${from}`)).toEqual(['A-0001']);
    expect(await refs(`plantedFrom=${from}&plantedUntil=${until}`)).toEqual(['A-0002']);
  });

  it('comes as CSV with the columns that are seen', async () => {
    const { body, headers } = await cora.send<string>('GET', '/api/spots.csv?columns=ref,plantedOn&planted=yes');
    expect(headers.get('content-type')).toContain('text/csv');
    expect(body.split('\r\n')).toEqual([
      'ref,plantedOn,lng,lat',
      `A-0001,${addDaysTo(today, -400)},-25.4,36.9`,
      `A-0002,${addDaysTo(today, -40)},-25.4,36.9`,
      '',
    ]);
  });

  it.each([
    ['stage=garden', 'stage.0'],
    ['on=yesterday', 'on'],
    ['area=1,2;3,4', 'area'],
    ['area=1,99;3,4;5,6', 'area.0.1'],
    ['colour=red', ''],
  ])('refuses %s', async (query, path) => {
    const { status, body } = await cora.send('GET', `/api/spots?${query}`);
    expect(status).toBe(400);
    expect(body.issues?.[0]?.path).toBe(path);
  });
});

describe('adding and withdrawing spots', () => {
  const fresh = (ref: string) => ({
    id: uuidv7(),
    treeId: uuidv7(),
    ref,
    place: 'Mole Street',
    position: [-25.4001, 36.9001],
    species: null,
  });

  it('names a spot after what lies near', async () => {
    const { body } = await cora.send<Near>('GET', '/api/spots/near?lng=-25.4001&lat=36.9');
    expect(body).toMatchObject({ place: 'Mole Street', ref: 'A-0004' });
    // 0.0001° of longitude at 36.9° north on a sphere of 6 378 137 m: 8.90 m.
    expect(body.distanceM).toBeCloseTo(8.9, 1);
    const far = await cora.send<Near>('GET', '/api/spots/near?lng=10&lat=10');
    expect(far.body).toEqual({ place: null, distanceM: null, ref: 'N-0101' });
  });

  it('adds it once, however often it is sent, and refuses a number that is taken', async () => {
    const spot = fresh('A-0100');
    expect((await cora.send('POST', '/api/spots', spot)).status).toBe(201);
    expect((await cora.send('POST', '/api/spots', spot)).status).toBe(200);
    const second = await cora.send('POST', '/api/spots', fresh('A-0100'));
    expect([second.status, second.body.title]).toEqual([
      409,
      'Number A-0100 is taken by another spot; choose the next free one',
    ]);
    const away = await cora.send('POST', '/api/spots', { ...fresh('A-0101'), position: [-25.4, 99] });
    expect(away.body.issues?.[0]?.path).toBe('position.1');
    expect(away.body.issues?.[0]?.message).toContain('85');
  });

  it('takes a spot out of sight from today on and brings it back', async () => {
    const spot = fresh('A-0200');
    await cora.send('POST', '/api/spots', spot);
    const act = (withdrawn: boolean) => cora.send('POST', '/api/spots/withdraw', { spotIds: [spot.id], withdrawn });
    expect((await act(true)).status).toBe(200);
    expect(await refs('ref=A-0200')).toEqual([]);
    expect((await act(false)).status).toBe(200);
    expect(await refs('ref=A-0200')).toEqual(['A-0200']);
  });

  it('never withdraws a planted tree, nor anything with it', async () => {
    const spotIds = [spots['A-0001'], spots['A-0003']];
    const { status, body } = await cora.send('POST', '/api/spots/withdraw', { spotIds, withdrawn: true });
    expect([status, body.title]).toEqual([400, '1 of them are planted and cannot be withdrawn: A-0001']);
    expect(await refs('ref=A-0003')).toEqual(['A-0003']);
  });

  it('is not for those who only look', async () => {
    const vic = await Visitor.signedIn(town.url, 'vic');
    expect((await vic.send('POST', '/api/spots', fresh('A-0300'))).status).toBe(403);
    expect((await vic.send('POST', '/api/spots/withdraw', { spotIds: [uuidv7()], withdrawn: true })).status).toBe(403);
  });
});

it.each([
  ['/api/trees/none', 'There is no such tree.'],
  ['/api/spots/W-0101', 'There is no such spot.'],
])('an address that names nothing says so: %s', async (path, title) => {
  const { status, body } = await cora.send<Problem>('GET', path);
  expect([status, body.title]).toEqual([404, title]);
});
