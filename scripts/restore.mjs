// npm run restore -- FILE: puts a backup in the place of the database and the uploads. What was there is kept, once.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import { ensureNpmPackages, postgresBin } from './packages.mjs';
import { root } from './root.mjs';

ensureNpmPackages();
const { default: pg } = await import('pg');
const { connection, withDatabaseServer } = await import('./database.mjs');
const { otherStarts } = await import('./starts.mjs');

class Refusal extends Error {}

const [named] = process.argv.slice(2).filter((arg) => !arg.startsWith('--'));
const file = named ? path.resolve(named) : undefined;
if (!file || !existsSync(file)) refuse('Name the backup to restore: npm run restore -- FILE');

function refuse(why) {
  console.error(why);
  process.exit(1);
}

/** Unpacks a backup; a bare dump of an older version has no uploads with it. */
function unpack(beside) {
  const head = readFileSync(file).subarray(0, 5).toString('latin1');
  if (head === 'PGDMP') return file;
  const run = spawnSync('tar', ['--extract', `--file=${file}`, '--directory', beside, '--no-same-owner'], {
    stdio: 'ignore',
  });
  const dump = path.join(beside, 'database.dump');
  if (run.status !== 0 || !existsSync(dump)) throw new Refusal('This is no backup of Sombra. Nothing was changed.');
  return dump;
}

const readDump = (...args) =>
  spawnSync(path.join(postgresBin(), 'pg_restore'), args, { encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 });

/** A dump of another application, or of a newer Sombra than this one, is left alone. */
function requireOurs(dump) {
  const list = readDump('--list', dump);
  if (list.status !== 0) throw new Refusal('The backup cannot be read. Nothing was changed.');
  const has = (table) => list.stdout.includes(` TABLE public ${table} `);
  if (!['knex_migrations', 'field_record', 'spot', 'practice'].every(has)) {
    throw new Refusal('This is the backup of another application. Nothing was changed.');
  }
  const migrations = readDump('--data-only', '--table=knex_migrations', '--file=-', dump).stdout;
  const theirs = [...migrations.matchAll(/^\d+\t([^\t]+)\t/gm)].map(([, name]) => name);
  const ours = readdirSync(path.join(root, 'server/src/platform/migrations')).map((name) => name.replace('.ts', ''));
  const newer = theirs.filter((name) => !ours.includes(name));
  if (newer.length > 0) {
    throw new Refusal(`This backup is of a newer Sombra (${newer.join(', ')}). Update first. Nothing was changed.`);
  }
}

async function requireStopped(owner, database) {
  const { rows } = await owner.query(
    `select count(*)::int as sessions from pg_stat_activity where datname = $1 and application_name like 'sombra%'`,
    [database],
  );
  const starts = otherStarts().filter((one) => one.database === database);
  if (rows[0].sessions > 0 || starts.length > 0) {
    throw new Refusal('Sombra is running. Stop it, then restore. Nothing was changed.');
  }
}

async function putInPlace(owner, { database, ownerUrl, storage }, from) {
  // Names of databases end after 63 bytes.
  const mark = createHash('sha256').update(database).digest('hex').slice(0, 8);
  const [fresh, before] = [`restoring_${mark}`, `${database}_before_restore`];
  const storageBefore = `${storage}-before-restore`;
  await owner.query(`drop database if exists ${fresh} with (force)`);
  await owner.query(`create database ${fresh}`);
  const { args, env } = connection(ownerUrl(fresh));
  const restored = spawnSync(
    path.join(postgresBin(), 'pg_restore'),
    [...args, '--exit-on-error', `--dbname=${fresh}`, from.dump],
    { env, stdio: ['ignore', 'ignore', 'inherit'] },
  );
  if (restored.status !== 0) {
    await owner.query(`drop database if exists ${fresh} with (force)`);
    throw new Refusal('The backup could not be read to its end. Nothing was changed.');
  }
  const { rowCount } = await owner.query('select 1 from pg_database where datname = $1', [database]);
  // One copy is kept: the one of the last restore goes.
  await owner.query(`drop database if exists ${before} with (force)`);
  if (rowCount > 0) await owner.query(`alter database ${database} rename to ${before}`);
  await owner.query(`alter database ${fresh} rename to ${database}`);
  if (existsSync(from.storage)) {
    rmSync(storageBefore, { recursive: true, force: true });
    if (existsSync(storage)) renameSync(storage, storageBefore);
    mkdirSync(path.dirname(storage), { recursive: true });
    renameSync(from.storage, storage);
  }
  console.log(
    `Restored ${database}. What was there before is kept as database ${before}${existsSync(storageBefore) ? ` and folder ${storageBefore}` : ''}, until the next restore.`,
  );
}

process.exitCode = await withDatabaseServer(async (server) => {
  mkdirSync(path.dirname(server.storage), { recursive: true });
  const beside = mkdtempSync(path.join(path.dirname(server.storage), 'restoring-'));
  const owner = new pg.Client({ connectionString: server.ownerUrl('postgres') });
  await owner.connect();
  try {
    const dump = unpack(beside);
    requireOurs(dump);
    await requireStopped(owner, server.database);
    await putInPlace(owner, server, { dump, storage: path.join(beside, 'storage') });
    return 0;
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    console.error(error.message);
    return 1;
  } finally {
    await owner.end();
    rmSync(beside, { recursive: true, force: true });
  }
});
