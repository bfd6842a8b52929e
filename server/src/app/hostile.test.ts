import type { Problem } from '@sombra/contract';
import { gzipSync } from 'node:zlib';
import { v7 as uuidv7 } from 'uuid';
import { loam, openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';
import { asActor } from '../platform/db';
import { problemOf } from '../platform/problems';

let town: TestTown;
let cora: Visitor;
let spotId: string;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  spotId = (await town.addSpot('X-0001')).spotId;
});
afterAll(() => town.stop());

const half = String.fromCharCode(0xd800);

describe('text and dates that no table can hold', () => {
  const verdict = (change: object) =>
    sending(spotId, {
      kind: 'verdict',
      facts: { decidedOn: '2026-11-20', verdict: 'plant', reason: 'wide verge', ...change },
    } as never);
  it.each([
    ['a NUL', { reason: 'wide\0verge' }, 'record.facts.reason'],
    ['half of a pair', { reason: `wide ${half}` }, 'record.facts.reason'],
    ['the year 0000', { decidedOn: '0000-01-01' }, 'record.facts.decidedOn'],
    ['the year 9999', { decidedOn: '9999-12-31' }, 'record.facts.decidedOn'],
  ])('are refused at their field: %s', async (_name, change, path) => {
    const { status, body } = await cora.send<Problem>('POST', '/api/records', verdict(change));
    expect([status, body.issues?.[0]?.path]).toEqual([400, path]);
  });
  it.each(['0000-01-01T00:00:00Z', '9999-12-31T23:59:59Z'])('are refused as the moment of a record: %s', async (at) => {
    const sent = verdict({});
    const { status, body } = await cora.send<Problem>('POST', '/api/records', {
      ...sent,
      record: { ...sent.record, recordedAt: at },
    });
    expect([status, body.issues?.[0]?.path]).toEqual([400, 'record.recordedAt']);
  });
  it('are refused in addresses and names of things too', async () => {
    const find = await cora.send<Problem>('GET', `/api/find?q=${encodeURIComponent('a\0b')}`);
    expect(find.status).toBe(400);
    const view = { id: uuidv7(), name: `mine ${half}`, path: '/desk', query: {} };
    expect((await cora.send<Problem>('POST', '/api/views', view)).status).toBe(400);
  });
  it('leave words that only speak of such years alone', async () => {
    const { status } = await cora.send('POST', '/api/records', verdict({ reason: 'felled 0000-00-00 by the storm' }));
    expect(status).toBe(201);
  });
  it('include a version the database cannot count to', async () => {
    const sent = { ...sending(spotId, { kind: 'ground', facts: loam }, 1), spotVersion: 2_147_483_648 };
    const { status, body } = await cora.send<Problem>('POST', '/api/records', sent);
    expect([status, body.issues?.[0]?.path]).toEqual([400, 'spotVersion']);
  });
});

describe('requests that cannot be read', () => {
  it.each(['/api/spots/%E0%A4%A', '/api/find?q=%ff%fe', '/%c0%ae%c0%ae/etc'])('by their address: %s', async (path) => {
    const { status } = await cora.send('GET', path);
    expect([200, 400, 404]).toContain(status);
  });
  it('by their charset or their packing are 4xx, never ours', async () => {
    const odd = await cora.send('POST', '/api/records', '{}', { 'content-type': 'application/json; charset=klingon' });
    expect(odd.status).toBe(415);
    const torn = gzipSync('{"a":1}').subarray(0, 12);
    const gzip = { 'content-type': 'application/json', 'content-encoding': 'gzip' };
    expect((await cora.send('POST', '/api/records', new Uint8Array(torn), gzip)).status).toBe(400);
    const not = new TextEncoder().encode('not gzip at all');
    expect((await cora.send('POST', '/api/records', not, gzip)).status).toBe(400);
  });
});

describe('two acts that wait for each other', () => {
  it('are both done: the one that PostgreSQL ends is run again', async () => {
    const other = (await town.addSpot('X-0002')).spotId;
    const touch = (first: string, second: string, meet: () => Promise<void>) =>
      asActor(town.db, 'test', async (trx) => {
        await trx('spot').where({ id: first }).update({ changed_by: 'test' });
        await meet();
        await trx('spot').where({ id: second }).update({ changed_by: 'test' });
      });
    // Each holds its first spot before either asks for the other's; the second time round nobody waits.
    let here = 0;
    let both = () => undefined as void;
    const met = new Promise<void>((resolve) => (both = resolve));
    const meet = async () => {
      here += 1;
      if (here === 2) both();
      if (here <= 2) await met;
    };
    await Promise.all([touch(spotId, other, meet), touch(other, spotId, meet)]);
    expect(here).toBe(3);
  });

  it('are told as worth another try, or as somebody else’s, never as our fault', () => {
    const of = (code: string) => problemOf(Object.assign(new Error('pg'), { code }), 'r').problem;
    expect([of('40P01').status, of('55P03').status, of('23505').status, of('22021').status]).toEqual([
      503, 503, 409, 400,
    ]);
    expect(problemOf(new Error('odd'), 'r')).toMatchObject({ ours: true, problem: { status: 500, reference: 'r' } });
  });
});
