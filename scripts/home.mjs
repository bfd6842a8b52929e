// Where Sombra keeps what it makes: in the repository's .sombra folder, or where SOMBRA_HOME says.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, statSync } from 'node:fs';
import path from 'node:path';
import { root } from './root.mjs';

export const isRoot = () => process.getuid?.() === 0;

/** PostgreSQL refuses to run as root: its own account runs it then. */
export function account() {
  if (!isRoot()) return {};
  const id = (flag) => Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout);
  return { uid: id('-u'), gid: id('-g') };
}

/** Whether every folder above can be entered by an account that is not ours. */
function enterableByAll(folder) {
  for (let at = path.dirname(folder); ; at = path.dirname(at)) {
    if (existsSync(at) && (statSync(at).mode & 0o001) === 0) return false;
    if (at === path.dirname(at)) return true;
  }
}

/** A folder of Sombra's own, by name; under the system's state where root may not let others into the repository. */
export function homeFolder(name) {
  if (process.env.SOMBRA_HOME) return path.join(path.resolve(process.env.SOMBRA_HOME), name);
  const here = path.join(root, '.sombra', name);
  if (!isRoot() || enterableByAll(here)) return here;
  const mark = createHash('sha256').update(root).digest('hex').slice(0, 12);
  return path.join('/var/lib/sombra', mark, name);
}

const demoDatabase = 'sombra';
const ownDatabase = 'sombra_own';

/** The database a command is about: the demo's, the own programme's with --new, or what DATABASE says. */
export function databaseName(args = process.argv.slice(2)) {
  const name = process.env.DATABASE ?? (args.includes('--new') ? ownDatabase : demoDatabase);
  if (!/^[a-z][a-z0-9_]{0,40}$/.test(name)) {
    console.error(`DATABASE must be small letters, digits and _, beginning with a letter, got ${name}`);
    process.exit(1);
  }
  return name;
}

export const isOwn = (database) => database === ownDatabase;

/** Where uploads of a database lie. */
export const storageFolder = (database) =>
  path.resolve(process.env.STORAGE_FOLDER ?? homeFolder(database === demoDatabase ? 'storage' : `storage-${database}`));

/** Keys of the seasons lie beside, in a folder of their own that no backup takes along. */
export const seasonKeysFolder = (database) =>
  path.resolve(
    process.env.SEASON_KEYS ?? homeFolder(database === demoDatabase ? 'season-keys' : `season-keys-${database}`),
  );
