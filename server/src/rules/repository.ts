import { rulesSchema, shippedRules, type KeptRules, type Rules } from '@sombra/contract';
import type { IsoDate } from '@sombra/core';
import type { Db } from '../platform/db';
import { readOnce, writtenHere } from '../platform/kept-versions';
import { readStored } from '../platform/stored';

interface RulesRow {
  version: number;
  body: unknown;
  made_by: string;
  made_at: Date;
}

const newest = (db: Db): Promise<RulesRow | undefined> => db<RulesRow>('rules').orderBy('version', 'desc').first();

/** The programme's rules as they stand; the shipped ones before any were kept. */
export async function currentRules(db: Db): Promise<Rules> {
  const row = await db('rules').max<{ version: number | null }>('version as version').first();
  return rulesOfVersion(db, row?.version ?? null);
}

/** The rules of a version; the shipped ones where it is `null`. */
export async function rulesOfVersion(db: Db, version: number | null): Promise<Rules> {
  if (version === null) return shippedRules;
  const kept = await readOnce(db, `rules ${version}`, async () => {
    const row = await db('rules')
      .where({ version })
      .first<{ body: unknown; mine: boolean } | undefined>('body', writtenHere(db));
    return row && { value: readStored(rulesSchema, row.body, `rules ${version}`), mine: row.mine };
  });
  return kept ?? shippedRules;
}

export async function keptRules(db: Db): Promise<KeptRules> {
  const row = await newest(db);
  const rules = await rulesOfVersion(db, row?.version ?? null);
  return { rules, madeBy: row?.made_by ?? 'Sombra', madeAt: (row?.made_at ?? new Date(0)).toISOString() };
}

/** Returns false where the version is taken by now. */
export async function insertRules(db: Db, rules: Rules, by: string): Promise<boolean> {
  const row = { version: rules.ground.version, body: JSON.stringify(rules), made_by: by };
  const added = await db('rules')
    .insert(row)
    .onConflict('version')
    .ignore()
    .returning<{ version: number }[]>('version');
  return added.length > 0;
}

/** Since when a planting asks for a ticket or a clearance. */
export async function ticketsSince(db: Db): Promise<IsoDate> {
  const row = await db('programme').first<{ tickets_since: string } | undefined>('tickets_since');
  return row?.tickets_since ?? '1900-01-01';
}
