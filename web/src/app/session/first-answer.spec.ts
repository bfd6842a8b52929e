import { wasIn } from './device-marks';
import { askFirst, isOutside, keepFirst, takeFirst } from './first-answer';

const outside = { user: null, csrfToken: 'a', today: null, programme: { name: 'Shade Walks', demo: true } };
const answer = (body: unknown, ok = true) =>
  jest.fn(() => Promise.resolve({ ok, status: ok ? 200 : 500, json: () => Promise.resolve(body) } as Response));

beforeEach(() => localStorage.clear());

describe('the first answer', () => {
  it('is given to whoever takes it first, and once', async () => {
    globalThis.fetch = answer(outside);
    await askFirst();
    expect(await takeFirst()).toMatchObject({ body: outside });
    expect(await takeFirst()).toBeNull();
  });

  it('is none where the server fails or says no JSON', async () => {
    globalThis.fetch = answer({ code: 'unexpected' }, false);
    expect(await askFirst()).toBeNull();
    globalThis.fetch = jest.fn(() => Promise.resolve({ ok: true, json: () => Promise.reject(new Error()) } as never));
    expect(await askFirst()).toBeNull();
  });

  it('says that nothing was reached, by the browser itself or by what stands between', async () => {
    globalThis.fetch = jest.fn(() => Promise.reject(new TypeError()));
    expect(await askFirst()).toBe('unreached');
    const empty = { ok: false, status: 504, json: () => Promise.reject(new SyntaxError()) };
    globalThis.fetch = jest.fn(() => Promise.resolve(empty as never));
    expect(await askFirst()).toBe('unreached');
    // The server's own word that its database is away is an answer.
    const ours = { ok: false, status: 503, json: () => Promise.resolve({ code: 'unavailable' }) };
    globalThis.fetch = jest.fn(() => Promise.resolve(ours as never));
    expect(await askFirst()).toBeNull();
  });

  it('is replaced by what the server said as somebody came in', async () => {
    globalThis.fetch = answer(outside);
    await askFirst();
    keepFirst({ body: { user: {} }, askedAt: 1, answeredAt: 2 });
    expect(await takeFirst()).toEqual({ body: { user: {} }, askedAt: 1, answeredAt: 2 });
  });

  it.each([
    [{ ...outside, user: { id: 'x' } }, 'somebody is in'],
    [{ ...outside, programme: null }, 'nobody has set the programme up'],
    [{ ...outside, wipe: true }, 'this device is to forget all'],
    [{ user: null }, 'it has no token'],
    [null, 'it is nothing'],
  ])('leads into the application where %#', (body, _why) => {
    expect(isOutside(body)).toBe(false);
    expect(isOutside(outside)).toBe(true);
  });

  it('knows whether somebody was in, also in a browser that keeps nothing', () => {
    expect(wasIn()).toBe(false);
    localStorage.setItem('sombra.session', '{}');
    expect(wasIn()).toBe(true);
    const kept = jest.spyOn(Storage.prototype, 'getItem').mockImplementation(() => {
      throw new Error('denied');
    });
    expect(wasIn()).toBe(false);
    kept.mockRestore();
  });
});
