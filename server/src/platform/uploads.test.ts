import type { Problem } from '@sombra/contract';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';
import { keepFile, storageFault } from './uploads';

let town: TestTown;
let cora: Visitor;
let iva: Visitor;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  iva = await Visitor.signedIn(town.url, 'iva');
});
afterAll(() => town.stop());

const picture = (red: number) =>
  sharp({ create: { width: 32, height: 24, channels: 3, background: { r: red, g: 90, b: 40 } } })
    .jpeg()
    .toBuffer();
const put = (who: Visitor, spotId: string, id: string, bytes: Uint8Array) =>
  who.send<Problem>('PUT', `/api/spots/${spotId}/photos/${id}`, bytes, { 'content-type': 'image/jpeg' });
let made = 0;
const nextRef = () => `U-${String((made += 1)).padStart(4, '0')}`;
const files = () => readdirSync(town.storageFolder).sort();

describe('a photo sent under an id that is taken', () => {
  let spotId: string;
  let id: string;
  let before: Uint8Array;
  beforeEach(async () => {
    spotId = (await town.addSpot(nextRef())).spotId;
    id = uuidv7();
    await put(iva, spotId, id, await picture(200));
    before = (await iva.bytes('GET', `/api/photos/${id}`)).bytes;
  });
  const stays = async () => expect((await iva.bytes('GET', `/api/photos/${id}`)).bytes).toEqual(before);

  it('from another place is refused, and the first stays what it was', async () => {
    const elsewhere = await town.addSpot(nextRef());
    const answer = await put(iva, elsewhere.spotId, id, await picture(10));
    expect([answer.status, answer.body.title]).toEqual([409, expect.stringContaining('under this id already')]);
    await stays();
  });
  it('from another person is refused, the very same picture too', async () => {
    expect((await put(cora, spotId, id, await picture(10))).status).toBe(409);
    expect((await put(cora, spotId, id, await picture(200))).status).toBe(409);
    await stays();
  });
  it('with another picture is refused, and the same one again is no news', async () => {
    expect((await put(iva, spotId, id, await picture(10))).status).toBe(409);
    expect((await put(iva, spotId, id, await picture(200))).status).toBe(201);
    await stays();
  });
});

describe('the storage folder', () => {
  it('holds a photo sent three times at once, once, and no parts of it', async () => {
    const { spotId } = await town.addSpot('U-0100');
    const [id, bytes, known] = [uuidv7(), await picture(77), new Set(files())];
    const answers = await Promise.all([1, 2, 3].map(() => put(iva, spotId, id, bytes)));
    expect(answers.map(({ status }) => status)).toEqual([201, 201, 201]);
    expect(files().filter((name) => !known.has(name))).toHaveLength(1);
    expect(files().filter((name) => name.endsWith('.part'))).toEqual([]);
    const rows = await town.db('spot_photo').where({ id });
    expect(rows).toHaveLength(1);
  });

  it('is no place to write: 507, nothing stored, and the same file goes in once there is one', async () => {
    const folder = path.join(mkdtempSync(path.join(tmpdir(), 'sombra-full-')), 'storage');
    writeFileSync(folder, 'in the way');
    const bytes = await picture(5);
    await expect(keepFile(folder, bytes, ['image/jpeg'])).rejects.toMatchObject({ code: 'storage_full' });
    rmSync(folder);
    const { storedAs } = await keepFile(folder, bytes, ['image/jpeg']);
    expect(readdirSync(folder)).toEqual([storedAs]);
    expect(readFileSync(path.join(folder, storedAs)).equals(bytes)).toBe(true);
  });

  it.each(['ENOSPC', 'EDQUOT', 'EROFS', 'EACCES'])('that answers %s is said to be full or closed', (code) => {
    expect(storageFault(Object.assign(new Error('disk'), { code }))).toMatchObject({ code: 'storage_full' });
  });
  it('hides no other fault behind a full disk', () => {
    const odd = new Error('odd');
    expect(storageFault(odd)).toBe(odd);
  });

  it('that lost a file answers that it is missing, and the record stays', async () => {
    const { spotId } = await town.addSpot('U-0101');
    const [id, known] = [uuidv7(), new Set(files())];
    await put(iva, spotId, id, await picture(120));
    for (const name of files().filter((one) => !known.has(one))) rmSync(path.join(town.storageFolder, name));
    const answer = await iva.send<Problem>('GET', `/api/photos/${id}`);
    expect([answer.status, answer.body.title]).toEqual([404, expect.stringContaining('missing from the storage')]);
    expect(await town.db('spot_photo').where({ id })).toHaveLength(1);
  });
});
