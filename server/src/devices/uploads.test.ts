import { randomUUID } from 'node:crypto';
import { v7 as uuidv7 } from 'uuid';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';

let town: TestTown;
let iva: Visitor;
let spotId: string;
beforeAll(async () => {
  town = await openTestTown();
  iva = await Visitor.signedIn(town.url, 'iva');
  ({ spotId } = await town.addSpot('U-0001'));
});
afterAll(() => town.stop());

const png = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const tus = { 'tus-resumable': '1.0.0' };
const meta = (values: Record<string, string>) =>
  Object.entries(values)
    .map(([key, value]) => `${key} ${Buffer.from(value).toString('base64')}`)
    .join(',');
const begin = (visitor: Visitor, id: string, url: string, length = png.length) =>
  visitor.send('POST', '/api/uploads', undefined, {
    ...tus,
    'upload-length': String(length),
    'upload-metadata': meta({ id, url, type: 'image/png' }),
  });
const put = (visitor: Visitor, at: string, bytes: Uint8Array, offset: number) =>
  visitor.send('PATCH', at, bytes, {
    ...tus,
    'content-type': 'application/offset+octet-stream',
    'upload-offset': String(offset),
  });
const photoDoor = (photoId: string) => `/api/spots/${spotId}/photos/${photoId}`;
const where = (answer: { headers: Headers }) => answer.headers.get('location') ?? '';

describe('a picture in parts', () => {
  it('goes on where it was cut, and is there once it is whole', async () => {
    const id = uuidv7();
    const begun = await begin(iva, id, photoDoor(id));
    expect(begun.status).toBe(201);
    expect((await put(iva, where(begun), png.subarray(0, 30), 0)).status).toBe(204);
    expect((await iva.bytes('GET', `/api/photos/${id}`)).status).toBe(404);
    const looked = await iva.send('HEAD', where(begun), undefined, tus);
    expect(looked.headers.get('upload-offset')).toBe('30');
    // From elsewhere than where it was cut: refused, and nothing is lost.
    expect((await put(iva, where(begun), png.subarray(20), 20)).status).toBe(409);
    expect((await put(iva, where(begun), png.subarray(30), 30)).status).toBe(204);
    expect((await iva.bytes('GET', `/api/photos/${id}`)).status).toBe(200);
    // Sent anew, as after a kill in between, it is the same picture.
    const again = await begin(iva, id, photoDoor(id));
    expect((await put(iva, where(again), png, 0)).status).toBe(204);
  });

  it('is nobody else’s to go on with or to look at', async () => {
    const id = uuidv7();
    const at = where(await begin(iva, id, photoDoor(id)));
    const leo = await Visitor.signedIn(town.url, 'leo');
    expect((await leo.send('HEAD', at, undefined, tus)).status).toBe(404);
    expect((await put(leo, at, png, 0)).status).toBe(404);
    expect((await put(iva, at, png, 0)).status).toBe(204);
  });

  it('is refused by the door it names as if it came there', async () => {
    const problemOf = async (id: string, url: string, bytes = png as Uint8Array) => {
      const begun = await begin(iva, id, url, bytes.length);
      const { status, body } = await put(iva, where(begun), bytes, 0);
      return [status, (JSON.parse(body as unknown as string) as { code: string }).code];
    };
    expect(await problemOf(uuidv7(), photoDoor('nothing'))).toEqual([400, 'invalid_input']);
    expect(await problemOf(uuidv7(), `/api/spots/${randomUUID()}/photos/${uuidv7()}`)).toEqual([404, 'not_found']);
    // An inspector does not receive stock.
    expect(await problemOf(uuidv7(), `/api/lot-trees/${randomUUID()}/photo`)).toEqual([403, 'forbidden']);
    const words = new TextEncoder().encode('not a picture at all');
    const id = uuidv7();
    expect(await problemOf(id, photoDoor(id), words)).toEqual([400, 'invalid_input']);
  });

  it('is refused where it is too large, or is sent without its name', async () => {
    expect((await begin(iva, uuidv7(), photoDoor(uuidv7()), 13 * 1024 * 1024)).status).toBe(413);
    const nameless = await begin(iva, 'x', photoDoor(uuidv7()));
    expect(nameless.status).toBeGreaterThanOrEqual(400);
    expect(nameless.status).toBeLessThan(500);
  });
});
