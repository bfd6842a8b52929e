import type { Desk, SpotDetail } from '@sombra/contract';
import { unknownAssessment } from '@sombra/core';
import pg from 'pg';
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
import { rebuildAll } from '../record/derive';

let town: TestTown;
let cora: Visitor;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
});
afterAll(() => town.stop());

let count = 0;
const newSpot = () => town.addSpot(`R-${String((count += 1)).padStart(4, '0')}`);

async function planted() {
  const spot = await newSpot();
  await cora.record(sending(spot.spotId, { kind: 'ground', facts: loam }, 1));
  await cora.record(sending(spot.spotId, { kind: 'stock', facts: container }, 2));
  await cora.record(sending(spot.spotId, planting('2026-01-10')));
  return spot;
}

describe('keeping records', () => {
  it('stores a record once, however often it is sent', async () => {
    const { spotId } = await newSpot();
    const sent = sending(spotId, { kind: 'ground', facts: loam }, 1);
    const first = await cora.record(sent);
    const second = await cora.record(sent);
    expect([first.status, first.body.stored, second.status, second.body.stored]).toEqual([201, true, 200, false]);
    expect((await cora.spot(spotId)).records).toHaveLength(1);
    expect(second.body.spotVersion).toBe(2);
  });

  it('stores it once when two devices send it at the same moment', async () => {
    const { spotId } = await newSpot();
    const sent = sending(spotId, { kind: 'ground', facts: loam }, 1);
    const answers = await Promise.all([cora.record(sent), cora.record(sent), cora.record(sent)]);
    expect(answers.filter(({ status }) => status === 201)).toHaveLength(1);
    expect((await cora.spot(spotId)).records).toHaveLength(1);
  });

  it('refuses other facts under an id that is taken', async () => {
    const { spotId } = await newSpot();
    const sent = sending(spotId, { kind: 'ground', facts: loam }, 1);
    await cora.record(sent);
    const other = await cora.record({
      ...sent,
      record: { ...sent.record, facts: { ...loam, stony: true } } as typeof sent.record,
    });
    expect(other.status).toBe(409);
  });

  it('tells the second of two people at one spot, and overwrites nothing', async () => {
    const { spotId } = await newSpot();
    const otto = await Visitor.signedIn(town.url, 'otto');
    await otto.record(sending(spotId, { kind: 'ground', facts: { ...loam, slopePct: 5 } }, 1));
    const late = await cora.send(
      'POST',
      '/api/records',
      sending(spotId, { kind: 'ground', facts: { ...loam, slopePct: 9 } }, 1),
    );
    expect(late.status).toBe(409);
    expect(late.body.title).toContain('otto changed this spot');
    expect((late.body.current as SpotDetail).spot.version).toBe(2);
    expect((await cora.spot(spotId)).records.map((r) => r.facts)).toEqual([{ ...loam, slopePct: 5 }]);
  });

  it('keeps what a correction corrects, and lets each record be corrected once', async () => {
    const { spotId } = await planted();
    const [first] = (await cora.spot(spotId)).records.filter((r) => r.kind === 'planting');
    const correction = { ...planting('2026-01-11'), supersedes: first?.id ?? '' };
    expect((await cora.record(sending(spotId, correction))).status).toBe(201);
    expect((await cora.record(sending(spotId, correction))).status).toBe(409);
    expect((await cora.spot(spotId)).records.filter((r) => r.kind === 'planting')).toHaveLength(2);
  });

  it.each([
    [
      'a ball wider than any',
      { kind: 'stock', facts: { ...container, ballDiameterMm: 99999 } },
      'record.facts.ballDiameterMm',
    ],
    [
      'surplus deeper than the ball',
      { kind: 'stock', facts: { ...container, topRootsDepthMm: 420 } },
      'record.facts.topRootsDepthMm',
    ],
    ['a planting next year', planting('2199-01-01'), 'record.facts.plantedOn'],
    [
      'surroundings of next year',
      { kind: 'assessment', facts: unknownAssessment('2199-01-01') },
      'record.facts.assessedOn',
    ],
    [
      'a choice made otherwise next year',
      {
        kind: 'override',
        facts: { decidedOn: '2199-01-01', path: 'mulch.thicknessMm', value: 80, reason: 'dry corner' },
      },
      'record.facts.decidedOn',
    ],
    [
      'a remedy shown by nothing',
      { kind: 'remedy', facts: { remedy: 'remove_stake', doneOn: '2026-02-11', seen: {} } },
      'record.facts.seen',
    ],
    [
      'a remedy shown by a depth that cannot be',
      { kind: 'remedy', facts: { remedy: 'clear_to_flare', doneOn: '2026-02-11', seen: { flareDepthMm: 9000 } } },
      'record.facts.seen.flareDepthMm',
    ],
    [
      'a remedy shown by points round the trunk, whose deepest nobody said',
      { kind: 'remedy', facts: { remedy: 'clear_to_flare', doneOn: '2026-02-11', seen: { flareRoundMm: [0, 20] } } },
      'record.facts.seen',
    ],
    [
      'wood told apart by height, and not the worst of it',
      {
        kind: 'inspection',
        facts: { ...look('2026-02-10').facts, alive: 'green', aliveAt: { top: 'brittle', base: 'green' } },
      },
      'record.facts.alive',
    ],
    [
      'points round the trunk, and not the deepest of them',
      { kind: 'inspection', facts: { ...look('2026-02-10').facts, flareDepthMm: 10, flareRoundMm: [10, 60] } },
      'record.facts.flareDepthMm',
    ],
    [
      'an instrument value without its device',
      {
        kind: 'inspection',
        facts: { ...look('2026-02-10').facts, instruments: [{ kind: 'sonic', device: ' ', value: 900 }] },
      },
      'record.facts.instruments.0.device',
    ],
    [
      'a planting of ours without its hole',
      { kind: 'planting', facts: { ...planting('2026-01-10').facts, holeWidthMm: undefined } },
      'record.facts.holeWidthMm',
    ],
    [
      'a tree taken over before it was planted',
      {
        kind: 'planting',
        facts: { ...planting('2026-01-10').facts, takenOver: { on: '2025-12-31', from: 'Dock Office' } },
      },
      'record.facts.takenOver.on',
    ],
    ['a look before the planting', look('2025-12-31'), 'record.facts.inspectedOn'],
    [
      'a look at nothing',
      {
        kind: 'inspection',
        facts: {
          inspectedOn: '2026-02-10',
          flareDepthMm: null,
          mulchDepthMm: null,
          mulchContact: null,
          stake: null,
          probe: null,
          circlingRoots: null,
        },
      },
      'record.facts',
    ],
    [
      'a percolation test read after two days',
      {
        kind: 'percolation',
        facts: {
          testedOn: '2026-01-05',
          holeDepthMm: 400,
          soakedAt: null,
          filledAt: '2026-01-05T09:00:00Z',
          readings: [
            { at: '2026-01-05T09:00:00Z', levelMm: 300 },
            { at: '2026-01-07T09:01:00Z', levelMm: 290 },
          ],
        },
      },
      'record.facts.readings[1].at',
    ],
  ] as const)('refuses %s at its field and writes nothing', async (_name, record, path) => {
    const { spotId } = await planted();
    const before = await cora.spot(spotId);
    const { status, body } = await cora.send('POST', '/api/records', sending(spotId, record, before.spot.version));
    expect(status).toBe(400);
    expect(body.issues?.map((issue) => issue.path)).toEqual([path]);
    expect(await cora.spot(spotId)).toEqual(before);
  });

  it('asks for the planting before a look', async () => {
    const { spotId } = await newSpot();
    const { status, body } = await cora.send('POST', '/api/records', sending(spotId, look('2026-02-01')));
    expect([status, body.code]).toEqual([400, 'invalid_input']);
  });

  it('lets roles do their own work only', async () => {
    const { spotId } = await planted();
    const iva = await Visitor.signedIn(town.url, 'iva');
    const vic = await Visitor.signedIn(town.url, 'vic');
    expect((await iva.record(sending(spotId, look('2026-02-10')))).status).toBe(201);
    expect((await iva.record(sending(spotId, planting('2026-01-12')))).status).toBe(403);
    expect((await vic.record(sending(spotId, look('2026-02-11')))).status).toBe(403);
  });

  it('answers a spot that is not there, and an id that is none', async () => {
    expect((await cora.send('GET', `/api/spots/${uuidv7()}`)).status).toBe(404);
    expect((await cora.send('GET', '/api/spots/17')).status).toBe(404);
  });
});

describe('what follows from records', () => {
  it('moves the spot through its stages on the desk, and settles a remedy', async () => {
    const { spotId } = await planted();
    await cora.record(sending(spotId, { kind: 'inspection', facts: { ...look('2026-02-10').facts, stake: 'biting' } }));
    const lines = async () =>
      (await cora.send<Desk>('GET', '/api/desk')).body.lines.filter((line) => line.spotId === spotId);
    expect((await lines())[0]).toMatchObject({ remedy: 'free_tie_now', level: 'urgent', stage: 'inspect' });
    await cora.record(
      sending(spotId, {
        kind: 'remedy',
        facts: { remedy: 'free_tie_now', doneOn: '2026-02-11', seen: { stake: 'none' } },
      }),
    );
    expect((await lines()).map((line) => line.remedy)).not.toContain('free_tie_now');
  });

  it('can be rebuilt from the records, and the rebuild finds what was tampered with', async () => {
    const { spotId } = await planted();
    await town.db.transaction(async (trx) => {
      expect((await rebuildAll(trx)).differing).toEqual([]);
    });
    await town.db('spot_period').where({ spot_id: spotId, until_day: null }).update({ stage: 'ground' });
    await town.db.transaction(async (trx) => {
      expect((await rebuildAll(trx)).differing).toEqual([spotId]);
    });
    expect(await town.db('spot_period').where({ spot_id: spotId, until_day: null }).first('stage')).toEqual({
      stage: 'inspect',
    });
  });
});

describe('the database itself', () => {
  it('lets the application neither change nor delete a record, nor touch the audit trail', async () => {
    await planted();
    await expect(town.db('field_record').delete()).rejects.toThrow('permission denied');
    await expect(town.db('field_record').update({ device: 'x' })).rejects.toThrow('permission denied');
    await expect(town.db('audit').delete()).rejects.toThrow('permission denied');
    await expect(town.db('audit').insert({ actor: 'x', table_name: 'x', act: 'x' })).rejects.toThrow(
      'permission denied',
    );
  });

  it('takes only kinds it knows, and of a tree only with its tree', async () => {
    const { spotId } = await planted();
    const row = {
      spot_id: spotId,
      facts: '{}',
      recorded_at: new Date(),
      happened_at: new Date(),
      recorded_by: 'x',
      device: 'x',
    };
    const add = (kind: string) => town.db('field_record').insert({ id: uuidv7(), kind, ...row });
    await expect(add('weighing')).rejects.toThrow(/field_record_kind/);
    await expect(add('inspection')).rejects.toThrow(/names no tree/);
  });

  it('names who did what', async () => {
    const { spotId } = await planted();
    const records = town.db('field_record').where({ spot_id: spotId }).select(town.db.raw('id::text'));
    const acts = await town
      .db('audit')
      .whereRaw(`after->>'id' in (?)`, [records])
      .where({ table_name: 'field_record' })
      .select('actor', 'act', 'before', 'after');
    expect(acts).toHaveLength(3);
    // The record says the rest, and can never say anything else.
    const id = expect.any(String) as string;
    for (const act of acts) expect(act).toEqual({ actor: 'cora', act: 'insert', before: null, after: { id } });
  });

  it('tells what a change was, before and after, and all of what is gone', async () => {
    const { spotId } = await newSpot();
    const owner = new pg.Client({ connectionString: town.ownerUrl });
    await owner.connect();
    const trail = async (table: string) =>
      (
        await owner.query<{ act: string; before: object; after: object }>(
          'select act, before, after from audit where table_name = $1 order by id desc limit 1',
          [table],
        )
      ).rows[0];
    await owner.query(`update spot set ref = ref || '-B', changed_by = 'moved' where id = $1`, [spotId]);
    expect(await trail('spot')).toEqual({
      act: 'update',
      before: {
        id: spotId,
        ref: expect.not.stringContaining('-B') as string,
        changed_by: expect.any(String) as string,
      },
      after: { id: spotId, ref: expect.stringContaining('-B') as string, changed_by: 'moved' },
    });
    const place = uuidv7();
    await owner.query('insert into place (id, name) values ($1, $2)', [place, 'Nowhere Lane']);
    await owner.query('delete from place where id = $1', [place]);
    expect(await trail('place')).toMatchObject({
      act: 'delete',
      before: { id: place, name: 'Nowhere Lane' },
      after: null,
    });
    await owner.end();
  });

  it('holds limits of its own', async () => {
    const { spotId, treeId } = await newSpot();
    const row = {
      id: uuidv7(),
      kind: 'stock',
      spot_id: spotId,
      tree_id: treeId,
      facts: JSON.stringify({ ...container, caliperMm: 9000 }),
      recorded_at: new Date(),
      happened_at: new Date(),
      recorded_by: 'x',
      device: 'x',
    };
    await expect(town.db('field_record').insert(row)).rejects.toThrow('violates check constraint');
  });

  it('says it is away, stores nothing, and works again when it is back', async () => {
    const { spotId } = await newSpot();
    const sent = sending(spotId, { kind: 'ground', facts: loam }, 1);
    const name = new URL(town.ownerUrl).pathname.slice(1);
    const owner = new pg.Client({ connectionString: town.ownerUrl.replace(/[^/]+$/, 'postgres') });
    await owner.connect();
    try {
      await owner.query(`alter database ${name} with allow_connections false`);
      await owner.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [name]);
      const { status, body } = await cora.send('POST', '/api/records', sent);
      expect(status).toBe(503);
      expect(body.code).toBe('database_unavailable');
    } finally {
      await owner.query(`alter database ${name} with allow_connections true`);
      await owner.end();
    }
    expect((await cora.record(sent)).status).toBe(201);
    expect((await cora.spot(spotId)).records).toHaveLength(1);
  });
});
