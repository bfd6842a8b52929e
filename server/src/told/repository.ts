import type { PlaceLinks, TellOfTree, Told } from '@sombra/contract';
import type { Db } from '../platform/db';
import type { KeptFile } from '../platform/uploads';

export interface PlaceOfLink {
  readonly linkId: string;
  readonly placeId: string;
  readonly place: string;
}
interface ReportRow {
  readonly id: string;
  readonly linkId: string;
  readonly placeId: string;
  readonly words: string;
  readonly toldAt: Date;
  readonly settled: boolean;
  readonly photo: KeptFile | null;
}

export async function placeId(db: Db, name: string): Promise<string | undefined> {
  return (await db('place').where({ name }).first<{ id: string } | undefined>('id'))?.id;
}

/** Returns false where this id was made before: its link is known to whoever made it, and to nobody else. */
export async function insertLink(
  trx: Db,
  link: { readonly id: string; readonly placeId: string; readonly tokenHash: string; readonly by: string },
): Promise<boolean> {
  const row = { id: link.id, place_id: link.placeId, token_hash: link.tokenHash, made_by: link.by };
  return (await trx('place_link').insert(row).onConflict('id').ignore().returning('id')).length > 0;
}

export async function placeLinks(db: Db): Promise<PlaceLinks> {
  const rows = await db('place_link')
    .join('place', 'place.id', 'place_link.place_id')
    .orderBy(['place.name', 'made_at'])
    .select<(Omit<PlaceLinks[number], 'madeAt'> & { madeAt: Date })[]>(
      'place_link.id',
      'place.name as place',
      'made_by as madeBy',
      'made_at as madeAt',
      db.raw('revoked_at is not null as revoked'),
      db.raw('(select count(*)::int from resident_report where link_id = place_link.id) as told'),
    );
  return rows.map((row) => ({ ...row, madeAt: row.madeAt.toISOString() }));
}

export async function revokeLink(trx: Db, id: string): Promise<boolean> {
  const rows = await trx('place_link').where({ id }).update({ revoked_at: trx.fn.now() }).returning('id');
  return rows.length > 0;
}

/** The place of an open link; in a transaction nobody takes it back meanwhile. */
export async function placeOfLink(db: Db, tokenHash: string): Promise<PlaceOfLink | undefined> {
  const query = db('place_link')
    .join('place', 'place.id', 'place_link.place_id')
    .where({ token_hash: tokenHash })
    .whereNull('revoked_at');
  if (db.isTransaction) void query.forShare('place_link');
  return query.first<PlaceOfLink | undefined>('place_link.id as linkId', 'place.id as placeId', 'place.name as place');
}

/** Standing trees of places, by number. */
export async function treesOfPlaces(
  db: Db,
  placeIds: readonly string[],
): Promise<{ placeId: string; spotId: string; ref: string; species: string | null }[]> {
  return db('tree')
    .join('spot', 'spot.id', 'tree.spot_id')
    .whereRaw('spot.place_id = any(?::uuid[])', [[...placeIds]])
    .where({ standing: true })
    .whereNull('spot.withdrawn_on')
    .orderBy('spot.ref')
    .select('spot.place_id as placeId', 'spot.id as spotId', 'spot.ref', 'tree.species');
}

export async function openReports(db: Db, linkId: string): Promise<number> {
  const row = await db('resident_report')
    .where({ link_id: linkId })
    .whereNull('settled_at')
    .first<{ n: number } | undefined>(db.raw('count(*)::int as n'));
  return row?.n ?? 0;
}

/** Returns false where it was told before. */
export async function insertReport(trx: Db, linkId: string, { id, ref, words }: TellOfTree): Promise<boolean> {
  const row = { id, link_id: linkId, ref, words };
  return (await trx('resident_report').insert(row).onConflict('id').ignore().returning('id')).length > 0;
}

export async function findReport(db: Db, id: string): Promise<ReportRow | undefined> {
  const query = db('resident_report')
    .join('place_link', 'place_link.id', 'resident_report.link_id')
    .where('resident_report.id', id);
  if (db.isTransaction) void query.forUpdate('resident_report');
  const row = await query.first<
    | (Omit<ReportRow, 'photo'> & { storedAs: string | null; contentType: KeptFile['contentType']; bytes: number })
    | undefined
  >(
    'resident_report.id',
    'link_id as linkId',
    'place_id as placeId',
    'words',
    'told_at as toldAt',
    db.raw('settled_at is not null as settled'),
    'photo_stored_as as storedAs',
    'photo_type as contentType',
    'photo_bytes as bytes',
  );
  if (!row) return undefined;
  const { storedAs, contentType, bytes, ...report } = row;
  return { ...report, photo: storedAs === null ? null : { storedAs, contentType, bytes } };
}

export async function keepReportPhoto(trx: Db, id: string, { storedAs, contentType, bytes }: KeptFile): Promise<void> {
  await trx('resident_report')
    .where({ id })
    .update({ photo_stored_as: storedAs, photo_type: contentType, photo_bytes: bytes });
}

export async function settleReport(
  trx: Db,
  id: string,
  how: { readonly by: string } & ({ readonly spotId: string } | { readonly reason: string }),
): Promise<void> {
  await trx('resident_report')
    .where({ id })
    .update({
      settled_at: trx.fn.now(),
      settled_by: how.by,
      ...('spotId' in how ? { spot_id: how.spotId } : { dropped_why: how.reason }),
    });
}

const mostShown = 200;

/** What waits, the oldest first. */
export async function waitingReports(
  db: Db,
): Promise<(Omit<Told['reports'][number], 'trees'> & { readonly placeId: string })[]> {
  const rows = await db('resident_report')
    .join('place_link', 'place_link.id', 'resident_report.link_id')
    .join('place', 'place.id', 'place_link.place_id')
    .whereNull('settled_at')
    .orderBy('told_at')
    .limit(mostShown)
    .select<(Omit<Told['reports'][number], 'trees' | 'toldAt'> & { placeId: string; toldAt: Date })[]>(
      'resident_report.id',
      'place.id as placeId',
      'place.name as place',
      'ref',
      'words',
      'told_at as toldAt',
      db.raw('photo_stored_as is not null as "hasPhoto"'),
    );
  return rows.map((row) => ({ ...row, toldAt: row.toldAt.toISOString() }));
}

export async function waitingCount(db: Db): Promise<number> {
  const row = await db('resident_report')
    .whereNull('settled_at')
    .first<{ n: number } | undefined>(db.raw('count(*)::int as n'));
  return row?.n ?? 0;
}
