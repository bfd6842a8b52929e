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
