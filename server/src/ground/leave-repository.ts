import type { AskConsent, Consent, Leave, NewClearance, NewPermit, SpotPermit, SpotPhoto } from '@sombra/contract';
import type { IsoDate } from '@sombra/core';
import { askTogether, inLockOrder, isoMoment, type Db } from '../platform/db';
import { coverOf, coverQuestions } from '../tickets/cover-repository';

/** What asks, in one trip, for all there is of leave to dig and plant at a spot. */
export const leaveQuestions = (db: Db, spotId: string, today: IsoDate) => ({
  ...coverQuestions(db, { spotId }, today),
  permits: db('road_permit')
    .join('road_permit_spot as member', 'member.permit_id', 'road_permit.id')
    .where('member.spot_id', spotId)
    .orderBy('valid_until', 'desc')
    .select('road_permit.id', 'number', 'authority', 'valid_from as validFrom', 'valid_until as validUntil'),
  consents: db('owner_consent').where({ spot_id: spotId }).orderBy('asked_at', 'desc').select(),
});

export const leaveFrom = (
  asked: Readonly<Record<keyof ReturnType<typeof leaveQuestions>, readonly unknown[]>>,
  today: IsoDate,
): Leave => ({
  ...coverOf(asked),
  permits: [...(asked.permits as readonly SpotPermit[])],
  consents: (asked.consents as readonly ConsentRow[]).map((row) => consentOf(row, today)),
});

/** All there is of leave to dig and plant at a spot. */
export async function leaveOf(db: Db, spotId: string, today: IsoDate): Promise<Leave> {
  return leaveFrom(await askTogether(db, leaveQuestions(db, spotId, today)), today);
}

export interface StoredFile {
  readonly storedAs: string;
  readonly contentType: string;
}

export async function insertClearance(
  db: Db,
  spotId: string,
  clearance: NewClearance,
  file: StoredFile,
  by: string,
): Promise<boolean> {
  const { id, document, clearedBy, validFrom, validUntil } = clearance;
  const row = {
    id,
    spot_id: spotId,
    document,
    cleared_by: clearedBy,
    valid_from: validFrom,
    valid_until: validUntil,
    stored_as: file.storedAs,
    content_type: file.contentType,
    added_by: by,
  };
  return (await db('lawful_clearance').insert(row).onConflict('id').ignore().returning('id')).length > 0;
}

/** A kept file with whose it is. */
export interface KeptUpload extends StoredFile {
  readonly spotId: string;
  readonly addedBy: string;
}

export async function keptFile(
  db: Db,
  table: 'lawful_clearance' | 'spot_photo',
  id: string,
): Promise<KeptUpload | undefined> {
  return db(table)
    .where({ id })
    .first<KeptUpload | undefined>(
      'stored_as as storedAs',
      'content_type as contentType',
      'spot_id as spotId',
      'added_by as addedBy',
    );
}

export async function insertPhoto(
  db: Db,
  photo: StoredFile & { id: string; spotId: string; bytes: number; step?: string | undefined },
  by: string,
): Promise<boolean> {
  const row = {
    id: photo.id,
    spot_id: photo.spotId,
    stored_as: photo.storedAs,
    content_type: photo.contentType,
    bytes: photo.bytes,
    added_by: by,
    step: photo.step ?? null,
  };
  return (await db('spot_photo').insert(row).onConflict('id').ignore().returning('id')).length > 0;
}

const newestPhotos = 6;

/** What asks for the newest photos of a place, newest first. */
export const photosQuestion = (db: Db, spotId: string) =>
  db('spot_photo')
    .where({ spot_id: spotId })
    .orderBy('added_at', 'desc')
    .limit(newestPhotos)
    .select('id', 'step', 'added_at');

interface PhotoRow {
  readonly id: string;
  readonly step: string | null;
  readonly added_at: string | Date;
}

export const photosFrom = (rows: readonly unknown[]): SpotPhoto[] =>
  (rows as readonly PhotoRow[]).map(({ id, step, added_at }) => ({ id, step, addedAt: isoMoment(added_at) }));

/** The newest photos of a place, newest first. */
export const photosOf = async (db: Db, spotId: string): Promise<SpotPhoto[]> =>
  photosFrom(await photosQuestion(db, spotId));

export async function insertPermit(db: Db, permit: NewPermit, by: string): Promise<void> {
  const { id, number, authority, validFrom, validUntil, spotIds } = permit;
  const row = { id, number, authority, valid_from: validFrom, valid_until: validUntil, added_by: by };
  const added = await db('road_permit').insert(row).onConflict('id').ignore().returning('id');
  if (added.length === 0) return;
  await db('road_permit_spot').insert(inLockOrder(spotIds.map((spotId) => ({ permit_id: id, spot_id: spotId }))));
}

interface ConsentRow {
  id: string;
  spot_id: string;
  owner: string;
  asked_by: string;
  asked_at: string | Date;
  expires_on: string;
  revoked_at: string | Date | null;
  answered_at: string | Date | null;
  agrees: boolean | null;
  signed_by: string | null;
  remark: string;
}

function consentOf(row: ConsentRow, today: IsoDate): Consent {
  const answered = row.agrees === null ? null : row.agrees ? 'given' : 'refused';
  const open = row.revoked_at ? 'revoked' : row.expires_on < today ? 'expired' : 'asked';
  return {
    id: row.id,
    owner: row.owner,
    askedBy: row.asked_by,
    askedOn: isoMoment(row.asked_at).slice(0, 10),
    expiresOn: row.expires_on,
    // What was given before it was revoked is revoked; an answer outlives the link's last day.
    state: row.revoked_at ? 'revoked' : (answered ?? open),
    answeredAt: row.answered_at === null ? null : isoMoment(row.answered_at),
    signedBy: row.signed_by,
    remark: row.remark,
  };
}

export async function insertConsent(
  db: Db,
  spotId: string,
  ask: AskConsent,
  expiresOn: IsoDate,
  by: string,
): Promise<void> {
  const row = { id: ask.id, spot_id: spotId, owner: ask.owner, asked_by: by, expires_on: expiresOn };
  await db('owner_consent').insert(row).onConflict('id').ignore();
}

export async function findConsent(
  db: Db,
  id: string,
  today: IsoDate,
): Promise<{ consent: Consent; spotId: string } | undefined> {
  const row = await db<ConsentRow>('owner_consent').where({ id }).forUpdate().first();
  return row && { consent: consentOf(row, today), spotId: row.spot_id };
}

export async function keepAnswer(
  db: Db,
  id: string,
  answer: { agrees: boolean; signedBy: string; remark: string },
): Promise<void> {
  await db('owner_consent')
    .where({ id })
    .update({ agrees: answer.agrees, signed_by: answer.signedBy, remark: answer.remark, answered_at: db.fn.now() });
}

export async function revokeConsent(db: Db, id: string): Promise<void> {
  await db('owner_consent').where({ id }).update({ revoked_at: db.fn.now() });
}
