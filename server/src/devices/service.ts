import {
  may,
  sendRecordSchema,
  type Aside,
  type Device,
  type RegisterDevice,
  type Sealed,
  type SealedContent,
  type SealedReceipt,
  type SealingKey,
  type SendRecord,
  type User,
} from '@sombra/contract';
import { ConflictError, ForbiddenError, InvalidInputError, NotFoundError, recordTable } from '@sombra/core';
import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import { endSessions, findUser } from '../people/repository';
import { asActor, oneAtATime, type Db } from '../platform/db';
import { parse, problemOf } from '../platform/problems';
import { keepRecord } from '../recording/service';
import { takeParcel } from './parcel-service';
import {
  allDevices,
  asidesOf,
  askWipe,
  deviceKey,
  findAside,
  insertSealingKey,
  isPersonOf,
  keepAside,
  keepDevice,
  newestSealingKey,
  noteWiped,
  sealingSecret,
  settleAside,
} from './repository';
import { makeSealingKey, openSealed, requireSigned } from './seal';

/** The key to seal to; the first one is made when it is first asked for. */
async function sealingKey(trx: Db): Promise<SealingKey> {
  await oneAtATime(trx, 'sealing key');
  const kept = await newestSealingKey(trx);
  if (kept) return kept;
  const { key, secret } = await makeSealingKey();
  const made = { id: uuidv7(), key };
  await insertSealingKey(trx, made, secret);
  return made;
}

/**
 * Knows a device from now on, by the key it signs with, and tells it the key to seal to.
 * @throws ConflictError where a device of this id signs with another key
 */
export async function registerDevice(db: Knex, user: User, device: RegisterDevice): Promise<SealingKey> {
  return asActor(db, user.name, async (trx) => {
    const key = await keepDevice(trx, device, user.id);
    if (key.x !== device.key.x || key.y !== device.key.y) {
      throw new ConflictError('this device id signs with another key', 'key', {
        title: 'This device was known by another key. It begins anew under another id.',
      });
    }
    return sealingKey(trx);
  });
}

/**
 * Asks a device to forget all it keeps on its next contact, and ends the sessions of everybody who signed in on it.
 * @param sid the session this is asked from, which stays
 */
export async function wipeDevice(db: Knex, user: User, id: string, sid: string): Promise<Device[]> {
  return asActor(db, user.name, async (trx) => {
    const people = await askWipe(trx, id, user.name);
    if (people === null) throw new NotFoundError('no such device', 'id');
    for (const userId of people) await endSessions(trx, userId, sid);
    return allDevices(trx);
  });
}

/** A device says that it keeps nothing any more. */
export const deviceWiped = (db: Knex, id: string): Promise<void> =>
  asActor(db, 'a device', (trx) => noteWiped(trx, id));

/** What a thing inside a seal is, in words. */
function nameOf(content: SealedContent): { name: string; spotId: string | null } {
  if (content.what === 'parcel') {
    return { name: content.name, spotId: /^\/api\/spots\/([0-9a-f-]{36})\//.exec(content.url)?.[1] ?? null };
  }
  const sent = sendRecordSchema.safeParse(content.sent);
  if (!sent.success) return { name: 'A record that cannot be read', spotId: null };
  const { record, spotId } = sent.data as unknown as SendRecord;
  return { name: recordTable[record.kind].name, spotId };
}

/** Does with it what its author would have done at the door: with the author's rights, and the rules of the place. */
async function take(db: Knex, content: SealedContent, storageFolder: string): Promise<void> {
  const author = await findUser(db, content.authorId);
  if (!author) {
    throw new ForbiddenError('the author may not sign in any more', 'authorId', {
      title: 'Whoever made this may not sign in any more',
    });
  }
  const deviceNow = clockOf(content);
  if (content.what === 'record') await keepRecord(db, author, parse(sendRecordSchema, content.sent), deviceNow);
  else await takeParcel(db, { ...content, picture: pictureOf(content) }, { author, storageFolder, deviceNow });
}

/** The device's clock by how far it was ahead when it sealed, as if it sent just now; `null` where nobody knows. */
const clockOf = ({ aheadMs }: SealedContent): string | null =>
  aheadMs === null ? null : new Date(Date.now() + aheadMs).toISOString();

const pictureOf = ({ picture }: Extract<SealedContent, { what: 'parcel' }>): Uint8Array =>
  Buffer.from(picture?.base64 ?? '', 'base64');

/**
 * Takes in one sealed thing, whoever brings it. What the rules refuse is kept here for its author, so that nothing is
 * lost when the device lets it go.
 * @throws InvalidInputError for a seal that is not ours; anything that may pass (a database away) is thrown too
 */
export async function takeSealed(db: Knex, sealed: Sealed, storageFolder: string): Promise<SealedReceipt> {
  const key = await deviceKey(db, sealed.deviceId);
  if (!key) throw new InvalidInputError('deviceId is no device of this programme', 'deviceId');
  await requireSigned(sealed, key);
  const secret = await sealingSecret(db, sealed.keyId);
  if (!secret) throw new InvalidInputError('keyId is no key of this programme', 'keyId');
  const content = await openSealed(sealed, secret);
  if (!(await isPersonOf(db, sealed.deviceId, content.authorId))) {
    throw new InvalidInputError('authorId never signed in on this device', 'authorId');
  }
  try {
    await take(db, content, storageFolder);
    return { id: sealed.id, result: 'stored', problem: null };
  } catch (error) {
    const { problem } = problemOf(error, sealed.id);
    if (problem.status >= 500) throw error;
    const { current: _shown, ...refused } = problem;
    await asActor(db, 'a device', (trx) =>
      keepAside(trx, { id: sealed.id, deviceId: sealed.deviceId, ...nameOf(content), content, problem: refused }),
    );
    return { id: sealed.id, result: 'aside', problem: refused };
  }
}

/** What arrived sealed and was refused: all of it for who settles it, one's own for everybody else. */
export const asidesFor = (db: Knex, user: User): Promise<Aside[]> =>
  asidesOf(db, may(user.role, 'settle_aside') ? null : user.id);

/**
 * Tries it once more, as its author, or puts it in the bin, where it is kept.
 * @throws what its door refuses; it then stays where it is
 */
export async function decideAside(
  db: Knex,
  user: User,
  id: string,
  { decision, storageFolder }: { readonly decision: 'again' | 'bin'; readonly storageFolder: string },
): Promise<Aside[]> {
  const aside = await findAside(db, id);
  if (!aside) throw new NotFoundError('nothing of this id waits', 'id', { title: 'Somebody settled this first' });
  if (aside.authorId !== user.id && !may(user.role, 'settle_aside')) {
    throw new ForbiddenError('this is somebody else’s', 'id', { title: 'This is somebody else’s to settle' });
  }
  if (decision === 'again') await take(db, aside.content, storageFolder);
  await asActor(db, user.name, (trx) => settleAside(trx, id, decision, user.name));
  return asidesFor(db, user);
}
