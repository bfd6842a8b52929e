import type { KeptSpecies, Offers, Problem, RowReport, SeasonList } from '@sombra/contract';
import { shippedSpecies, unknownAssessment } from '@sombra/core';
import loadHighs from 'highs';
import { v7 as uuidv7 } from 'uuid';
import { loam, openTestTown, planting, sending, Visitor, type TestTown } from '../../testing/test-town';
import { workOnNext, type ListSolver } from './list-service';
import { runModel } from './run-model';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
let vic: Visitor;
let today: string;
const solver: ListSolver = {
  async solve(model, { limitS }) {
    return runModel(await loadHighs(), model, { limitS });
  },
};
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  vic = await Visitor.signedIn(town.url, 'vic');
  today = await programmeToday(town.db);
});
afterAll(() => town.stop());

const csv = (text: string) => new TextEncoder().encode(text);
const offersFile = (rows: readonly string[]) =>
  csv(`species,stock_kind,caliper_mm,height_m,price,available\n${rows.join('\n')}\n`);
const sendOffers = (rows: readonly string[], nursery = 'Viveiro Azul') =>
  cora.send<RowReport>('POST', `/api/offers/import?nursery=${encodeURIComponent(nursery)}`, offersFile(rows), {
    'content-type': 'text/csv',
  });

describe('the species library', () => {
  it('ships, is edited one version after another, and travels as CSV', async () => {
    const { body } = await cora.send<KeptSpecies[]>('GET', '/api/species');
    expect(body).toHaveLength(shippedSpecies.length);
    const suber = body.find(({ species }) => species.botanical === 'Quercus suber');
    const save = (version: number) =>
      cora.send('PUT', '/api/species', { species: { ...suber?.species, notes: 'Seen.' }, version });
    expect((await save(1)).status).toBe(200);
    expect((await save(1)).status).toBe(409);
    const file = await cora.send<string>('GET', '/api/species.csv');
    expect(file.body).toContain('Quercus suber,cork oak,Fagaceae');
    const again = await cora.send<RowReport>('POST', '/api/species/import', csv(file.body), {
      'content-type': 'text/csv',
    });
    expect(again.body).toEqual({ written: 0, same: shippedSpecies.length, issues: [] });
    expect((await vic.send('PUT', '/api/species', { species: suber?.species, version: 2 })).status).toBe(403);
  });

  it('names the bad rows of a file by row and column, and takes the rest', async () => {
    const { body } = await cora.send<string>('GET', '/api/species.csv');
    const [header = '', first = ''] = body.split('\r\n');
    const fresh = first.replace(/^[^,]+/, 'Acer novum');
    const flat = first
      .replace(/^[^,]+/, 'Acer planum')
      .split(',')
      .map((cell, i) => (i === 3 || i === 4 ? '' : cell))
      .join(',');
    const { body: report } = await cora.send<RowReport>(
      'POST',
      '/api/species/import',
      csv([header, fresh, flat, fresh].join('\n')),
      { 'content-type': 'text/csv' },
    );
    expect(report.written).toBe(1);
    expect(report.issues.map(({ row, column }) => [row, column])).toEqual([
      [3, 'height_min_m'],
      [3, 'height_max_m'],
      [4, 'botanical'],
    ]);
  });
});

describe('an availability list', () => {
  it('takes the place of the last one of its nursery', async () => {
    expect(
      (await sendOffers(['Quercus ilex,container,40,3,95.5,12', 'Acer campestre,balled,60,,140,5'])).body,
    ).toMatchObject({ written: 2, issues: [] });
    await sendOffers(['Quercus ilex,container,40,3,90,10']);
    const { body } = await cora.send<Offers>('GET', '/api/offers');
    expect(body.offers.map(({ species, price, available }) => [species, price, available])).toEqual([
      ['Quercus ilex', 90, 10],
    ]);
    expect(body.nurseries).toMatchObject([{ name: 'Viveiro Azul', offers: 1, listDay: today }]);
  });

  it('with the same tree twice is refused whole, both rows named, and the last list stays', async () => {
    await sendOffers(['Quercus ilex,container,40,3,90,10']);
    const { body } = await sendOffers([
      'Acer campestre,container,40,3,80,4',
      'Quercus ilex,container,40,3,90,10',
      'Acer campestre,container,40,3,85,9',
    ]);
    expect(body).toEqual({
      written: 0,
      same: 0,
      issues: [{ row: 4, column: 'species', message: expect.stringContaining('row 2') as string }],
    });
    expect((await cora.send<Offers>('GET', '/api/offers')).body.offers).toHaveLength(1);
    const missing = await cora.send('POST', '/api/offers/import?nursery=Azul', csv('species,price\nQuercus ilex,3\n'), {
      'content-type': 'text/csv',
    });
    expect([missing.status, missing.body.title]).toEqual([
      400,
      expect.stringContaining('stock_kind, caliper_mm, available'),
    ]);
  });

  it('says when the nursery service is away', async () => {
    const answer = await cora.send('POST', '/api/offers/read');
    expect([answer.status, answer.body.title]).toEqual([409, expect.stringContaining('does not answer')]);
  });
});

describe("the season's list", () => {
  async function place(ref: string, change: object = {}): Promise<string> {
    const { spotId } = await town.addSpot(ref);
    const version = async () => (await cora.spot(spotId)).spot.version;
    await cora.record(sending(spotId, { kind: 'ground', facts: { ...loam, ...change } }, await version()));
    const seen = {
      ...unknownAssessment('2026-11-20'),
      owner: 'road' as const,
      privateLines: 'none' as const,
      openSoilM2: 80,
      soilDepthMm: 900,
      sunHours: 9,
    };
    await cora.record(sending(spotId, { kind: 'assessment', facts: seen }, await version()));
    await cora.record(
      sending(spotId, { kind: 'verdict', facts: { decidedOn: '2026-11-21', verdict: 'plant', reason: 'clear' } }),
    );
    return spotId;
  }
  const ask = async (spotIds: string[], change: object = {}) => {
    const body = {
      id: uuidv7(),
      title: 'Winter list',
      spotIds,
      budget: null,
      plantOn: '2026-12-10',
      stockKinds: ['container', 'balled'],
      locks: [],
      ...change,
    };
    const { status } = await cora.send('POST', '/api/lists', body);
    expect(status).toBe(201);
    return body.id;
  };
  const read = async (id: string) => (await cora.send<SeasonList>('GET', `/api/lists/${id}`)).body;
  // A population large enough that shares leave room.
  beforeAll(async () => {
    await town.db('rules').insert({
      version: 2,
      made_by: 'test',
      body: town.db.raw(
        `(select jsonb_set(jsonb_set(body, '{match,diversity}', '{"speciesPct":100,"genusPct":100,"familyPct":100}'), '{ground,version}', '2') from rules where version = 1)`,
      ),
    });
  });

  it('is worked out, explained, accepted and ordered, and its choices can be seen at the places', async () => {
    const spots = [await place('L-0001'), await place('L-0002', { wireHeightM: 8 })];
    await sendOffers([
      'Quercus ilex,container,40,3,90,10',
      'Celtis australis,balled,60,4,150,3',
      'Arbutus unedo,container,35,2.5,70,5',
    ]);
    const id = await ask(spots);
    expect((await read(id)).state).toBe('queued');
    expect(await workOnNext(town.db, solver)).toBe(true);
    const list = await read(id);
    expect(list).toMatchObject({ state: 'solved', problem: null, result: { without: [], relax: [] } });
    // Under a wire of 8 m only the strawberry tree stays.
    const under = list.result?.picks.find(({ spotId }) => spotId === spots[1]);
    expect(list.result?.offers.find(({ id: offer }) => offer === under?.offerId)?.species).toBe('Arbutus unedo');
    expect(list.result?.gap).toBeLessThan(1e-4);
    const total = (counts: readonly { count: number }[]) => counts.reduce((sum, { count }) => sum + count, 0);
    expect(total(list.result?.after ?? [])).toBe(total(list.result?.before ?? []) + 2);

    const { body: accepted } = await cora.send<SeasonList>('POST', `/api/lists/${id}/accept`);
    expect(accepted).toMatchObject({ state: 'accepted', orders: [{ nursery: 'Viveiro Azul', trees: 2 }] });
    expect((await cora.send('POST', `/api/lists/${id}/accept`)).status).toBe(200);
    const spot = await cora.spot(spots[1] ?? '');
    expect([spot.tree?.species, spot.records.filter(({ kind }) => kind === 'choice').length]).toEqual([
      'Arbutus unedo',
      1,
    ]);
    const orderId = accepted.orders[0]?.id ?? '';
    const sheet = await cora.send<string>('GET', `/api/orders/${orderId}.csv`);
    expect(sheet.body).toContain('Arbutus unedo,container,35,2.5,1,70.00,70.00,L-0002');
    const pdf = await cora.send<string>('GET', `/api/orders/${orderId}.pdf`);
    expect([pdf.headers.get('content-type'), pdf.body.startsWith('%PDF-')]).toEqual(['application/pdf', true]);
  });

  it('orders a tree for a place once, whatever lists name it, until it is planted or sent back', async () => {
    const [shared, own] = [await place('L-0401'), await place('L-0402')];
    await sendOffers(['Quercus ilex,container,40,3,90,10']);
    const lists = [await ask([shared]), await ask([shared, own])];
    await workOnNext(town.db, solver);
    await workOnNext(town.db, solver);
    const accept = (id: string | undefined) => cora.send<SeasonList & Problem>('POST', `/api/lists/${id}/accept`);
    const answers = await Promise.all(lists.map(accept));
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect(answers.find(({ status }) => status === 409)?.body.title).toContain('L-0401');
    const held = () => town.db('ordered_place').where({ spot_id: shared, released_at: null });
    expect(await held()).toHaveLength(1);
    const records = (await cora.spot(shared)).records.filter(({ kind }) => kind === 'choice');
    expect(records).toHaveLength(1);
    await town.db('programme').update({ tickets_since: '2027-01-01' });
    await cora.record(sending(shared, planting('2026-11-20')));
    expect(await held()).toEqual([]);
    await town.db('programme').update({ tickets_since: '2026-01-01' });
  });

  it('says which limits to relax when there is none, and which places nothing suits', async () => {
    const spots = [await place('L-0101'), await place('L-0102')];
    await sendOffers(['Quercus ilex,container,40,3,90,10']);
    const poor = await ask(spots, { budget: 100 });
    await workOnNext(town.db, solver);
    expect(await read(poor)).toMatchObject({
      state: 'infeasible',
      result: { relax: [{ limit: { kind: 'budget', most: 100 }, by: 80 }] },
    });
    const low = await place('L-0103', { wireHeightM: 5 });
    const none = await ask([low]);
    await workOnNext(town.db, solver);
    const { result } = await read(none);
    expect(result?.without[0]?.why).toMatch(/No species on offer suits it. Most often: Grows to 17.0 m/);
  });

  it('leaves out stock that is out of season on the day of planting', async () => {
    await sendOffers(['Quercus ilex,balled,60,4,90,10']);
    await town
      .db('programme')
      .update({ planting_windows: JSON.stringify([{ stock: 'balled', from: '11-01', to: '03-15', because: 'x' }]) });
    const id = await ask([await place('L-0201')], { plantOn: '2027-06-10' });
    await workOnNext(town.db, solver);
    expect((await read(id)).result?.without[0]?.why).toMatch(
      /Nothing on offer is of the kinds asked for and in season/,
    );
  });

  it('is cancelled while it waits, and made by the coordinator alone', async () => {
    const id = await ask([await place('L-0301')]);
    expect((await cora.send<SeasonList>('POST', `/api/lists/${id}/cancel`)).body.state).toBe('cancelled');
    expect(await workOnNext(town.db, solver)).toBe(false);
    expect((await cora.send('POST', `/api/lists/${id}/accept`)).status).toBe(409);
    const body = {
      id: uuidv7(),
      title: 'x list',
      spotIds: [uuidv7()],
      budget: null,
      plantOn: today,
      stockKinds: ['container'],
      locks: [],
    };
    expect((await vic.send('POST', '/api/lists', body)).status).toBe(403);
  });
});
