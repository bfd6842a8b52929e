import {
  problemSchema,
  publicKeySchema,
  sealedContentSchema,
  type Aside,
  type Device,
  type Problem,
  type PublicKey,
  type RegisterDevice,
  type SealedContent,
  type SealingKey,
} from '@sombra/contract';
import type { Db } from '../platform/db';
import { readStored } from '../platform/stored';

interface DeviceRow {
  id: string;
  name: string;
  public_key: unknown;
  first_seen_at: Date;
  last_seen_at: Date;
  wipe_asked_at: Date | null;
  wiped_at: Date | null;
}

const iso = (at: Date | null): string | null => at?.toISOString() ?? null;

/** Every device with who signed in on it, the last seen first. */
export async function allDevices(db: Db): Promise<Device[]> {
  const rows = await db('device')
    .orderBy('last_seen_at', 'desc')
    .select<(DeviceRow & { people: string[] })[]>(
      'device.*',
      db.raw(`array(select person.name from device_person join app_user person on person.id = device_person.user_id
        where device_id = device.id order by person.name) as people`),
    );
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    people: row.people,
    firstSeenAt: row.first_seen_at.toISOString(),
    lastSeenAt: row.last_seen_at.toISOString(),
    wipeAskedAt: iso(row.wipe_asked_at),
    wipedAt: iso(row.wiped_at),
  }));
}

/** The key a device signs with; `undefined` for one nobody signed in on. */
export async function deviceKey(db: Db, id: string): Promise<PublicKey | undefined> {
  const row = await db<DeviceRow>('device').where({ id }).first('public_key');
  return row && readStored(publicKeySchema, row.public_key, `device ${id}`);
}

const seenEveryMs = 10 * 60_000;

/** Keeps a device as it is first seen; returns the key that stands for it. */
export async function keepDevice(trx: Db, { id, name, key }: RegisterDevice, userId: string): Promise<PublicKey> {
  await trx('device')
    .insert({ id, name, public_key: JSON.stringify(key) })
    .onConflict('id')
    .ignore();
  // Every page that is opened asks: seen again within minutes says nothing new.
  const seenBefore = new Date(Date.now() - seenEveryMs);
  await trx('device')
    .where({ id })
    .where((old) => old.where('last_seen_at', '<', seenBefore).orWhereNot({ name }))
    .update({ last_seen_at: trx.fn.now(), name });
  await trx('device_person').insert({ device_id: id, user_id: userId }).onConflict().ignore();
  return (await deviceKey(trx, id)) as PublicKey;
}

export async function isPersonOf(db: Db, deviceId: string, userId: string): Promise<boolean> {
  return (await db('device_person').where({ device_id: deviceId, user_id: userId }).first('user_id')) !== undefined;
}

/** Whether the device is to forget what it keeps: asked for, and not said to be done since. */
export async function isToBeWiped(db: Db, id: string): Promise<boolean> {
  const row = await db<DeviceRow>('device').where({ id }).first('wipe_asked_at', 'wiped_at');
  return !!row?.wipe_asked_at && (row.wiped_at === null || row.wiped_at < row.wipe_asked_at);
}

/** Asks for it; the sessions of everybody who signed in on it come back, to be ended. */
export async function askWipe(trx: Db, id: string, by: string): Promise<string[] | null> {
  const asked = await trx('device').where({ id }).update({ wipe_asked_at: trx.fn.now(), wipe_asked_by: by });
  return asked === 0 ? null : trx('device_person').where({ device_id: id }).pluck('user_id');
}

export async function noteWiped(trx: Db, id: string): Promise<void> {
  await trx('device').where({ id }).whereNotNull('wipe_asked_at').update({ wiped_at: trx.fn.now() });
}

interface KeyRow {
  id: string;
  public_key: unknown;
  private_key: unknown;
}

/** The newest key to seal to; `undefined` before the first was made. */
export async function newestSealingKey(db: Db): Promise<SealingKey | undefined> {
  const row = await db<KeyRow>('sealing_key').orderBy('made_at', 'desc').first();
  return row && { id: row.id, key: readStored(publicKeySchema, row.public_key, `sealing key ${row.id}`) };
}

export async function sealingSecret(db: Db, id: string): Promise<unknown> {
  return (await db<KeyRow>('sealing_key').where({ id }).first('private_key'))?.private_key;
}

export async function insertSealingKey(trx: Db, key: SealingKey, secret: object): Promise<void> {
  await trx('sealing_key').insert({
    id: key.id,
    public_key: JSON.stringify(key.key),
    private_key: JSON.stringify(secret),
  });
}

interface AsideRow {
  id: string;
  author_id: string;
  author_name: string;
  name: string;
  ref: string | null;
  spot_id: string | null;
  content: unknown;
  problem: unknown;
  made_at: Date;
  arrived_at: Date;
}

export interface NewAside {
  readonly id: string;
  readonly deviceId: string;
  readonly spotId: string | null;
  readonly name: string;
  readonly content: SealedContent;
  readonly problem: Problem;
}

/** Keeps what was refused; sent again it takes the newest reason, and stays settled where it was settled. */
export async function keepAside(trx: Db, aside: NewAside): Promise<void> {
  await trx('set_aside')
    .insert({
      id: aside.id,
      author_id: aside.content.authorId,
      device_id: aside.deviceId,
      // One that is not there names nothing.
      spot_id: trx.raw('(select id from spot where id = ?)', [aside.spotId]),
      name: aside.name,
      content: JSON.stringify(aside.content),
      problem: JSON.stringify(aside.problem),
      made_at: new Date(aside.content.madeAt),
    })
    .onConflict('id')
    .merge(['problem']);
}

function openAsides(db: Db) {
  return db('set_aside')
    .join('app_user as author', 'author.id', 'set_aside.author_id')
    .leftJoin('spot', 'spot.id', 'set_aside.spot_id')
    .whereNull('set_aside.settled_at');
}

/** What waits to be settled, of one author or of all, the oldest first. */
export async function asidesOf(db: Db, authorId: string | null): Promise<Aside[]> {
  const open = openAsides(db)
    .orderBy(['set_aside.arrived_at', 'set_aside.id'])
    .select<AsideRow[]>(
      'set_aside.id',
      'set_aside.name',
      'set_aside.spot_id',
      'set_aside.problem',
      'set_aside.made_at',
      'set_aside.arrived_at',
      'author.name as author_name',
      'spot.ref',
    );
  const rows = await (authorId === null ? open : open.where('author.id', authorId));
  return rows.map((row) => ({
    id: row.id,
    authorName: row.author_name,
    name: row.name,
    ref: row.ref,
    spotId: row.spot_id,
    madeAt: row.made_at.toISOString(),
    arrivedAt: row.arrived_at.toISOString(),
    problem: readStored(problemSchema, row.problem, `set aside ${row.id}`),
  }));
}

export async function findAside(db: Db, id: string): Promise<{ authorId: string; content: SealedContent } | undefined> {
  const row = await openAsides(db)
    .where('set_aside.id', id)
    .first<AsideRow | undefined>('set_aside.author_id', 'set_aside.content');
  return (
    row && {
      authorId: row.author_id,
      content: readStored(sealedContentSchema, row.content, `set aside ${id}`),
    }
  );
}

/** Returns false where somebody settled it first. */
export async function settleAside(trx: Db, id: string, decision: 'again' | 'bin', by: string): Promise<boolean> {
  const settled = await trx('set_aside')
    .where({ id })
    .whereNull('settled_at')
    .update({ settled_at: trx.fn.now(), settled_by: by, decision });
  return settled > 0;
}
