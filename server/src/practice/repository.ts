import { practiceSchema, type KeptPractice, type Practices } from '@sombra/contract';
import { fieldDefault, presetIds, presets, type Practice } from '@sombra/core';
import type { Db } from '../platform/db';
import { readStored } from '../platform/stored';
import { currentRules } from '../rules/repository';

interface PracticeRow {
  id: string;
  version: number;
  body: unknown;
  made_by: string;
}

/** The newest version of each practice, the shipped ones first, with the trees planted under it. */
export async function allPractices(db: Db): Promise<Practices> {
  const programme = await db('programme').first<{ practice_id: string; practice_version: number } | undefined>(
    'practice_id',
    'practice_version',
  );
  const { rows } = await db.raw<{ rows: PracticeRow[] }>(
    'select distinct on (id) id, version, body, made_by from practice order by id, version desc',
  );
  const counts = await db('field_record')
    .where({ kind: 'planting' })
    .select<{ id: string; count: string }[]>(db.raw(`facts->>'practiceId' as id`), db.raw('count(*) as count'))
    .groupByRaw('1');
  const planted = (id: string) => Number(counts.find((one) => one.id === id)?.count ?? 0);
  const kept = (practice: Practice, madeBy: string): KeptPractice => ({
    practice: practice as KeptPractice['practice'],
    madeBy,
    shipped: presetIds.has(practice.id),
    planted: planted(practice.id),
  });
  const own = rows.filter(({ id }) => !presetIds.has(id));
  const { work } = await currentRules(db);
  return {
    work,
    current: {
      id: programme?.practice_id ?? fieldDefault.id,
      version: programme?.practice_version ?? fieldDefault.version,
    },
    practices: [
      ...presets.map((practice) => kept(practice, 'Sombra')),
      ...own.map((row) => kept(readStored(practiceSchema, row.body, `practice ${row.id}`), row.made_by)),
    ],
  };
}

export async function findPractice(db: Db, id: string, version: number): Promise<Practice | undefined> {
  const row = await db<PracticeRow>('practice').where({ id, version }).first('body');
  return row
    ? readStored(practiceSchema, row.body, `practice ${id}@${version}`)
    : presets.find((one) => one.id === id && one.version === version);
}

/** The newest version kept or shipped; 0 where there is none. */
export async function newestVersion(db: Db, id: string): Promise<number> {
  const row = await db('practice').where({ id }).max<{ max: number | null }>('version as max').first();
  return Math.max(row?.max ?? 0, presets.find((one) => one.id === id)?.version ?? 0);
}

/** Returns false where the version is taken by now. */
export async function insertPractice(db: Db, practice: Practice, by: string): Promise<boolean> {
  const { id, version } = practice;
  const added = await db('practice')
    .insert({ id, version, body: JSON.stringify(practice), made_by: by })
    .onConflict(['id', 'version'])
    .ignore()
    .returning<{ id: string }[]>('id');
  return added.length > 0;
}

export async function setProgrammePractice(db: Db, { id, version }: { id: string; version: number }): Promise<void> {
  await db('programme').update({ practice_id: id, practice_version: version });
}

/** Spots whose tree was planted on soil that was put back under it. */
export async function spotsOnPutBack(db: Db): Promise<string[]> {
  return db('field_record')
    .where({ kind: 'planting' })
    .whereRaw("(facts->>'putBackMm')::double precision > 0")
    .distinct()
    .pluck('spot_id');
}

/** Spots something was recorded at since a moment. */
export async function spotsRecordedSince(db: Db, since: Date): Promise<string[]> {
  return db('field_record').where('received_at', '>=', since).distinct().pluck('spot_id');
}
