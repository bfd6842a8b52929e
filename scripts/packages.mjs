// What the machine must have: npm packages, and PostgreSQL with PostGIS (and Chromium for tests) from Debian.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { root } from './root.mjs';

const postgresHome = '/usr/lib/postgresql';

/** Newest installed PostgreSQL version with a server, or undefined. */
export function postgresVersion() {
  if (!existsSync(postgresHome)) return undefined;
  return readdirSync(postgresHome)
    .filter((version) => existsSync(path.join(postgresHome, version, 'bin', 'initdb')))
    .sort((a, b) => Number(b) - Number(a))[0];
}

export const postgresBin = () => path.join(postgresHome, postgresVersion() ?? '15', 'bin');

function hasPostgis() {
  const version = postgresVersion();
  return version !== undefined && existsSync(path.join(postgresHome, version, 'lib', 'postgis-3.so'));
}

function hasRouting() {
  const control = path.join('/usr/share/postgresql', postgresVersion() ?? '', 'extension/pgrouting.control');
  return existsSync(control);
}

/** The build without a window: the same engine, a third less work for each page. */
export const chromiumPath = '/usr/bin/chromium-headless-shell';

/** Installs Debian packages, or says what to run where that is not possible, and stops. */
function installDebian(packages, what) {
  const command = `apt-get update && apt-get install -y ${packages.join(' ')}`;
  const root = process.getuid?.() === 0;
  if (!root || spawnSync('which', ['apt-get']).status !== 0) {
    console.error(`Sombra needs ${what}. Install it, then run this again:\n\n    sudo sh -c "${command}"\n`);
    process.exit(1);
  }
  console.log(`Installing ${what} from Debian's packages…`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  for (const args of [
    ['update', '-qq'],
    ['install', '-y', '-qq', ...packages],
  ]) {
    const run = spawnSync('apt-get', args, { env, encoding: 'utf8' });
    if (run.status !== 0) {
      console.error(run.stdout, run.stderr);
      console.error(`Could not install ${what}. Run this by hand to see why:\n\n    ${command}\n`);
      process.exit(1);
    }
  }
}

export function ensureDatabasePackages() {
  if (postgresVersion() === undefined) installDebian(['postgresql'], 'the PostgreSQL server');
  if (!hasPostgis()) installDebian([`postgresql-${postgresVersion()}-postgis-3`], 'PostGIS');
  if (!hasRouting()) installDebian([`postgresql-${postgresVersion()}-pgrouting`], 'pgRouting');
}

/** Chromium, and fonts for anything a page may show besides the shipped ones. */
export function ensureBrowserPackages() {
  if (!existsSync(chromiumPath))
    installDebian(['chromium-headless-shell', 'fonts-dejavu-core'], 'Chromium for the browser tests');
}

const lockHash = () =>
  createHash('sha256')
    .update(readFileSync(path.join(root, 'package-lock.json')))
    .digest('hex');
const stampFile = path.join(root, 'node_modules', '.sombra-lock');

/** Installs the npm packages of the lock file unless they are there already. */
export function ensureNpmPackages() {
  const stamp = existsSync(stampFile) ? readFileSync(stampFile, 'utf8') : '';
  if (stamp === lockHash()) return;
  console.log('Installing npm packages…');
  const run = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (run.status !== 0) {
    console.error('npm ci failed. Run it by hand to see why.');
    process.exit(1);
  }
  writeFileSync(stampFile, lockHash());
}
