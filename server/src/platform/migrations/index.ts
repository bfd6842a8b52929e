import type { Knex } from 'knex';
import { foundation } from './001-foundation';

export interface NamedMigration {
  readonly name: string;
  up(db: Knex): Promise<void>;
}

/** In the order they run. Only ever add at the end. */
const migrations: readonly NamedMigration[] = [foundation];

class BundledMigrations implements Knex.MigrationSource<NamedMigration> {
  getMigrations(): Promise<NamedMigration[]> {
    return Promise.resolve([...migrations]);
  }
  getMigrationName(migration: NamedMigration): string {
    return migration.name;
  }
  getMigration(migration: NamedMigration): Promise<Knex.Migration> {
    const down = () => Promise.reject(new Error('Migrations only go forward'));
    return Promise.resolve({ up: (db) => migration.up(db), down });
  }
}

export async function migrate(db: Knex): Promise<void> {
  await db.migrate.latest({ migrationSource: new BundledMigrations() });
}
