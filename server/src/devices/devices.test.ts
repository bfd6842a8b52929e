import type { Aside, Device, Sealed, SealedReceipt, SendRecord, Session } from '@sombra/contract';
import { randomUUID } from 'node:crypto';
import { v7 as uuidv7 } from 'uuid';
import { SealingDevice } from '../../testing/sealing-device';
import { loam, look, openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';

let town: TestTown;
let ada: Visitor;
let cora: Visitor;
let iva: Visitor;
let ivaId: string;
let phone: SealingDevice;
let nobody: Visitor;
beforeAll(async () => {
  town = await openTestTown();
  ada = await Visitor.signedIn(town.url, 'ada');
  cora = await Visitor.signedIn(town.url, 'cora');
  iva = await Visitor.signedIn(town.url, 'iva');
  ivaId = (await iva.arrive()).user?.id ?? '';
  phone = await SealingDevice.made();
  await phone.register(iva);
  nobody = new Visitor(town.url);
});
afterAll(() => town.stop());

let made = 0;
const newSpot = () => town.addSpot(`V-${String(++made).padStart(4, '0')}`);
const bring = (sealed: Sealed) => nobody.send<SealedReceipt>('POST', '/api/sealed', sealed);
const content = (sent: SendRecord, change: object = {}) => ({
  what: 'record',
  authorId: ivaId,
  madeAt: Date.now(),
  aheadMs: 0,
  sent,
  ...change,
});
const ground = (spotId: string) => sending(spotId, { kind: 'ground', facts: loam }, 1);
const sealedGround = async (spotId: string, change: object = {}, device = phone) => {
  const sent = ground(spotId);
  return { sent, sealed: await device.seal(sent.record.id, content(sent, change)) };
};

describe('what a device sealed', () => {
  it('is stored as its author made it, whoever brings it, and once', async () => {
    const { spotId } = await newSpot();
    const { sealed, sent } = await sealedGround(spotId);
    for (let i = 0; i < 2; i++) {
      const { status, body } = await bring(sealed);
      expect([status, body.result]).toEqual([200, 'stored']);
    }
    const { records } = await cora.spot(spotId);
    expect(records.map(({ id, recordedBy }) => [id, recordedBy])).toEqual([[sent.record.id, 'iva']]);
  });

  it('is placed in time by what the device knew of its clock, weeks later too', async () => {
    const { spotId } = await newSpot();
    const sent = ground(spotId);
    const hour = 3_600_000;
    const hoursAgo = Date.now() - 5 * hour;
    const ahead = { ...sent, record: { ...sent.record, recordedAt: new Date(hoursAgo + 9 * hour).toISOString() } };
    await bring(await phone.seal(sent.record.id, content(ahead, { aheadMs: 9 * hour })));
    const [record] = (await cora.spot(spotId)).records;
    expect(Math.abs(Date.parse(record?.recordedAt ?? '') - hoursAgo)).toBeLessThan(60_000);
    expect(record?.clock).toBe('measured');
  });

  it.each<[string, (sealed: Sealed) => Sealed, string]>([
    [
      'changed on the way',
      (one) => ({ ...one, iv: one.iv.replace(/^./, (c) => (c === 'A' ? 'B' : 'A')) }),
      'signature',
    ],
    ['under another id', (one) => ({ ...one, id: randomUUID() }), 'signature'],
    ['by a device nobody knows', (one) => ({ ...one, deviceId: randomUUID() }), 'deviceId'],
    ['to a key nobody has', (one) => ({ ...one, keyId: randomUUID() }), 'signature'],
  ])('is refused %s, and nothing is stored', async (_case, change, path) => {
    const { spotId } = await newSpot();
    const { sealed } = await sealedGround(spotId);
    const { status, body } = await nobody.send('POST', '/api/sealed', change(sealed));
    expect([status, body.issues?.[0]?.path]).toEqual([400, path]);
    expect((await cora.spot(spotId)).records).toEqual([]);
  });

  it('is refused where its device signs for somebody who never signed in on it', async () => {
    const { spotId } = await newSpot();
    const coraId = (await cora.arrive()).user?.id;
    const { sealed } = await sealedGround(spotId, { authorId: coraId });
    const { status, body } = await nobody.send('POST', '/api/sealed', sealed);
    expect([status, body.issues?.[0]?.path]).toEqual([400, 'authorId']);
  });

  it('waits at the server for its author or a coordinator where the rules refuse it, and can be sent again', async () => {
    const { spotId } = await newSpot();
    // A look before the planting.
    const sent = sending(spotId, look('2026-02-01'));
    const { body } = await bring(await phone.seal(sent.record.id, content(sent)));
    expect(body).toMatchObject({ id: sent.record.id, result: 'aside', problem: { status: 400 } });
    const listed = async (visitor: Visitor) => (await visitor.send<Aside[]>('GET', '/api/aside')).body;
    expect(await listed(cora)).toMatchObject([{ id: sent.record.id, authorName: 'iva', name: 'Inspection', spotId }]);
    expect(await listed(await Visitor.signedIn(town.url, 'wes'))).toEqual([]);
    const decide = (visitor: Visitor, decision: string) =>
      visitor.send<Aside[]>('POST', `/api/aside/${sent.record.id}`, { decision });
    expect((await decide(await Visitor.signedIn(town.url, 'wes'), 'bin')).status).toBe(403);
    expect((await decide(iva, 'again')).status).toBe(400);
    expect(await listed(iva)).toHaveLength(1);
    const binned = await decide(iva, 'bin');
    expect([binned.status, binned.body]).toEqual([200, []]);
    expect((await decide(cora, 'again')).status).toBe(404);
    // Kept all the same.
    expect(await town.db('set_aside').where({ id: sent.record.id }).first('decision', 'settled_by')).toEqual({
      decision: 'bin',
      settled_by: 'iva',
    });
  });

  it('is asked for its author’s rights of today', async () => {
    const { spotId } = await newSpot();
    const planting = sending(spotId, { kind: 'stock', facts: {} as never }, 1);
    const { body } = await bring(await phone.seal(planting.record.id, content(planting)));
    expect(body.result).toBe('aside');
    const stock = sending(
      spotId,
      {
        kind: 'stock',
        facts: {
          kind: 'container',
          caliperMm: 50,
          heightM: 3,
          ballDiameterMm: 450,
          ballHeightMm: 400,
          topRootsDepthMm: 60,
        },
      },
      1,
    );
    // An inspector does not receive stock.
    const refused = (await bring(await phone.seal(stock.record.id, content(stock)))).body;
    expect([refused.result, refused.problem?.code]).toEqual(['aside', 'forbidden']);
    expect((await cora.spot(spotId)).records).toEqual([]);
  });

  it('may be a photo, and goes to no other door', async () => {
    const { spotId } = await newSpot();
    const png = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
    const parcel = (url: string) => ({
      ...content(ground(spotId), { what: 'parcel', method: 'PUT', url, name: 'Photo', sent: undefined }),
      picture: { type: 'image/png', base64: png },
    });
    const photoId = uuidv7();
    const { body } = await bring(await phone.seal(photoId, parcel(`/api/spots/${spotId}/photos/${photoId}`)));
    expect(body.result).toBe('stored');
    expect((await cora.bytes('GET', `/api/photos/${photoId}`)).status).toBe(200);
    const astray = uuidv7();
    const other = (await bring(await phone.seal(astray, parcel(`/api/people/${ivaId}`)))).body;
    expect([other.result, other.problem?.issues?.[0]?.path]).toEqual(['aside', 'url']);
  });
});

describe('devices', () => {
  it('are known by one key for good', async () => {
    expect((await phone.register(cora)).status).toBe(200);
    const other = await SealingDevice.made();
    const { status } = await cora.send('POST', '/api/devices', { id: phone.id, name: 'x', key: other.key });
    expect(status).toBe(409);
  });

  it('are wiped on their next contact, once, and their people’s sessions end', async () => {
    const lost = await SealingDevice.made();
    const leo = await Visitor.signedIn(town.url, 'leo');
    await lost.register(leo);
    const header = { 'x-device-id': lost.id };
    const contact = async () => (await nobody.send<Session>('GET', '/api/session', undefined, header)).body;
    expect((await contact()).wipe).toBeUndefined();
    const { body } = await ada.send<Device[]>('POST', `/api/devices/${lost.id}/wipe`);
    expect(body.find(({ id }) => id === lost.id)).toMatchObject({ people: ['leo'], wipedAt: null });
    expect((await leo.send('GET', '/api/desk')).status).toBe(401);
    expect((await contact()).wipe).toBe(true);
    expect((await nobody.send('POST', `/api/open/devices/${lost.id}/wiped`)).status).toBe(204);
    expect((await contact()).wipe).toBeUndefined();
    // What was sealed on it before is taken in all the same.
    const { spotId } = await newSpot();
    const leoId = (await town.db('app_user').where({ sign_in: 'leo' }).first<{ id: string }>('id')).id;
    const { sealed } = await sealedGround(spotId, { authorId: leoId }, lost);
    expect((await bring(sealed)).body.result).toBe('stored');
  });

  it('say nothing of one that is not there', async () => {
    expect((await ada.send('POST', `/api/devices/${randomUUID()}/wipe`)).status).toBe(404);
    expect((await nobody.send('POST', `/api/open/devices/${randomUUID()}/wiped`)).status).toBe(204);
  });
});
