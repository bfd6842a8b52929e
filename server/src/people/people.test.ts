import { openTestTown, Visitor, type TestTown } from '../testing/test-town';

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
});
