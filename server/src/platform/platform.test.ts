import { ConflictError, InvalidInputError } from '@sombra/core';
import { z } from 'zod';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';
import { readConfig } from './config';
import { isDatabaseAway } from './db';
import { parse, problemOf } from './problems';

describe('environment', () => {
  const good = { DATABASE_URL: 'postgres://u:p@127.0.0.1:5/x', SESSION_SECRET: 's'.repeat(32) };

  it('has defaults that keep to loopback', () => {
    expect(readConfig(good)).toMatchObject({ host: '127.0.0.1', port: 4310, secureCookies: false });
  });

  it('names every variable that is wrong, and echoes none of them', () => {
    const read = () => readConfig({ DATABASE_URL: 'my secret', SESSION_SECRET: 'short', PORT: '99999999' });
    expect(read).toThrow(/PORT.*DATABASE_URL.*SESSION_SECRET/s);
    expect(read).not.toThrow(/my secret|short/);
  });
});

describe('what a client is told', () => {
  it('of an unknown error is a reference and nothing else', () => {
    const { problem, ours } = problemOf(new Error('select * from secrets'), 'ref-1');
    expect(ours).toBe(true);
    expect(problem).toMatchObject({ status: 500, reference: 'ref-1' });
    expect(JSON.stringify(problem)).not.toContain('secrets');
  });

  it('of a value out of range is field, value and limit', () => {
    const error = new InvalidInputError('slopePct must be within 0–60 %, got 80', 'slopePct', {
      received: 80,
      min: 0,
      max: 60,
      unit: '%',
    });
    expect(problemOf(error, 'r').problem.issues).toEqual([
      { path: 'slopePct', message: 'must be within 0–60 %, got 80', received: 80, min: 0, max: 60, unit: '%' },
    ]);
  });

  it('of a schema that does not fit is each field', () => {
    const schema = z.object({ a: z.number(), b: z.string() });
    let thrown: unknown;
    try {
      parse(schema, { a: 'x' });
    } catch (error) {
      thrown = error;
    }
    expect(problemOf(thrown, 'r').problem.issues?.map((issue) => issue.path)).toEqual(['a', 'b']);
  });

  it('of a conflict is what is stored now', () => {
    const error = new ConflictError('version', 'spotVersion', { current: { version: 3 }, title: 'Ann changed this' });
    expect(problemOf(error, 'r').problem).toMatchObject({
      status: 409,
      title: 'Ann changed this',
      current: { version: 3 },
    });
  });
});

describe('a database that is away', () => {
  it.each(['ECONNREFUSED', '57P01', '57P03', '08006', '53300'])('is known by %s', (code) => {
    expect(isDatabaseAway(Object.assign(new Error('x'), { code }))).toBe(true);
  });

  it.each(['23505', '42501', '55000', '22P02'])('is not meant by %s', (code) => {
    expect(isDatabaseAway(Object.assign(new Error('x'), { code }))).toBe(false);
  });

  it('is found inside an error that gathers several', () => {
    const refused = Object.assign(new Error('x'), { code: 'ECONNREFUSED' });
    expect(isDatabaseAway(new AggregateError([refused]))).toBe(true);
  });
});

describe('the doors', () => {
  let town: TestTown;
  let cora: Visitor;
  beforeAll(async () => {
    town = await openTestTown();
    cora = await Visitor.signedIn(town.url, 'cora');
  });
  afterAll(() => town.stop());

  it('let no foreign script in and name no maker', async () => {
    const { headers } = await cora.send('GET', '/api/session');
    expect(headers.get('content-security-policy')).toContain("script-src 'self'");
    expect(headers.get('content-security-policy')).toContain("default-src 'self'");
    expect(headers.get('x-powered-by')).toBeNull();
    expect(headers.get('cache-control')).toBe('no-store');
  });

  it('answer an unknown path, a broken body and one too large as problems', async () => {
    const unknown = await cora.send('GET', '/api/nowhere');
    expect([unknown.status, unknown.body.code]).toEqual([404, 'not_found']);
    const broken = await cora.send('POST', '/api/records', '{"a":', { 'content-type': 'application/json' });
    expect([broken.status, broken.body.code]).toEqual([400, 'invalid_json']);
    const large = await cora.send('POST', '/api/records', JSON.stringify({ a: 'x'.repeat(300_000) }), {
      'content-type': 'application/json',
    });
    expect([large.status, large.body.code]).toEqual([413, 'too_large']);
  });

  it('find spots by number, street or species, wherever they wait', async () => {
    await town.addSpot('FIND-7');
    const find = async (words: string) =>
      (await cora.send<{ total: number }>('GET', `/api/spots?find=${encodeURIComponent(words)}`)).body.total;
    expect(await Promise.all([find('find-7'), find('mole'), find('celtis'), find('%'), find('nothing')])).toEqual([
      1, 1, 1, 0, 0,
    ]);
  });

  it('refuse a query they do not know', async () => {
    expect((await cora.send('GET', '/api/spots?limit=9999')).status).toBe(400);
    expect((await cora.send('GET', '/api/spots?sort=name')).status).toBe(400);
  });
});
