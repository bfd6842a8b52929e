import type {
  AskConsent,
  Consent,
  CoverTicket,
  KeptClearance,
  Leave,
  NewClearance,
  NewPermit,
  SpotPermit,
} from '@sombra/contract';
import { addDaysTo, type IsoDate } from '@sombra/core';
import type { Db } from '../platform/db';
import { repliesOf } from '../tickets/repository';

/** Tickets that ended longer ago than this say nothing of today's digging. */
const showDaysAfter = 60;

/** All there is of leave to dig and plant at a spot. */
export async function leaveOf(db: Db, spotId: string, today: IsoDate): Promise<Leave> {
  // One after another: in a transaction they share one connection.
  const tickets = await ticketsOver(db, { spotId }, today);
  const clearances = await clearancesOf(db, spotId);
  const permits = await permitsOf(db, spotId);
  const consents = await consentsOf(db, spotId, today);
  return { tickets, clearances, permits, consents };
}

/** Tickets whose area holds a spot, or a position. */
export async function ticketsOver(
  db: Db,
  where: { spotId: string } | { position: readonly [number, number] },
  today: IsoDate,
): Promise<CoverTicket[]> {
  const point =
    'spotId' in where
      ? db.raw('(select position from spot where id = ?)', [where.spotId])
      : db.raw('st_setsrid(st_makepoint(?, ?), 4326)', [...where.position]);
  const rows = await db('locate_ticket')
    .whereRaw('st_covers(area, ?)', [point])
    .where((either) => either.whereNull('valid_until').orWhere('valid_until', '>=', addDaysTo(today, -showDaysAfter)))
    .orderByRaw('valid_until nulls first')
    .select<TicketRow[]>(
      'id',
      'number',
      'valid_from',
      'valid_until',
      'state',
      db.raw('st_distance(st_boundary(area)::geography, ?::geography) as room_m', [point]),
    );
  const replies = await repliesOf(
    db,
    rows.map(({ id }) => id),
  );
  return rows.map((row) => ticketOf(row, replies));
}

interface TicketRow {
  readonly id: string;
  readonly number: string | null;
  readonly valid_from: string | null;
  readonly valid_until: string | null;
  readonly state: string;
  readonly room_m: number;
}

const ticketOf = (row: TicketRow, replies: Awaited<ReturnType<typeof repliesOf>>): CoverTicket => ({
  id: row.id,
  number: row.number ?? '',
  validFrom: row.valid_from,
  validUntil: row.valid_until,
  withdrawn: row.state === 'withdrawn',
  roomM: Math.floor(row.room_m * 10) / 10,
  replies: replies.get(row.id) ?? [],
});

const clearanceColumns = [
  'id',
  'document',
  'cleared_by as clearedBy',
  'valid_from as validFrom',
  'valid_until as validUntil',
  'added_by as addedBy',
] as const;

/** Leave to dig at several spots at once, in three questions to the database however many there are. */
export async function coversOf(
  db: Db,
  spotIds: readonly string[],
  today: IsoDate,
): Promise<ReadonlyMap<string, { readonly tickets: CoverTicket[]; readonly clearances: KeptClearance[] }>> {
  const covers = new Map(
    spotIds.map((id) => [id, { tickets: [] as CoverTicket[], clearances: [] as KeptClearance[] }] as const),
  );
  const over = await db('locate_ticket')
    .joinRaw('join spot on spot.id = any(?::uuid[]) and st_covers(area, spot.position)', [[...spotIds]])
    .where((either) => either.whereNull('valid_until').orWhere('valid_until', '>=', addDaysTo(today, -showDaysAfter)))
    .orderByRaw('valid_until nulls first')
    .select<(TicketRow & { spot_id: string })[]>(
      'spot.id as spot_id',
      'locate_ticket.id',
      'number',
      'valid_from',
      'valid_until',
      'state',
      db.raw('st_distance(st_boundary(area)::geography, spot.position::geography) as room_m'),
    );
  const replies = await repliesOf(db, [...new Set(over.map(({ id }) => id))]);
  for (const row of over) covers.get(row.spot_id)?.tickets.push(ticketOf(row, replies));
  const cleared = await db('lawful_clearance')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .orderBy('valid_until', 'desc')
    .select<(KeptClearance & { spotId: string })[]>('spot_id as spotId', ...clearanceColumns);
  for (const { spotId, ...clearance } of cleared) covers.get(spotId)?.clearances.push(clearance);
  return covers;
}

export async function clearancesOf(db: Db, spotId: string): Promise<KeptClearance[]> {
  return db('lawful_clearance')
    .where({ spot_id: spotId })
    .orderBy('valid_until', 'desc')
    .select<KeptClearance[]>(...clearanceColumns);
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
  photo: StoredFile & { id: string; spotId: string; bytes: number },
  by: string,
): Promise<boolean> {
  const row = {
    id: photo.id,
    spot_id: photo.spotId,
    stored_as: photo.storedAs,
    content_type: photo.contentType,
    bytes: photo.bytes,
    added_by: by,
  };
  return (await db('spot_photo').insert(row).onConflict('id').ignore().returning('id')).length > 0;
}

async function permitsOf(db: Db, spotId: string): Promise<SpotPermit[]> {
  return db('road_permit')
    .join('road_permit_spot as member', 'member.permit_id', 'road_permit.id')
    .where('member.spot_id', spotId)
    .orderBy('valid_until', 'desc')
    .select<SpotPermit[]>(
      'road_permit.id',
      'number',
      'authority',
      'valid_from as validFrom',
      'valid_until as validUntil',
    );
}

export async function insertPermit(db: Db, permit: NewPermit, by: string): Promise<void> {
  const { id, number, authority, validFrom, validUntil, spotIds } = permit;
  const row = { id, number, authority, valid_from: validFrom, valid_until: validUntil, added_by: by };
  const added = await db('road_permit').insert(row).onConflict('id').ignore().returning('id');
  if (added.length === 0) return;
  await db('road_permit_spot').insert(spotIds.map((spotId) => ({ permit_id: id, spot_id: spotId })));
}

interface ConsentRow {
  id: string;
  spot_id: string;
  owner: string;
  asked_by: string;
  asked_at: Date;
  expires_on: string;
  revoked_at: Date | null;
  answered_at: Date | null;
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
    askedOn: row.asked_at.toISOString().slice(0, 10),
    expiresOn: row.expires_on,
    // What was given before it was revoked is revoked; an answer outlives the link's last day.
    state: row.revoked_at ? 'revoked' : (answered ?? open),
    answeredAt: row.answered_at?.toISOString() ?? null,
    signedBy: row.signed_by,
    remark: row.remark,
  };
}

async function consentsOf(db: Db, spotId: string, today: IsoDate): Promise<Consent[]> {
  const rows: ConsentRow[] = await db<ConsentRow>('owner_consent')
    .where({ spot_id: spotId })
    .orderBy('asked_at', 'desc');
  return rows.map((row) => consentOf(row, today));
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
