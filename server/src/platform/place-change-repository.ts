import type { Db } from './db';

/** A day is kept: whoever counted last before that counts everything anew. */
const keptHours = 24;

export interface Changes {
  /** What the database showed when this was asked; to be given back the next time. */
  readonly view: string;
  /** Where something changed since; `null` where that is not known any more. */
  readonly places: readonly string[] | null;
}

/**
 * Places where spots, their trees or what they wait for have changed since a view of the database. Transactions yet to
 * come are those of another cluster, out of a backup: what they changed is in what was restored.
 */
export async function placesChanged(db: Db, since: string | null): Promise<Changes> {
  if (since === null) {
    const { rows } = await db.raw<{ rows: { view: string }[] }>('select pg_current_snapshot()::text as view');
    return { view: rows[0]?.view ?? '', places: null };
  }
  const { rows } = await db.raw<{ rows: { view: string; places: string[] }[] }>(
    `select pg_current_snapshot()::text as view, array(
       select distinct place_id from place_change
       where xid >= pg_snapshot_xmin(seen) and xid < pg_snapshot_xmax(pg_current_snapshot())
         and not pg_visible_in_snapshot(xid, seen)) as places
     from (select (?)::pg_snapshot as seen) asked`,
    [since],
  );
  return { view: rows[0]?.view ?? '', places: rows[0]?.places ?? [] };
}

export async function pruneChanges(db: Db): Promise<void> {
  await db('place_change').whereRaw(`at < now() - ? * interval '1 hour'`, [keptHours]).delete();
}
