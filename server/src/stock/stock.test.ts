import type { Delivery, DeliveryList, Lot, SeasonList } from '@sombra/contract';
import { unknownAssessment, type ReceivedTree } from '@sombra/core';
import loadHighs from 'highs';
import { v7 as uuidv7 } from 'uuid';
import { workOnNext, type ListSolver } from '../match/list-service';
import { runModel } from '../match/run-model';
import { pdfText } from '../testing/pdf-text';
import { loam, openTestTown, sending, Visitor, type TestTown } from '../testing/test-town';

let town: TestTown;
let cora: Visitor;
let vic: Visitor;
let orderId: string;
const spots: string[] = [];
const solver: ListSolver = {
  async solve(model, { limitS }) {
    return runModel(await loadHighs(), model, { limitS });
  },
};

async function place(ref: string): Promise<string> {
  const { spotId } = await town.addSpot(ref);
  const version = async () => (await cora.spot(spotId)).spot.version;
  await cora.record(sending(spotId, { kind: 'ground', facts: loam }, await version()));
  const seen = {
    ...unknownAssessment('2026-11-20'),
    owner: 'road' as const,
    privateLines: 'none' as const,
    openSoilM2: 80,
    soilDepthMm: 900,
    sunHours: 9,
  };
  await cora.record(sending(spotId, { kind: 'assessment', facts: seen }, await version()));
  return spotId;
}

beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  vic = await Visitor.signedIn(town.url, 'vic');
  await town.db('rules').insert({
    version: 2,
    made_by: 'test',
    body: town.db.raw(
      `(select jsonb_set(jsonb_set(body, '{match,diversity}', '{"speciesPct":100,"genusPct":100,"familyPct":100}'), '{ground,version}', '2') from rules where version = 1)`,
    ),
  });
  for (const ref of ['D-0001', 'D-0002', 'D-0003']) spots.push(await place(ref));
  const csv = 'species,stock_kind,caliper_mm,height_m,price,available\nQuercus ilex,container,50,3,90,10\n';
  await cora.send('POST', '/api/offers/import?nursery=Viveiro%20Azul', new TextEncoder().encode(csv), {
    'content-type': 'text/csv',
  });
  const id = uuidv7();
  const ask = {
    id,
    title: 'Winter list',
    spotIds: spots,
    budget: null,
    plantOn: '2026-12-10',
    stockKinds: ['container'],
    locks: [],
  };
  await cora.send('POST', '/api/lists', ask);
  await workOnNext(town.db, solver);
  const { body } = await cora.send<SeasonList>('POST', `/api/lists/${id}/accept`);
  orderId = body.orders[0]?.id ?? '';
});
afterAll(() => town.stop());

const tree: ReceivedTree = {
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  rootSpreadMm: null,
  rootDepthMm: null,
  topRootsDepthMm: [40, 60],
  circlingPct: 5,
  thickestCirclingMm: null,
  kinked: false,
  ball: 'firm',
  wrap: 'none',
  graftHeightMm: null,
  leader: 'single',
  wounds: 'none',
  brokenBranches: false,
  firstBranchM: null,
  bestFaceDeg: null,
};
const open = async () => {
  const id = uuidv7();
  const asked = { id, orderId, arrivedOn: '2026-11-20' };
  const answer = await cora.send<Delivery>('POST', '/api/deliveries', asked);
  return { ...answer, asked };
};
const lotOf = (delivery: Delivery): Lot => delivery.lots[0] as Lot;
const receive = (lot: Lot, change: object = {}) => {
  const body = { version: lot.version, arrived: 3, opened: 3, bad: 0, tree, verdict: null, reason: '', ...change };
  return cora.send<Delivery>('PUT', `/api/lots/${lot.id}`, body);
};

describe('a delivery', () => {
  it('is opened from its order once, with what is expected', async () => {
    const before = await cora.send<DeliveryList>('GET', '/api/deliveries');
    expect(before.body.awaited).toMatchObject([{ id: orderId, nursery: 'Viveiro Azul', trees: 3 }]);
    const { status, body, asked } = await open();
    expect([status, body.lots.map(({ species, expected, arrived }) => [species, expected, arrived])]).toEqual([
      201,
      [['Quercus ilex', 3, null]],
    ]);
    expect((await cora.send('POST', '/api/deliveries', asked)).status).toBe(201);
    const after = await cora.send<DeliveryList>('GET', '/api/deliveries');
    expect([after.body.awaited, after.body.deliveries.length]).toEqual([[], 1]);
    expect((await vic.send('POST', '/api/deliveries', { ...asked, id: uuidv7() })).status).toBe(403);
  });

  it('says how it came and when what waits was watered', async () => {
    const { body } = await open();
    const state = { version: body.version, covered: true, moist: false, holding: 'Depot shade', note: '' };
    expect((await cora.send<Delivery>('PUT', `/api/deliveries/${body.id}`, state)).body).toMatchObject({
      moist: false,
      holding: 'Depot shade',
      version: 2,
    });
    expect((await cora.send('PUT', `/api/deliveries/${body.id}`, state)).status).toBe(409);
    const water = () => cora.send<Delivery>('POST', `/api/deliveries/${body.id}/water`, { onDay: '2026-11-21' });
    await water();
    expect((await water()).body.wateredOn).toEqual(['2026-11-21']);
  });

  it('refuses counts that cannot be and a return without a reason, by field', async () => {
    const { body } = await open();
    const lot = lotOf(body);
    const faults = async (change: object) => JSON.stringify((await receive(lot, change)).body);
    expect(await faults({ arrived: 2 })).toContain('must be at most what arrived, 2, got 3');
    expect(await faults({ bad: 4 })).toContain('must be at most what was opened, 3, got 4');
    expect(await faults({ verdict: 'return' })).toContain('must say why');
    expect((await receive({ ...lot, version: 9 })).status).toBe(409);
  });

  it('that is pot-bound goes back with a claim that counts, says why and names the terms', async () => {
    const { body } = await open();
    expect((await cora.send('GET', `/api/deliveries/${body.id}/claim`)).status).toBe(404);
    const bad = { ...tree, circlingPct: 70 };
    const { status } = await receive(lotOf(body), {
      arrived: 2,
      opened: 2,
      bad: 2,
      tree: bad,
      verdict: 'return',
      reason: 'both pot-bound',
    });
    expect(status).toBe(200);
    const { bytes } = await cora.bytes('GET', `/api/deliveries/${body.id}/claim`);
    const text = pdfText(bytes).join(' ');
    expect(text).toContain('ordered 3, arrived 2, opened 2, bad 2, returned 2, missing 1; 270.00 EUR');
    expect(text).toContain('circling roots cover 70 %');
    expect(text).toContain('both pot-bound');
    const life = await cora.spot(spots[0] ?? '');
    expect(life.records.some(({ kind }) => kind === 'stock')).toBe(false);
  });

  it('that is accepted gives its measures to the places its trees are for, the deepest roots counting', async () => {
    const { body } = await open();
    await receive(lotOf(body), { arrived: 2, opened: 2, verdict: 'accept' });
    const stocks = await Promise.all(
      spots.map(async (spotId) => (await cora.spot(spotId)).records.find(({ kind }) => kind === 'stock')?.facts),
    );
    expect(stocks).toEqual([
      expect.objectContaining({ topRootsDepthMm: 60, ballDiameterMm: 450 }),
      expect.objectContaining({ topRootsDepthMm: 60 }),
      // Two arrived: the third place still waits.
      undefined,
    ]);
  });

  it('keeps a picture of a lot, and nothing that is no picture', async () => {
    const { body } = await open();
    const put = (bytes: Uint8Array) =>
      cora.send('PUT', `/api/lots/${lotOf(body).id}/photo`, bytes, { 'content-type': 'image/jpeg' });
    expect((await put(new TextEncoder().encode('%PDF-1.7 not a picture'))).status).toBe(400);
    expect((await put(new Uint8Array(7_000_000))).status).toBe(413);
    expect((await put(Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 0, 16]))).status).toBe(200);
  });
});
