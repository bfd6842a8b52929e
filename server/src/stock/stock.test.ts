import type { Delivery, DeliveryList, Lot, Problem, SeasonList, SeasonMaterials } from '@sombra/contract';
import {
  expectedStock,
  fieldDefault,
  judgeReceived,
  pitPlan,
  unknownAssessment,
  unseenTree,
  type ReceivedTree,
} from '@sombra/core';
import loadHighs from 'highs';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { workOnNext, type ListSolver } from '../match/list-service';
import { runModel } from '../match/run-model';
import { pdfText } from '../../testing/pdf-text';
import { loam, openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';

let town: TestTown;
let cora: Visitor;
let vic: Visitor;
let orderId: string;
let listId: string;
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
  listId = id;
});
afterAll(() => town.stop());

const tree: ReceivedTree = {
  ...unseenTree,
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  probes: [
    { depthMm: 40, nature: 'structural' },
    { depthMm: 60, nature: 'structural' },
    { depthMm: 15, nature: 'adventitious' },
  ],
  circlingPct: 5,
};
let opened = 0;
/** The order, and for every further delivery another like it: an order is delivered once. */
async function orderToOpen(): Promise<string> {
  opened += 1;
  if (opened === 1) return orderId;
  const [order] = (await town.db('nursery_order').where({ id: orderId })) as [{ body: unknown; number: string }];
  const again = { ...order, body: JSON.stringify(order.body), id: uuidv7(), number: `${order.number}/${opened}` };
  await town.db('nursery_order').insert(again);
  return again.id;
}
const open = async () => {
  const id = uuidv7();
  const asked = { id, orderId: await orderToOpen(), arrivedOn: '2026-11-20' };
  const answer = await cora.send<Delivery>('POST', '/api/deliveries', asked);
  return { ...answer, asked };
};
const lotOf = (delivery: Delivery): Lot => delivery.lots[0] as Lot;
const seen = (change: Partial<ReceivedTree> = {}, supersedes: string | null = null) => ({
  id: uuidv7(),
  seenAt: '2026-11-20T09:00:00Z',
  supersedes,
  tree: { ...tree, ...change },
});
const look = (lot: Lot, body: object) => cora.send<Delivery & Problem>('POST', `/api/lots/${lot.id}/trees`, body);
const receive = (lot: Lot, change: object = {}) => {
  const body = { version: lot.version, arrived: 3, verdict: null, reason: '', ...change };
  return cora.send<Delivery & Problem>('PUT', `/api/lots/${lot.id}`, body);
};
const picture = (edge: number, exif: object = {}) =>
  sharp({ create: { width: edge, height: edge, channels: 3, background: '#6a5' } })
    .withExif(exif)
    .jpeg()
    .toBuffer();

describe('materials of a season’s list', () => {
  const materials = async (query: string) => (await cora.send<SeasonMaterials>('GET', `/api/materials?${query}`)).body;

  it('are counted before anything has come, by balls taken from what was ordered, by any practice', async () => {
    const sum = await materials(`list=${listId}`);
    expect([sum.title, sum.spots.map(({ ref, species }) => [ref, species]), sum.expected]).toEqual([
      'Winter list',
      [
        ['D-0001', 'Quercus ilex'],
        ['D-0002', 'Quercus ilex'],
        ['D-0003', 'Quercus ilex'],
      ],
      3,
    ]);
    // Container, caliper 50: a ball of 500 by 450 mm, of which the plan asks so much mulch three times.
    const plan = pitPlan({
      ground: loam,
      stock: expectedStock({ kind: 'container', caliperMm: 50 }),
      practice: fieldDefault,
    });
    if (plan.kind === 'no_plan') throw new Error('no plan');
    expect(sum.lines.find(({ code }) => code === 'mulch')?.needed).toBeCloseTo(3 * plan.mulchL.value, 6);
    const enriched = await materials(`list=${listId}&practice=garden-enriched&version=1`);
    expect(enriched.lines.some(({ code }) => code === 'coarse_compost')).toBe(true);
    expect((await cora.send('GET', `/api/materials?list=${uuidv7()}`)).status).toBe(404);
  });
});

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
    const rhythm = { ...state, version: 2, wateredEveryDays: 1.5 };
    expect((await cora.send<Delivery>('PUT', `/api/deliveries/${body.id}`, rhythm)).body.wateredEveryDays).toBe(1.5);
    // A page that does not know of it leaves it alone.
    const older = { ...state, version: 3 };
    expect((await cora.send<Delivery>('PUT', `/api/deliveries/${body.id}`, older)).body.wateredEveryDays).toBe(1.5);
    const never = { ...state, version: 4, wateredEveryDays: 0 };
    expect((await cora.send('PUT', `/api/deliveries/${body.id}`, never)).status).toBe(400);
    const water = () => cora.send<Delivery>('POST', `/api/deliveries/${body.id}/water`, { onDay: '2026-11-21' });
    await water();
    expect((await water()).body.wateredOn).toEqual(['2026-11-21']);
  });

  it('opens its trees one by one, each kept once, and corrects one by a new look', async () => {
    const { body } = await open();
    const lot = lotOf(body);
    const first = seen({ circlingPct: 70 });
    expect((await look(lot, first)).status).toBe(201);
    expect((await look(lot, first)).body.lots[0]?.trees).toHaveLength(1);
    const corrected = await look(lot, seen({ circlingPct: 7 }, first.id));
    expect(corrected.body.lots[0]?.trees.map((one) => one.tree.circlingPct)).toEqual([7]);
    // The one corrected before is no longer there to be corrected.
    expect((await look(lot, seen({}, first.id))).status).toBe(409);
    expect(await town.db('lot_tree').where({ lot_id: lot.id })).toHaveLength(2);
    expect((await vic.send('POST', `/api/lots/${lot.id}/trees`, seen())).status).toBe(403);
  });

  it('never has more opened than came, nor fewer arrive than were opened', async () => {
    const { body } = await open();
    const lot = lotOf(body);
    for (let i = 0; i < 3; i++) expect((await look(lot, seen())).status).toBe(201);
    const fourth = await look(lot, seen());
    expect([fourth.status, fourth.body.title]).toEqual([
      400,
      'All 3 trees of this lot are opened; count what arrived first',
    ]);
    expect(JSON.stringify((await receive(lot, { arrived: 2 })).body)).toContain('at least what was opened, 3, got 2');
    // Sent again by a device that lost the answer, a tree that is there already is no fourth.
    const third = (await cora.send<Delivery>('GET', `/api/deliveries/${body.id}`)).body.lots[0]?.trees[2];
    expect((await look(lot, { ...seen(), id: third?.id })).status).toBe(201);
  });

  it('refuses roots deeper than the ball, more surplus left than there is, and a return without a reason', async () => {
    const { body } = await open();
    const lot = lotOf(body);
    const faults = async (change: Partial<ReceivedTree>) => JSON.stringify((await look(lot, seen(change))).body.issues);
    expect(await faults({ ballHeightMm: 300, probes: [{ depthMm: 320, nature: 'structural' }] })).toContain(
      'must be less than the ball height, 300 mm, got 320',
    );
    expect(await faults({ surplusLeftMm: 80 })).toContain('must be at most the surplus, 60 mm, got 80');
    expect(JSON.stringify((await receive(lot, { verdict: 'return' })).body)).toContain('must say why');
    expect((await receive({ ...lot, version: 9 })).status).toBe(409);
  });

  it('is read whole where a tree was kept before something was asked', async () => {
    const lot = lotOf((await open()).body);
    // As a version kept it that did not ask for the kind.
    const { kind: _notAsked, ...older } = tree;
    const kept = { id: uuidv7(), lot_id: lot.id, seen_by: 'Bento', seen_at: '2026-11-20T08:00:00Z' };
    await town.db('lot_tree').insert({ ...kept, tree: JSON.stringify(older) });
    const { body } = await look(lot, seen());
    const trees = lotOf(body).trees.map((one) => one.tree);
    expect(trees.map(({ kind }) => kind)).toEqual([null, null]);
    const judged = judgeReceived(trees[0] ?? unseenTree, { kind: 'container', caliperMm: 50 }, body.rules);
    expect(judged.because.map(({ code }) => code)).not.toContain('stock_wrong_kind');
  });

  it('is judged by the practice it was opened under, to the end', async () => {
    const { body } = await open();
    expect([body.practice.id, body.rules.circlingReturnPct]).toEqual(['field-default', 50]);
    await cora.send('POST', '/api/practices/adopt', { id: 'many-hands', version: 1 });
    const later = await cora.send<Delivery>('GET', `/api/deliveries/${body.id}`);
    expect(later.body.practice.id).toBe('field-default');
    await cora.send('POST', '/api/practices/adopt', { id: 'field-default', version: 1 });
  });

  it('that is pot-bound goes back with a claim that counts, says why and names the terms', async () => {
    const { body } = await open();
    expect((await cora.send('GET', `/api/deliveries/${body.id}/claim`)).status).toBe(404);
    const lot = lotOf(body);
    for (let i = 0; i < 2; i++) await look(lot, seen({ circlingPct: 70 }));
    const { status } = await receive(lot, { arrived: 2, verdict: 'return', reason: 'both pot-bound' });
    expect(status).toBe(200);
    const { bytes } = await cora.bytes('GET', `/api/deliveries/${body.id}/claim`);
    const text = pdfText(bytes).join(' ');
    expect(text).toContain('ordered 3, arrived 2, opened 2, bad 2, returned 2, missing 1; 270.00 EUR');
    expect(text).toContain('Tree 2: Pot-bound: circling roots cover 70 %');
    expect(text).toContain('both pot-bound');
    const life = await cora.spot(spots[0] ?? '');
    expect(life.records.some(({ kind }) => kind === 'stock')).toBe(false);
  });

  it('stands with all others of its nursery in one claim', async () => {
    const { body } = await open();
    await receive(lotOf(body), { arrived: 2 });
    const { claims } = (await cora.send<DeliveryList>('GET', '/api/deliveries')).body;
    // Two returned and one missing of the delivery before, one missing of this.
    expect(claims).toEqual([{ nursery: 'Viveiro Azul', returned: 2, missing: 2, deliveries: 2 }]);
    const { bytes } = await cora.bytes('GET', '/api/claims?nursery=Viveiro%20Azul');
    expect(pdfText(bytes).join(' ')).toContain('Claimed: 360.00 EUR');
    expect((await cora.send('GET', '/api/claims?nursery=Nobody')).status).toBe(404);
  });

  it('that is taken gives its measures to the places its trees are for, and sends single bad ones back', async () => {
    const { body } = await open();
    const lot = lotOf(body);
    await look(lot, seen({ heightM: 3.4, firstBranchM: 1.6 }));
    await look(lot, seen({ circlingPct: 80 }));
    await receive(lot, { arrived: 3, verdict: 'accept' });
    const stocks = await Promise.all(
      spots.map(async (spotId) => (await cora.spot(spotId)).records.find(({ kind }) => kind === 'stock')?.facts),
    );
    expect(stocks).toEqual([
      // The one opened, with its deepest structural roots; the adventitious ones set no depth.
      expect.objectContaining({ topRootsDepthMm: 60, heightM: 3.4, firstBranchM: 1.6 }),
      // The one nobody opened is taken to be like it.
      expect.objectContaining({ topRootsDepthMm: 60 }),
      // The bad one goes back: its place still waits.
      undefined,
    ]);
    const { bytes } = await cora.bytes('GET', `/api/deliveries/${body.id}/claim`);
    expect(pdfText(bytes).join(' ')).toContain('returned 1, missing 0');
  });

  it('keeps the picture of a tree drawn anew, without where it was taken unless that is sent along', async () => {
    const { body } = await open();
    const one = seen();
    await look(lotOf(body), one);
    const put = (bytes: Uint8Array, query = '') =>
      cora.send<Delivery & Problem>('PUT', `/api/lot-trees/${one.id}/photo${query}`, bytes, {
        'content-type': 'image/jpeg',
      });
    expect((await put(new TextEncoder().encode('%PDF-1.7 not a picture'))).status).toBe(400);
    // Begins like a picture and is none.
    expect((await put(Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 0, 16]))).body.title).toBe(
      'The file is not a picture that can be read whole',
    );
    expect((await put(new Uint8Array(40_000_000))).status).toBe(413);
    const camera = await picture(2400, { IFD0: { Make: 'Camera', Copyright: 'somebody' } });
    expect((await sharp(camera).metadata()).exif).toBeDefined();
    expect((await put(camera)).body.lots[0]?.trees[0]).toMatchObject({ hasPhoto: true, photoAt: null });
    const { bytes } = await cora.bytes('GET', `/api/lot-trees/${one.id}/photo`);
    const kept = await sharp(bytes).metadata();
    expect([kept.width, kept.exif]).toEqual([1600, undefined]);
    const placed = await put(camera, '?lng=-25.4&lat=36.9');
    expect(placed.body.lots[0]?.trees[0]?.photoAt).toEqual([-25.4, 36.9]);
  });
});

describe('two at once', () => {
  it('open one delivery of an order, and the others are told', async () => {
    const order = await orderToOpen();
    const one = () =>
      cora.send<Problem>('POST', '/api/deliveries', { id: uuidv7(), orderId: order, arrivedOn: '2026-11-20' });
    const answers = await Promise.all([one(), one(), one()]);
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409]);
    expect(answers.find(({ status }) => status === 409)?.body.title).toContain('first; it is in the list');
    expect(await town.db('delivery').where({ order_id: order })).toHaveLength(1);
  });

  it('open no more trees than arrived', async () => {
    const { body } = await open();
    const lot = lotOf(body);
    await receive(lot, { arrived: 1 });
    const answers = await Promise.all(Array.from({ length: 5 }, () => look(lot, seen())));
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 400, 400, 400, 400]);
    const past = { id: uuidv7(), lot_id: lot.id, tree: '{}', seen_by: 'x', seen_at: new Date() };
    await expect(town.db('lot_tree').insert(past)).rejects.toThrow('opened than arrived');
  });
});
