import type { BatchReceipt, SendRecord } from '@sombra/contract';
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
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  today = await programmeToday(town.db);
});
afterAll(() => town.stop());

let number = 0;
const newSpot = () => town.addSpot(`M-${(number += 1)}`);
async function plantedTree(): Promise<string> {
  const { spotId } = await newSpot();
  await cora.record(sending(spotId, { kind: 'ground', facts: loam }, 1));
  await cora.record(sending(spotId, { kind: 'stock', facts: container }, 2));
  await cora.record(sending(spotId, planting('2026-01-10')));
  return spotId;
}
const here: [number, number] = [-25.4, 36.9];
const there: [number, number] = [-25.40002, 36.90001];
const move = (spotId: string, from = here, to = there) =>
  sending(spotId, { kind: 'move', facts: { movedOn: today, from, to, reason: 'rock at 300 mm' } });
const takeBack = (spotId: string, supersedes: string) =>
  sending(spotId, { kind: 'retraction', facts: { reason: 'wrong spot' }, supersedes });

describe('moving a spot', () => {
  it('sets it elsewhere, with its reason on record, and back when the move is taken back', async () => {
    const { spotId } = await newSpot();
    const sent = move(spotId);
    expect((await cora.record(sent)).status).toBe(201);
    expect((await cora.spot(spotId)).spot.position).toEqual(there);
    expect((await cora.record(takeBack(spotId, sent.record.id))).status).toBe(201);
    const after = await cora.spot(spotId);
    expect(after.spot.position).toEqual(here);
    expect(after.records.map(({ kind }) => kind)).toEqual(['move', 'retraction']);
  });

  it('falls back to the move before, not to the beginning', async () => {
    const { spotId } = await newSpot();
    const further: [number, number] = [-25.40005, 36.90001];
    await cora.record(move(spotId));
    const second = move(spotId, there, further);
    await cora.record(second);
    await cora.record(takeBack(spotId, second.record.id));
    expect((await cora.spot(spotId)).spot.position).toEqual(there);
  });

  it('is refused from where the spot no longer is, and under a planted tree', async () => {
    const { spotId } = await newSpot();
    await cora.record(move(spotId));
    const stale = await cora.send('POST', '/api/records', move(spotId));
    expect([stale.status, stale.body.title]).toEqual([
      409,
      'Someone moved this spot first. Nothing of yours was stored yet.',
    ]);
    const planted = await cora.send('POST', '/api/records', move(await plantedTree()));
    expect(planted.status).toBe(400);
  });

  it.each([
    [{ reason: 'no' }, 'record.facts.reason'],
    [{ to: [-25.4, 99] }, 'record.facts.to.1'],
  ])('asks for a reason and a place on earth: %j', async (change, path) => {
    const { spotId } = await newSpot();
    const sent = move(spotId);
    const record = { ...sent.record, facts: { ...sent.record.facts, ...change } };
    const { status, body } = await cora.send('POST', '/api/records', { ...sent, record });
    expect([status, body.issues?.[0]?.path]).toEqual([400, path]);
  });
});

describe('taking back', () => {
  it('undoes a remedy: what it settled waits again', async () => {
    const spotId = await plantedTree();
    await cora.record(
      sending(spotId, { ...look('2026-03-01'), facts: { ...look('2026-03-01').facts, stake: 'biting' } }),
    );
    const done = sending(spotId, {
      kind: 'remedy',
      facts: { remedy: 'free_tie_now', doneOn: '2026-03-02', seen: { stake: 'none' } },
    });
    const open = async () =>
      Number((await town.db('decision').where({ spot_id: spotId, remedy: 'free_tie_now', until_day: null })).length);
    expect(await open()).toBe(1);
    await cora.record(done);
    expect(await open()).toBe(0);
    await cora.record(takeBack(spotId, done.record.id));
    expect(await open()).toBe(1);
  });

  it('is refused for facts others build on, for another spot, and twice', async () => {
    const spotId = await plantedTree();
    const { records } = await cora.spot(spotId);
    const ground = records.find(({ kind }) => kind === 'ground');
    expect((await cora.record(takeBack(spotId, ground?.id ?? ''))).status).toBe(400);
    const done = sending(spotId, { kind: 'remedy', facts: { remedy: 'thin_mulch', doneOn: '2026-03-02' } });
    await cora.record(done);
    const { spotId: other } = await newSpot();
    expect((await cora.record(takeBack(other, done.record.id))).status).toBe(400);
    expect((await cora.record(takeBack(spotId, done.record.id))).status).toBe(201);
    expect((await cora.record(takeBack(spotId, done.record.id))).status).toBe(409);
  });
});

describe('taking back what somebody else decided', () => {
  it('is for who may decide it: not for an inspector', async () => {
    const { spotId } = await newSpot();
    const verdict = sending(spotId, {
      kind: 'verdict',
      facts: { decidedOn: '2026-03-01', verdict: 'plant', reason: 'wide verge' },
    });
    const choice = sending(spotId, {
      kind: 'choice',
      facts: { chosenOn: '2026-03-01', species: 'Quercus ilex', stockKind: null, caliperMm: null, reason: '' },
    });
    const override = sending(spotId, {
      kind: 'override',
      facts: { decidedOn: '2026-03-01', path: 'berm.where', value: 'none', reason: 'ponds' },
    });
    const iva = await Visitor.signedIn(town.url, 'iva');
    for (const sent of [verdict, choice, override]) {
      expect((await cora.record(sent)).status).toBe(201);
      expect((await iva.record(takeBack(spotId, sent.record.id))).status).toBe(403);
    }
    expect((await cora.spot(spotId)).records.map(({ kind }) => kind)).not.toContain('retraction');
    expect((await cora.record(takeBack(spotId, verdict.record.id))).status).toBe(201);
  });
});

describe('one act on several spots', () => {
  const remedies = (spotIds: readonly string[], doneOn = '2026-03-02'): SendRecord[] =>
    spotIds.map((spotId) => sending(spotId, { kind: 'remedy', facts: { remedy: 'remove_stake', doneOn } }));

  it('keeps all records, once, in the order they were sent', async () => {
    const spotIds = [await plantedTree(), await plantedTree()];
    const records = remedies(spotIds);
    const send = () => cora.send<BatchReceipt>('POST', '/api/records/batch', { records });
    const first = await send();
    expect(first.body.receipts.map(({ id, stored }) => [id, stored])).toEqual(
      records.map(({ record }) => [record.id, true]),
    );
    expect((await send()).body.receipts.every(({ stored }) => !stored)).toBe(true);
  });

  it('keeps none when one of them does not fit', async () => {
    const good = await plantedTree();
    const { spotId: unplanted } = await newSpot();
    const { status } = await cora.send('POST', '/api/records/batch', { records: remedies([good, unplanted]) });
    expect(status).toBe(400);
    expect((await cora.spot(good)).records.some(({ kind }) => kind === 'remedy')).toBe(false);
  });

  it('is refused when it is too much at once', async () => {
    const records = remedies(Array.from({ length: 501 }, () => uuidv7()));
    expect((await cora.send('POST', '/api/records/batch', { records })).status).toBe(400);
  });
});

describe('two people at one tree', () => {
  const dry = { ...look('2026-02-10').facts, probe: 'dry' as const };
  it('both stand, and the desk is asked until somebody says which', async () => {
    const spotId = await plantedTree();
    const iva = await Visitor.signedIn(town.url, 'iva');
    const first = sending(spotId, look('2026-02-10'));
    const wet = sending(spotId, { kind: 'inspection', facts: { ...dry, probe: 'saturated' } });
    expect((await cora.record(sending(spotId, { kind: 'inspection', facts: dry }))).status).toBe(201);
    expect((await iva.record(wet)).status).toBe(201);
    const asked = async () => {
      const { body } = await cora.send<{ lines: { spotId: string; kind: string }[] }>('GET', '/api/desk');
      return body.lines.filter((line) => line.spotId === spotId && line.kind === 'settle_contradiction').length;
    };
    expect(await asked()).toBe(1);
    const { records } = await cora.spot(spotId);
    const [one, other] = records.filter(({ kind }) => kind === 'inspection').map(({ id }) => id);
    const settle = (facts: object) =>
      cora.send('POST', '/api/records', sending(spotId, { kind: 'both_stand', facts: facts as never }));
    const said = { first: one, second: other, decidedOn: today, reason: 'two depths' };
    expect((await settle({ ...said, second: first.record.id })).status).toBe(400);
    expect((await iva.send('POST', '/api/records', sending(spotId, { kind: 'both_stand', facts: said }))).status).toBe(
      403,
    );
    expect((await settle(said)).status).toBe(201);
    expect(await asked()).toBe(0);
    expect((await settle(said)).status).toBe(400);
  });

  it('a planting told twice loses one of them, and the only one stays', async () => {
    const spotId = await plantedTree();
    const again = sending(spotId, planting('2026-01-11'));
    await cora.record(again);
    expect((await cora.record(takeBack(spotId, again.record.id))).status).toBe(201);
    const [only] = (await cora.spot(spotId)).records.filter(
      ({ kind, id }) => kind === 'planting' && id !== again.record.id,
    );
    const { status, body } = await cora.send('POST', '/api/records', takeBack(spotId, only?.id ?? ''));
    expect([status, body.issues?.[0]?.path]).toEqual([400, 'record.supersedes']);
  });
});
