import fc from 'fast-check';
import { requestsAt, unasked, walked } from '../../testing/fuzz';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';

/** Requests at each door; the long walk is `npm run bench:fuzz`. */
const perDoor = Number(process.env['FUZZ_PER_DOOR'] ?? 6);
const seed = Number(process.env['FUZZ_SEED'] ?? 20_261_127);

let town: TestTown;
let ada: Visitor;
let ids: string[];
beforeAll(async () => {
  town = await openTestTown();
  ada = await Visitor.signedIn(town.url, 'ada');
  for (let i = 0; i < 3; i++) await town.addSpot(`Z-${i}`);
  ids = [
    ...(await town.db('spot').pluck<string[]>('id')),
    ...(await town.db('tree').pluck<string[]>('id')),
    ...(await town.db('app_user').whereNot({ sign_in: 'ada' }).pluck<string[]>('id')),
  ];
});
afterAll(() => town.stop());

it('every door that takes something says what', () => {
  expect(unasked()).toEqual([]);
});

it.each(walked)('%s answers whatever it is asked, and never by falling over', async (door) => {
  await fc.assert(
    fc.asyncProperty(requestsAt(door, ids), async ({ method, path, body }) => {
      const { cookie, token } = ada.credentials();
      const raw = body instanceof Uint8Array;
      const response = await fetch(town.url + path, {
        method,
        headers: {
          cookie,
          'x-csrf-token': token,
          'content-type': raw ? 'application/octet-stream' : 'application/json',
        },
        body: body === undefined || method === 'HEAD' ? null : raw ? (body as BodyInit) : JSON.stringify(body),
      });
      const answer = await response.text();
      expect(`${response.status} ${answer}`).not.toMatch(/^5\d\d/);
      // Pictures in parts speak a protocol of their own, whose own refusals are words alone.
      if (response.status >= 400 && !path.startsWith('/api/uploads')) {
        expect(response.headers.get('content-type')).toContain('application/problem+json');
        expect(answer).not.toMatch(/select |insert into|at .+\.ts:\d+/i);
      }
    }),
    { numRuns: perDoor, seed, endOnFailure: true },
  );
});
