import type { PlaceLinks, SpotDetail, SpotList, Told } from '@sombra/contract';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { look, sending, Visitor } from '../../testing/test-town';
import { openWaterTown, type WaterTown } from '../../testing/water-town';

let of: WaterTown;
let cora: Visitor;
let stranger: Visitor;
beforeAll(async () => {
  of = await openWaterTown();
  ({ cora } = of);
  stranger = new Visitor(of.town.url);
  await stranger.arrive();
});
afterAll(() => of.town.stop());

async function link(): Promise<{ id: string; token: string }> {
  const id = randomUUID();
  const { status, body } = await cora.send<{ path: string }>('POST', '/api/told/links', { id, place: 'Mole Street' });
  expect(status).toBe(201);
  return { id, token: body.path.replace('/told/', '') };
}
const tell = async (token: string, change: object = {}) => {
  const told = { id: uuidv7(), ref: 'Q-0001', words: 'The trunk leans since the storm.', ...change };
  const { status, body } = await stranger.send<{ title?: string }>('POST', `/api/open/told/${token}`, told);
  return { id: told.id, status, title: body?.title };
};
const waiting = async () => (await cora.send<Told>('GET', '/api/told')).body.reports;
const detail = async (spotId: string) => (await cora.send<SpotDetail>('GET', `/api/spots/${spotId}`)).body;
/** Trees whose look waits because somebody told of them, and by when. */
const toldOf = async () =>
  (await cora.send<SpotList>('GET', '/api/spots?waits=look_told')).body.lines.map(({ ref, nextLookOn }) => [
    ref,
    nextLookOn,
  ]);

it('shows the trees of its place to whoever has the link, and nothing of anybody', async () => {
  const { token } = await link();
  const { status, body } = await stranger.send('GET', `/api/open/told/${token}`);
  expect(status).toBe(200);
  expect(body).toEqual({
    programme: expect.any(String) as string,
    place: 'Mole Street',
    trees: ['Q-0000', 'Q-0001', 'Q-0002'].map((ref) => ({ ref, species: 'Celtis australis' })),
  });
  const kept = await of.town.db('place_link').select();
  expect(JSON.stringify(kept)).not.toContain(token);
});

it('what is told waits, becomes a look that is due at once with its words and photo, and is done by the next look', async () => {
  const { token } = await link();
  const [, spotId = ''] = of.spots;
  const { id, status } = await tell(token);
  expect(status).toBe(201);
  const bytes = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#395' } })
    .jpeg()
    .toBuffer();
  const photo = await stranger.send('PUT', `/api/open/told/${token}/${id}/photo`, bytes, {
    'content-type': 'image/jpeg',
  });
  expect(photo.status).toBe(201);
  const [report] = await waiting();
  expect(report).toMatchObject({ id, place: 'Mole Street', ref: 'Q-0001', hasPhoto: true });
  expect(report?.trees.map(({ ref }) => ref)).toEqual(['Q-0000', 'Q-0001', 'Q-0002']);
  // Nothing is on record of the tree before somebody says so.
  expect((await detail(spotId)).records.some(({ kind }) => kind === 'resident_told')).toBe(false);

  const both = await Promise.all(['a', 'b'].map(() => cora.send('POST', `/api/told/${id}/look`, { spotId })));
  expect(both.map((one) => one.status).sort()).toEqual([204, 409]);
  expect(await waiting()).toEqual([]);
  const now = await detail(spotId);
  expect(now.records.filter(({ kind }) => kind === 'resident_told')).toMatchObject([
    { id, facts: { toldOn: of.today, words: 'The trunk leans since the storm.' } },
  ]);
  expect(now.photos).toHaveLength(1);
  expect(await toldOf()).toEqual([['Q-0001', of.today]]);

  await cora.record(sending(spotId, { kind: 'inspection', facts: look(of.today).facts }));
  expect(await toldOf()).toEqual([]);
});

it('told again it is told once; of another place it is refused at its field; a link taken back takes nothing', async () => {
  const { id, token } = await link();
  const first = await tell(token, { ref: null });
  expect((await tell(token, { id: first.id, ref: null })).status).toBe(201);
  expect((await waiting()).filter((one) => one.id === first.id)).toHaveLength(1);
  expect(await tell(token, { ref: 'A-9999' })).toMatchObject({
    status: 400,
    title: 'No tree of this place has this number',
  });
  expect((await tell(token, { words: '   ' })).status).toBe(400);
  expect((await tell(token, { words: 'x'.repeat(401) })).status).toBe(400);
  expect((await tell(token, { words: 'a\u0000b' })).status).toBe(400);
  const other = await link();
  expect((await tell(other.token, { id: first.id, ref: null })).status).toBe(409);
  expect((await cora.send('POST', `/api/told/links/${id}/revoke`)).status).toBe(204);
  expect((await tell(token)).status).toBe(404);
  const { body } = await cora.send<PlaceLinks>('GET', '/api/told/links');
  expect(body.find((one) => one.id === id)).toMatchObject({ revoked: true, told: 1 });
});

it('is dropped with a reason, and a tree of elsewhere is no tree of it', async () => {
  const { token } = await link();
  const { id } = await tell(token, { ref: null });
  expect((await cora.send('POST', `/api/told/${id}/look`, { spotId: randomUUID() })).status).toBe(400);
  expect((await cora.send('POST', `/api/told/${id}/drop`, { reason: '' })).status).toBe(400);
  expect((await cora.send('POST', `/api/told/${id}/drop`, { reason: 'asked for the bus' })).status).toBe(204);
  expect((await waiting()).some((one) => one.id === id)).toBe(false);
  const audited = await of.town.db('audit').where({ table_name: 'resident_report' }).select('before', 'after');
  expect(JSON.stringify(audited)).not.toContain('leans');
});

it('takes no more once many wait', async () => {
  const { token } = await link();
  const all = [];
  for (let i = 0; i < 42; i++) all.push((await tell(token, { ref: null })).status);
  expect(all.slice(0, 40).every((status) => status === 201)).toBe(true);
  expect(all.slice(40)).toEqual([400, 400]);
});
