// npm run backup [FILE]: database and uploads of a programme in one file, which npm run restore reads.
import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { ensureNpmPackages, postgresBin } from './packages.mjs';

ensureNpmPackages();
const { connection, withDatabaseServer } = await import('./database.mjs');
const [named] = process.argv.slice(2).filter((arg) => !arg.startsWith('--'));

process.exitCode = await withDatabaseServer(({ ownerUrl, database, storage }) => {
  const day = new Date().toISOString().slice(0, 10);
  const file = path.resolve(named ?? `${database}-${day}.backup.tar`);
  if (!existsSync(path.dirname(file))) {
    console.error(`There is no folder ${path.dirname(file)}.`);
    return 1;
  }
  // Written beside and renamed: whoever finds the file finds all of it, and nobody else reads it meanwhile.
  const beside = mkdtempSync(`${file}.`);
  try {
    chmodSync(beside, 0o700);
    const { args, env } = connection(ownerUrl(database));
    const dump = path.join(beside, 'database.dump');
    const dumped = spawnSync(
      path.join(postgresBin(), 'pg_dump'),
      [...args, '--format=custom', `--file=${dump}`, database],
      { env, stdio: ['ignore', 'ignore', 'inherit'] },
    );
    if (dumped.status !== 0) return said('The database could not be read.');
    writeFileSync(
      path.join(beside, 'sombra.json'),
      JSON.stringify({ application: 'Sombra', database, madeAt: new Date().toISOString() }),
    );
    mkdirSync(storage, { recursive: true });
    const archive = path.join(beside, 'archive.tar');
    // The dump comes first: a file is there before the row that names it.
    const names = [
      '-C',
      beside,
      'sombra.json',
      'database.dump',
      '-C',
      storage,
      '--transform',
      's,^\\./,storage/,',
      '.',
    ];
    const packed = spawnSync('tar', ['--create', `--file=${archive}`, '--exclude=*.part', ...names], {
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    if (packed.status !== 0) return said('The uploads could not be read.');
    chmodSync(archive, 0o600);
    renameSync(archive, file);
    console.log(`Backup of ${database} written to ${file}`);
    return 0;
  } finally {
    rmSync(beside, { recursive: true, force: true });
  }
});

function said(why) {
  console.error(`${why} No backup was written.`);
  return 1;
}
