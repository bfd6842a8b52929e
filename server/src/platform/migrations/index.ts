import { recordKinds, recordTable } from '@sombra/core';
import type { Knex } from 'knex';
import { foundation } from './001-foundation';
import { town } from './002-town';
import { groundAndMatch } from './003-ground-and-match';
import { practiceAndStore } from './004-practice-and-store';
import { treesAsReceived } from './005-trees-as-received';
import { peopleAndTime } from './006-people-and-time';
import { recordKindRows } from './007-record-kinds';
import { nurseryRhythm } from './008-nursery-rhythm';
import { field } from './009-field';
import { plantingDay } from './010-planting-day';
import { builtReport } from './011-built-report';
import { water } from './012-water';
import { care } from './013-care';
import { waterDevices } from './014-devices';
import { established } from './015-established';
import { quickDoors } from './016-quick-doors';
import { keptByPlace } from './017-kept-by-place';
import { leanAudit } from './018-lean-audit';
import { walks } from './019-walks';
import { leanIndexes } from './020-lean-indexes';
import { toldByResidents } from './021-told-by-residents';

export interface NamedMigration {
  readonly name: string;
  up(db: Knex): Promise<void>;
}

/** In the order they run. Only ever add at the end. */
const migrations: readonly NamedMigration[] = [
  foundation,
  town,
  groundAndMatch,
  practiceAndStore,
  treesAsReceived,
  peopleAndTime,
  recordKindRows,
  nurseryRhythm,
  field,
  plantingDay,
  builtReport,
  water,
  care,
  waterDevices,
  established,
  quickDoors,
  keptByPlace,
  leanAudit,
  walks,
  leanIndexes,
  toldByResidents,
];

class BundledMigrations implements Knex.MigrationSource<NamedMigration> {
  constructor(private readonly count: number) {}

  getMigrations(): Promise<NamedMigration[]> {
    return Promise.resolve(migrations.slice(0, this.count));
  }
  getMigrationName(migration: NamedMigration): string {
    return migration.name;
  }
  getMigration(migration: NamedMigration): Promise<Knex.Migration> {
    const down = () => Promise.reject(new Error('Migrations only go forward'));
    return Promise.resolve({ up: (db) => migration.up(db), down });
  }
}

/** Brings a database up to date, or, for tests, as far as an older version of Sombra did. */
export async function migrate(db: Knex, count = migrations.length): Promise<void> {
  await db.migrate.latest({ migrationSource: new BundledMigrations(count) });
  if (count === migrations.length) await nameRecordKinds(db);
}

/** The database takes the kinds of record that this version knows; older ones stay, for the records that have them. */
async function nameRecordKinds(db: Knex): Promise<void> {
  const rows = recordKinds.map((kind) => ({ kind, asks_for_tree: recordTable[kind].of === 'tree' }));
  await db('record_kind').insert(rows).onConflict('kind').merge();
}
