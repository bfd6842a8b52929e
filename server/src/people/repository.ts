import type { User } from '@sombra/contract';
import type { Db } from '../platform/db';

interface UserRow {
  id: string;
  sign_in: string;
  name: string;
  role: User['role'];
  units: User['units'];
  password_hash: string;
}

export interface UserWithHash extends User {
  readonly passwordHash: string;
}

export async function findBySignIn(db: Db, signIn: string): Promise<UserWithHash | undefined> {
  const row = await db<UserRow>('app_user').where({ sign_in: signIn.toLowerCase() }).first();
  if (!row) return undefined;
  const { id, sign_in, name, role, units, password_hash } = row;
  return { id, signIn: sign_in, name, role, units, passwordHash: password_hash };
}

export async function findUser(db: Db, userId: string): Promise<User | undefined> {
  const row = await db<UserRow>('app_user').where({ id: userId }).first('id', 'sign_in', 'name', 'role', 'units');
  return row && { id: row.id, signIn: row.sign_in, name: row.name, role: row.role, units: row.units };
}

/** Drops counts of tries that have run out. */
export async function pruneLimits(db: Db, nowMs: number): Promise<void> {
  await db('sign_in_limit').where('expire', '<', nowMs).delete();
}

/** Tells every server process that the streams of a session end. */
export async function announceEnd(db: Db, sessionKey: string): Promise<void> {
  await db.raw(`select pg_notify('sombra_ended', ?)`, [sessionKey]);
}

export async function setUnits(db: Db, userId: string, units: User['units']): Promise<void> {
  await db<UserRow>('app_user').where({ id: userId }).update({ units });
}

export async function insertUser(db: Db, user: UserWithHash): Promise<void> {
  const { id, signIn, name, role, units, passwordHash } = user;
  await db<UserRow>('app_user')
    .insert({ id, sign_in: signIn, name, role, units, password_hash: passwordHash })
    .onConflict('sign_in')
    .ignore();
}

export async function programmeTimeZone(db: Db): Promise<string> {
  const row = await db<{ time_zone: string }>('programme').first('time_zone');
  return row?.time_zone ?? 'UTC';
}
