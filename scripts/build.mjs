// Builds server and web into dist/, each only when something it is made of has changed.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { writeIcons } from './icons.mjs';
import { root } from './root.mjs';

const serverParts = ['core', 'contract', 'server/src', 'demo/src', 'scripts/build.mjs', 'package-lock.json'];
const webParts = [
  ...['core', 'contract', 'web', 'scripts/icons.mjs', 'angular.json', 'tsconfig.base.json', 'package-lock.json'],
];

function* filesOf(part) {
  const at = path.join(root, part);
  if (!statSync(at).isDirectory()) yield at;
  else for (const name of readdirSync(at).sort()) yield* filesOf(path.join(part, name));
}

function fingerprint(parts) {
  const hash = createHash('sha256');
  for (const part of parts) {
    for (const file of filesOf(part)) {
      if (/\.(test|spec)\.ts$/.test(file)) continue;
      hash.update(path.relative(root, file)).update(readFileSync(file));
    }
  }
  return hash.digest('hex');
}

async function whenChanged(name, parts, build) {
  const stamp = path.join(root, 'dist', `${name}.stamp`);
  const now = fingerprint(parts);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  console.log(`Building the ${name}…`);
  await build();
  mkdirSync(path.dirname(stamp), { recursive: true });
  writeFileSync(stamp, now);
}

/** All packages that the server needs but these; each with what lies in it. */
function packagesBeside(bundled) {
  const { dependencies } = JSON.parse(readFileSync(path.join(root, 'package.json'), 'utf8'));
  return Object.keys(dependencies)
    .filter((name) => !bundled.includes(name))
    .flatMap((name) => [name, `${name}/*`]);
}

/** What earlier builds left in a folder is read by nobody. */
function dropOthers(folder, kept) {
  const ours = new Set(kept.map((file) => path.join(root, file)));
  for (const file of filesOf(folder)) if (!ours.has(file)) rmSync(file);
}

async function buildServer() {
  const { build } = await import('esbuild');
  const source = (name) => path.join(root, 'server/src', `${name}.ts`);
  const { metafile } = await build({
    metafile: true,
    absWorkingDir: root,
    entryPoints: [
      'main',
      'migrate',
      'load-demo',
      'load-big',
      'rebuild',
      'set-up-code',
      'write-examples',
      'adoption/adopt-worker',
      'record/renew-worker',
      'match/solve-worker',
      'day/seek-worker',
      'water/follow-worker',
      'water/rounds-worker',
      'water/rules-worker',
    ].map(source),
    outdir: path.join(root, 'dist/server'),
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    // What is pure and large is bundled, so that only what is used of it is read at each start.
    external: packagesBeside(['date-fns', '@date-fns/tz', 'zod', 'd3-scale', 'suncalc']),
    alias: Object.fromEntries(
      ['core', 'contract', 'demo'].map((name) => [`@sombra/${name}`, path.join(root, name, 'src/index.ts')]),
    ),
    sourcemap: true,
    logLevel: 'warning',
  });
  writeFileSync(path.join(root, 'dist/server/package.json'), '{ "type": "module" }');
  dropOthers('dist/server', [...Object.keys(metafile.outputs), 'dist/server/package.json']);
}

function buildWeb(configuration) {
  const ng = path.join(root, 'node_modules/@angular/cli/bin/ng.js');
  const run = spawnSync(
    process.execPath,
    [ng, 'build', '--no-progress', ...(configuration ? ['--configuration', configuration] : [])],
    {
      cwd: root,
      encoding: 'utf8',
      env: { ...process.env, NG_CLI_ANALYTICS: 'false' },
    },
  );
  if (run.status !== 0) throw new Error(`The web build failed:\n${run.stdout}\n${run.stderr}`);
  const warnings = `${run.stdout}${run.stderr}`.split('\n').filter((line) => /WARNING/.test(line));
  for (const line of warnings) console.log(line);
}

/** `web`: true for the application as people use it, 'development' for one with its gallery, false for none. */
export async function buildAll({ web = true } = {}) {
  await whenChanged('server', serverParts, buildServer);
  if (web) writeIcons();
  if (web === 'development') await whenChanged('web-dev', webParts, () => buildWeb('development'));
  else if (web) await whenChanged('web', webParts, () => buildWeb());
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await buildAll();
