import type { Person, User } from '@sombra/contract';
import type { SessionData } from 'express-session';
import type pg from 'pg';
import type { Db } from '../platform/db';
import { keyOfSession } from '../platform/sessions';

interface UserRow {
  id: string;
  sign_in: string;
  name: string;
  role: User['role'];
  units: User['units'];
  password_hash: string | null;
  version: number;
  added_by: string | null;
  added_at: Date;
  disabled_at: Date | null;
  last_sign_in_at: Date | null;
}

export interface UserWithHash extends User {
  /** `null` until they have set a password. */
  readonly passwordHash: string | null;
}

const userColumns = ['id', 'sign_in', 'name', 'role', 'units'] as const;
const userOfRow = ({ id, sign_in, name, role, units }: Pick<UserRow, (typeof userColumns)[number]>): User => ({
  id,
  signIn: sign_in,
  name,
  role,
  units,
});

/** Whoever may sign in by this name; somebody disabled may not. */
export async function findBySignIn(db: Db, signIn: string): Promise<UserWithHash | undefined> {
  const row = await db<UserRow>('app_user').where({ sign_in: signIn.toLowerCase() }).whereNull('disabled_at').first();
  return row && { ...userOfRow(row), passwordHash: row.password_hash };
}

export async function findUser(db: Db, userId: string): Promise<User | undefined> {
  const row = await db<UserRow>('app_user')
    .where({ id: userId })
    .whereNull('disabled_at')
    .first(...userColumns);
  return row && userOfRow(row);
}

/** A session that has not run out, and whose it is; nobody's where that person may not sign in any more. */
export async function sessionWithPerson(
  pool: pg.Pool,
  sid: string,
): Promise<{ session: SessionData; person: User | null } | undefined> {
  const { rows } = await pool.query<{ session: SessionData; person: User | null }>(
    `select sess as session, (
       select json_build_object('id', id, 'signIn', sign_in, 'name', name, 'role', role, 'units', units)
       from app_user where id = (sess->>'userId')::uuid and disabled_at is null) as person
     from session where sid = $1 and expire >= now()`,
    [sid],
  );
  return rows[0];
}

export async function passwordHashOf(db: Db, userId: string): Promise<string | null> {
  const row = await db<UserRow>('app_user').where({ id: userId }).first('password_hash');
  return row?.password_hash ?? null;
}

/** Drops sessions that have run out. */
export async function pruneSessions(db: Db): Promise<void> {
  await db('session').where('expire', '<', db.fn.now()).delete();
}

/** Drops counts of tries that have run out. */
export async function pruneLimits(db: Db, nowMs: number): Promise<void> {
  await db('sign_in_limit').where('expire', '<', nowMs).delete();
}

/** Tells every server process that the streams of a session end. */
export async function announceEnd(db: Db, sessionKey: string): Promise<void> {
  await db.raw(`select pg_notify('sombra_ended', ?)`, [sessionKey]);
}

/** Ends the sessions of a person on every device, but for one. */
export async function endSessions(db: Db, userId: string, butSid = ''): Promise<void> {
  const ended = await db('session')
    .whereRaw(`sess->>'userId' = ?`, [userId])
    .whereNot('sid', butSid)
    .delete()
    .returning<{ sid: string }[]>('sid');
  for (const { sid } of ended) await announceEnd(db, keyOfSession(sid));
}

export async function changeUser(
  db: Db,
  userId: string,
  change: { readonly units?: User['units'] | undefined; readonly name?: string | undefined },
): Promise<void> {
  const { units, name } = change;
  const set = { ...(units === undefined ? {} : { units }), ...(name === undefined ? {} : { name }) };
  if (Object.keys(set).length > 0) await db<UserRow>('app_user').where({ id: userId }).update(set);
}

export async function setPassword(db: Db, userId: string, passwordHash: string): Promise<void> {
  await db<UserRow>('app_user').where({ id: userId }).update({ password_hash: passwordHash });
}

export async function noteSignIn(db: Db, userId: string): Promise<void> {
  await db<UserRow>('app_user').where({ id: userId }).update({ last_sign_in_at: new Date() });
}

/** Returns false where the name or the id is somebody's already. */
export async function insertUser(db: Db, user: UserWithHash & { readonly addedBy?: string | null }): Promise<boolean> {
  const { id, signIn, name, role, units, passwordHash, addedBy = null } = user;
  const added = await db<UserRow>('app_user')
    .insert({ id, sign_in: signIn, name, role, units, password_hash: passwordHash, added_by: addedBy })
    .onConflict()
    .ignore()
    .returning('id');
  return added.length > 0;
}

// People, as who manages them sees them

interface PersonRow extends UserRow {
  sessions: number;
  link_until: Date | null;
}

export async function allPeople(db: Db): Promise<Person[]> {
  const rows = await db('app_user as person')
    .leftJoin('invitation', 'invitation.user_id', 'person.id')
    .orderByRaw('person.disabled_at is not null, lower(person.name), person.id')
    .select<PersonRow[]>(
      'person.*',
      db.raw(
        `(select count(*)::int from session where sess->>'userId' = person.id::text and expire > now()) as sessions`,
      ),
      db.raw('case when invitation.expires_at > now() then invitation.expires_at end as link_until'),
    );
  return rows.map((row) => ({
    ...userOfRow(row),
    version: row.version,
    joined: row.password_hash !== null,
    disabledAt: row.disabled_at?.toISOString() ?? null,
    lastSignInAt: row.last_sign_in_at?.toISOString() ?? null,
    addedBy: row.added_by,
    addedAt: row.added_at.toISOString(),
    sessions: row.sessions,
    linkUntil: row.link_until?.toISOString() ?? null,
  }));
}

/** People who administer and may sign in, held so that two cannot each take away the other's last one. */
export async function lockAdministrators(db: Db): Promise<string[]> {
  return db('app_user').where({ role: 'administrator' }).whereNull('disabled_at').orderBy('id').forUpdate().pluck('id');
}

/** Returns false where somebody changed them since. */
export async function updatePerson(
  db: Db,
  id: string,
  { version, disabled, ...set }: { name: string; role: User['role']; disabled: boolean; version: number },
): Promise<boolean> {
  const disabledAt = disabled ? db.raw('coalesce(disabled_at, now())') : null;
  const changed = await db('app_user')
    .where({ id, version })
    .update({ ...set, disabled_at: disabledAt, version: version + 1 });
  return changed > 0;
}

/** Puts a link in the place of any made before; only its hash is kept. */
export async function keepInvitation(
  db: Db,
  link: { readonly userId: string; readonly tokenHash: string; readonly madeBy: string; readonly expiresAt: Date },
): Promise<void> {
  await db('invitation')
    .insert({
      user_id: link.userId,
      token_hash: link.tokenHash,
      made_by: link.madeBy,
      expires_at: link.expiresAt,
    })
    .onConflict('user_id')
    .merge();
}

/** Whose link this is, while it lasts and they may sign in. */
export async function invitedBy(db: Db, tokenHash: string): Promise<User | undefined> {
  const row = await db('app_user as person')
    .join('invitation', 'invitation.user_id', 'person.id')
    .where('invitation.token_hash', tokenHash)
    .whereRaw('invitation.expires_at > now()')
    .whereNull('person.disabled_at')
    .first<UserRow | undefined>(...userColumns.map((column) => `person.${column}`));
  return row && userOfRow(row);
}

/** Returns false where it was used meanwhile. */
export async function dropInvitation(db: Db, userId: string): Promise<boolean> {
  return (await db('invitation').where({ user_id: userId }).delete()) > 0;
}
