import type { AskReport, BuiltReports, ReportBuilt } from '@sombra/contract';
import { addDaysTo, type IsoDate } from '@sombra/core';
import type { Db } from '../platform/db';

/** Days the keeper of a tree has to plant it and tell. */
const openDays = 45;

interface ReportRow {
  id: string;
  spot_id: string;
  owner: string;
  token_hash: string;
  asked_by: string;
  expires_on: string;
  revoked_at: Date | null;
  reported_at: Date | null;
  facts: BuiltReports[number]['facts'];
  words: string;
  signed_by: string | null;
  photo_id: string | null;
  planted: boolean;
}

/** A report with the spot it is of. */
export type KeptReport = BuiltReports[number] & { readonly spotId: string };

function reportOf(row: ReportRow, today: IsoDate): KeptReport {
  const open = row.revoked_at || row.expires_on < today ? 'over' : 'asked';
  return {
    id: row.id,
    spotId: row.spot_id,
    owner: row.owner,
    askedBy: row.asked_by,
    expiresOn: row.expires_on,
    state: row.planted ? 'verified' : row.reported_at ? 'reported' : open,
    reportedAt: row.reported_at?.toISOString() ?? null,
    facts: row.facts,
    words: row.words,
    signedBy: row.signed_by,
    photoId: row.photo_id,
  };
}

const withPlanted = (db: Db) =>
  db('built_report').select<ReportRow[]>(
    'built_report.*',
    db.raw(`exists (select from spot_period as now where now.spot_id = built_report.spot_id and until_day is null
      and planted_on is not null) as planted`),
  );

export async function reportsOf(db: Db, spotId: string, today: IsoDate): Promise<KeptReport[]> {
  const rows = await withPlanted(db).where({ spot_id: spotId }).orderBy('asked_at', 'desc');
  return rows.map((row) => reportOf(row, today));
}

/** The report behind a link; in a transaction nobody else answers it meanwhile. */
export async function reportByToken(db: Db, tokenHash: string, today: IsoDate): Promise<KeptReport | undefined> {
  if (db.isTransaction) await db('built_report').where({ token_hash: tokenHash }).forUpdate().first('id');
  const row = (await withPlanted(db).where({ token_hash: tokenHash }))[0];
  return row && reportOf(row, today);
}

/** Returns false where it was asked already: its link is known to whoever asked, and to nobody else. */
export async function insertReport(
  trx: Db,
  ask: AskReport & { readonly spotId: string; readonly tokenHash: string },
  { by, today }: { readonly by: string; readonly today: IsoDate },
): Promise<boolean> {
  const row = {
    id: ask.id,
    spot_id: ask.spotId,
    owner: ask.owner,
    token_hash: ask.tokenHash,
    asked_by: by,
    expires_on: addDaysTo(today, openDays),
  };
  return (await trx('built_report').insert(row).onConflict('id').ignore().returning('id')).length > 0;
}

export async function keepReport(trx: Db, id: string, { words, signedBy, ...facts }: ReportBuilt): Promise<void> {
  await trx('built_report')
    .where({ id })
    .update({ facts: JSON.stringify(facts), words, signed_by: signedBy, reported_at: trx.fn.now() });
}

export async function keepReportPhoto(trx: Db, id: string, photoId: string): Promise<void> {
  await trx('built_report').where({ id }).update({ photo_id: photoId });
}

export async function revokeReport(trx: Db, id: string): Promise<string | undefined> {
  const rows = await trx('built_report')
    .where({ id })
    .update({ revoked_at: trx.fn.now() })
    .returning<{ spot_id: string }[]>('spot_id');
  return rows[0]?.spot_id;
}
