import { pruneLimits, pruneSessions } from './repository';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';

let town: TestTown;
beforeAll(async () => {
  town = await openTestTown();
});
afterAll(() => town.stop());

const someId = '0190a5c2-0000-7000-8000-000000000001';

describe('signing in', () => {
  it.each([
    '/api/desk',
    '/api/spots',
    `/api/spots/${someId}`,
    `/api/trees/${someId}`,
    '/api/exports/trees.csv',
    '/api/anything',
  ])('nothing but the sign-in answers: %s', async (path) => {
    const { status, body } = await new Visitor(town.url).send('GET', path);
    expect(status).toBe(401);
    expect(body.code).toBe('signed_out');
  });

  it('makes a new session at sign-in, with a strict cookie that scripts cannot read', async () => {
    const visitor = new Visitor(town.url);
    await visitor.arrive();
    const { headers, body } = await visitor.send<{ user: { role: string }; today: string }>('POST', '/api/session', {
      signIn: 'CORA',
      password: 'a-long-password',
    });
    expect(headers.getSetCookie()[0]).toMatch(/HttpOnly; SameSite=Strict/);
    expect(body.user.role).toBe('coordinator');
    expect(body.today).toMatch(/^\d{4}-\d{2}-\d{2}$/);
  });

  it('refuses a write without the token of the session', async () => {
    const visitor = await Visitor.signedIn(town.url, 'cora');
    visitor.token = 'guessed';
    const { status, body } = await visitor.send('PUT', '/api/session/preferences', { units: 'us' });
    expect([status, body.code]).toEqual([403, 'csrf']);
  });

  it('does not tell a wrong name from a wrong password', async () => {
    const answers = await Promise.all(
      ['cora', 'nobody'].map(async (signIn) => {
        const visitor = new Visitor(town.url);
        await visitor.arrive();
        const { status, body } = await visitor.send('POST', '/api/session', { signIn, password: 'wrong' });
        return { status, body };
      }),
    );
    expect(answers[0]).toEqual(answers[1]);
    expect(answers[0]?.status).toBe(400);
  });

  it('makes a guesser wait after eight tries, and says how long', async () => {
    const visitor = new Visitor(town.url);
    await visitor.arrive();
    let last = await visitor.send('POST', '/api/session', { signIn: 'vic', password: 'wrong' });
    for (let i = 0; i < 8; i++) last = await visitor.send('POST', '/api/session', { signIn: 'vic', password: 'wrong' });
    expect(last.status).toBe(429);
    expect(Number(last.headers.get('retry-after'))).toBeGreaterThan(0);
    const right = await visitor.send('POST', '/api/session', { signIn: 'vic', password: 'a-long-password' });
    expect(right.status).toBe(429);
  });

  it('ends the session at sign-out', async () => {
    const visitor = await Visitor.signedIn(town.url, 'otto');
    expect((await visitor.send('DELETE', '/api/session')).status).toBe(204);
    expect((await visitor.send('GET', '/api/desk')).status).toBe(401);
  });

  it('keeps the units a person chose', async () => {
    const visitor = await Visitor.signedIn(town.url, 'otto');
    await visitor.send('PUT', '/api/session/preferences', { units: 'us' });
    const again = await Visitor.signedIn(town.url, 'otto');
    expect((await again.arrive()).user?.units).toBe('us');
  });

  it('believes nobody who says to come from elsewhere, and counts wrong tries by address too', async () => {
    const visitor = new Visitor(town.url);
    await visitor.arrive();
    const guess = (i: number) =>
      visitor.send(
        'POST',
        '/api/session',
        { signIn: `guess${i}`, password: 'wrong' },
        { 'x-forwarded-for': `10.1.1.${i}` },
      );
    let status = 0;
    for (let i = 0; i < 80 && status !== 429; i++) ({ status } = await guess(i));
    expect(status).toBe(429);
    await town.db('sign_in_limit').delete();
  });

  it('drops counts of tries that have run out, and keeps the others', async () => {
    await town.db('sign_in_limit').insert([
      { key: 'name:old', points: 3, expire: 1000 },
      { key: 'name:new', points: 3, expire: 4_000_000_000_000 },
    ]);
    await pruneLimits(town.db, 2_000_000_000_000);
    expect(await town.db('sign_in_limit').pluck('key')).toEqual(['name:new']);
  });
});

describe('a session', () => {
  it('is dropped once it has run out, and no other', async () => {
    const cora = await Visitor.signedIn(town.url, 'cora');
    const sess = JSON.stringify({ cookie: {} });
    await town.db('session').insert({ sid: 'old', sess, expire: new Date(Date.now() - 1000) });
    await pruneSessions(town.db);
    expect(await town.db('session').where({ sid: 'old' })).toEqual([]);
    expect((await cora.arrive()).user?.name).toBe('cora');
  });

  it('knows of another role at once, without a new sign-in', async () => {
    const iva = await Visitor.signedIn(town.url, 'iva');
    expect((await iva.arrive()).user?.role).toBe('inspector');
    await town.db('app_user').where({ sign_in: 'iva' }).update({ role: 'viewer' });
    expect((await iva.arrive()).user?.role).toBe('viewer');
    const view = { id: someId, name: 'x', path: '/desk', query: {} };
    expect((await iva.send('POST', '/api/tickets', view)).status).not.toBe(201);
    await town.db('app_user').where({ sign_in: 'iva' }).update({ role: 'inspector' });
  });

  it('is not written by reading, and a stranger’s is kept for an hour', async () => {
    const cora = await Visitor.signedIn(town.url, 'cora');
    const rows = () => town.db('session').select('sid', 'expire').orderBy('sid');
    const before = await rows();
    for (let i = 0; i < 3; i++) await cora.send('GET', '/api/desk');
    expect(await rows()).toEqual(before);
    const known = new Set(before.map(({ sid }: { sid: string }) => sid));
    await new Visitor(town.url).arrive();
    const fresh = (await rows()).filter(({ sid }: { sid: string }) => !known.has(sid));
    expect(fresh).toHaveLength(1);
    expect((fresh[0] as { expire: Date }).expire.getTime() - Date.now()).toBeLessThan(3_700_000);
  });
});
