import type { DayPerson } from '@sombra/contract';
import type { Skill } from '@sombra/core';
import type { Db } from '../platform/db';

interface PersonRow {
  id: string;
  day_id: string;
  name: string;
  state: DayPerson['state'];
  held_until: Date | null;
  skill: Skill;
  minor: boolean;
  guardian_id: string | null;
  together: string | null;
  no_lifting: boolean;
  photos: boolean;
  waiver_version: number | null;
  waiver_signed_by: string | null;
  user_id: string | null;
  source: DayPerson['source'];
  came_at: Date | null;
  left_at: Date | null;
  token_hash: string | null;
}

const personOf = (row: PersonRow): DayPerson => ({
  id: row.id,
  name: row.name,
  state: row.state,
  heldUntil: row.held_until?.toISOString() ?? null,
  skill: row.skill,
  minor: row.minor,
  guardianId: row.guardian_id,
  together: row.together,
  noLifting: row.no_lifting,
  photos: row.photos,
  waiver: row.waiver_version !== null,
  waiverSignedBy: row.waiver_signed_by,
  userId: row.user_id,
  source: row.source,
  cameAt: row.came_at?.toISOString() ?? null,
  leftAt: row.left_at?.toISOString() ?? null,
});

export async function peopleOf(db: Db, dayId: string): Promise<DayPerson[]> {
  const rows = await db<PersonRow>('day_person').where({ day_id: dayId }).orderBy(['made_at', 'id']);
  return rows.map(personOf);
}

/** Places that are taken: confirmed, or held and not run out. */
export async function placesTaken(db: Db, dayId: string): Promise<number> {
  const row = await db('day_person')
    .where({ day_id: dayId })
    .whereRaw(`(state = 'confirmed' or (state = 'held' and held_until > now()))`)
    .first<{ taken: number }>(db.raw('count(*)::int as taken'));
  return row.taken;
}

export interface NewPerson {
  readonly id: string;
  readonly dayId: string;
  readonly name: string;
  readonly state: DayPerson['state'];
  readonly heldMinutes: number | null;
  readonly skill: Skill;
  readonly minor: boolean;
  readonly guardianId: string | null;
  readonly together: string | null;
  readonly noLifting: boolean;
  readonly photos: boolean;
  readonly waiver: { readonly version: number; readonly signedBy: string } | null;
  readonly userId: string | null;
  readonly source: DayPerson['source'];
  readonly emailHash: string | null;
  readonly tokenHash: string | null;
}

/** Returns false where the id is there already, or this person of this address comes already. */
export async function insertPerson(trx: Db, person: NewPerson): Promise<boolean> {
  const added = await trx('day_person')
    .insert({
      id: person.id,
      day_id: person.dayId,
      name: person.name,
      state: person.state,
      held_until:
        person.heldMinutes === null ? null : trx.raw(`now() + make_interval(mins => ?)`, [person.heldMinutes]),
      skill: person.skill,
      minor: person.minor,
      guardian_id: person.guardianId,
      together: person.together,
      no_lifting: person.noLifting,
      photos: person.photos,
      waiver_version: person.waiver?.version ?? null,
      waiver_signed_by: person.waiver?.signedBy ?? null,
      waiver_at: person.waiver ? trx.fn.now() : null,
      user_id: person.userId,
      source: person.source,
      email_hash: person.emailHash,
      token_hash: person.tokenHash,
      came_at: person.source === 'walk_in' ? trx.fn.now() : null,
    })
    .onConflict()
    .ignore()
    .returning('id');
  return added.length > 0;
}

export async function findPerson(db: Db, id: string): Promise<(DayPerson & { dayId: string }) | undefined> {
  const row = await db<PersonRow>('day_person').where({ id }).first();
  return row && { ...personOf(row), dayId: row.day_id };
}

/** Whoever came by this link's token, with the minors who come along. */
export async function findByToken(
  db: Db,
  tokenHash: string,
): Promise<{ person: DayPerson; dayId: string; with: DayPerson[] } | undefined> {
  const row = await db<PersonRow>('day_person').where({ token_hash: tokenHash }).first();
  if (!row) return undefined;
  const minors = await db<PersonRow>('day_person').where({ guardian_id: row.id }).orderBy('name');
  return { person: personOf(row), dayId: row.day_id, with: minors.map(personOf) };
}

/** Whoever of this address and name is of the day and not cancelled. */
export async function findRegistered(
  db: Db,
  dayId: string,
  { emailHash, name }: { readonly emailHash: string; readonly name: string },
): Promise<string | undefined> {
  const row = await db('day_person')
    .where({ day_id: dayId, email_hash: emailHash })
    .whereRaw('lower(name) = lower(?)', [name])
    .whereNot({ state: 'cancelled' })
    .first<{ id: string } | undefined>('id');
  return row?.id;
}

export async function setPersonState(
  trx: Db,
  ids: readonly string[],
  state: DayPerson['state'],
  heldMinutes: number | null = null,
): Promise<void> {
  await trx('day_person')
    .whereIn('id', [...ids])
    .update({
      state,
      held_until: heldMinutes === null ? null : trx.raw(`now() + make_interval(mins => ?)`, [heldMinutes]),
    });
}

export async function updatePerson(
  trx: Db,
  id: string,
  change: Pick<
    NewPerson,
    'name' | 'state' | 'skill' | 'minor' | 'guardianId' | 'together' | 'noLifting' | 'photos' | 'waiver'
  >,
): Promise<void> {
  await trx('day_person')
    .where({ id })
    .update({
      name: change.name,
      state: change.state,
      held_until: null,
      skill: change.skill,
      minor: change.minor,
      guardian_id: change.guardianId,
      together: change.together,
      no_lifting: change.noLifting,
      photos: change.photos,
      waiver_version: change.waiver?.version ?? null,
      waiver_signed_by: change.waiver?.signedBy ?? null,
    });
}

/** When somebody came or went; the first word stands. */
export async function keepPresence(
  trx: Db,
  id: string,
  dayId: string,
  what: 'came_at' | 'left_at',
  at: string,
): Promise<void> {
  await trx('day_person')
    .where({ id, day_id: dayId })
    .whereNull(what)
    .update({ [what]: at });
  // Who is seen is there, whatever the mail said.
  if (what === 'came_at') {
    await trx('day_person')
      .where({ id })
      .whereIn('state', ['held', 'waiting'])
      .update({ state: 'confirmed', held_until: null });
  }
}

/** Those who wait for a place, first come first. */
export async function firstWaiting(
  trx: Db,
  dayId: string,
): Promise<{ person: DayPerson; with: DayPerson[] } | undefined> {
  const row = await trx<PersonRow>('day_person')
    .where({ day_id: dayId, state: 'waiting' })
    .whereNull('guardian_id')
    .orderBy(['made_at', 'id'])
    .first();
  if (!row) return undefined;
  const minors = await trx<PersonRow>('day_person').where({ guardian_id: row.id, state: 'waiting' });
  return { person: personOf(row), with: minors.map(personOf) };
}

/** Places held past their time are given up. */
export async function dropRunOut(trx: Db, dayId: string): Promise<void> {
  await trx('day_person')
    .where({ day_id: dayId, state: 'held' })
    .whereRaw('held_until <= now()')
    .update({ state: 'cancelled', held_until: null });
}

export async function keepPrivate(trx: Db, id: string, season: string, sealed: Buffer): Promise<void> {
  await trx('day_person_private').insert({ id, season, sealed }).onConflict('id').merge();
}

export async function privateOf(db: Db, dayId: string): Promise<{ id: string; season: string; sealed: Buffer }[]> {
  return db('day_person_private as secret')
    .join('day_person as person', 'person.id', 'secret.id')
    .where('person.day_id', dayId)
    .select<{ id: string; season: string; sealed: Buffer }[]>('secret.id', 'secret.season', 'secret.sealed');
}

export async function setTokenHash(trx: Db, id: string, tokenHash: string): Promise<void> {
  await trx('day_person').where({ id }).update({ token_hash: tokenHash });
}
