// npm test: installs what is missing, then checks and tests everything; ends with one line of sums.
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ensureBrowserPackages, ensureDatabasePackages, ensureNpmPackages } from './packages.mjs';
import { root } from './root.mjs';

ensureNpmPackages();
ensureDatabasePackages();
ensureBrowserPackages();

const results = mkdtempSync(path.join(tmpdir(), 'sombra-results-'));
const binary = (name) => path.join(root, 'node_modules/.bin', name);
let broken = 0;

function run(name, command, args, env = {}) {
  console.log(`\n== ${name}`);
  const started = Date.now();
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    });
    child.once('exit', (code) => {
      console.log(
        `   ${name}: ${code === 0 ? 'passed' : `failed (${code})`}, ${Math.round((Date.now() - started) / 1000)} s`,
      );
      resolve(code === 0);
    });
  });
}

/** A check that counts no tests of its own: a failure fails the run. */
async function check(name, command, args) {
  if (!(await run(name, command, args))) broken += 1;
}

function readResults(file) {
  return existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : undefined;
}

async function jest() {
  const file = path.join(results, 'jest.json');
  const ended = await run('Unit and API tests', binary('jest'), [
    '--config',
    'jest.config.cjs',
    '--json',
    `--outputFile=${file}`,
  ]);
  const sums = readResults(file);
  const failed = (sums?.numFailedTests ?? 0) + (sums?.numRuntimeErrorTestSuites ?? 0);
  if (!ended && failed === 0) broken += 1;
  return { passed: sums?.numPassedTests ?? 0, failed };
}

async function playwright(name, config) {
  const file = path.join(results, `${config}.json`);
  const ended = await run(name, binary('playwright'), ['test', '--config', config], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: file,
  });
  const stats = readResults(file)?.stats;
  // A test that only passed on a second try is a defect, not a pass.
  const failed = (stats?.unexpected ?? 0) + (stats?.flaky ?? 0);
  if (!ended && failed === 0) broken += 1;
  return { passed: stats?.expected ?? 0, failed };
}

/** The build, in a process of its own so that checks run beside it. */
async function build() {
  if (await run('Build', process.execPath, ['scripts/build.mjs'])) return;
  // Nothing can run on a build that failed: say so in the line that is read.
  console.log(`\n0 passed, ${broken + 1} failed`);
  process.exit(1);
}

/** So many at a time as there are cores; the slowest begin first. */
async function twoAtATime(jobs) {
  const queue = [...jobs];
  const lane = async () => {
    for (let job = queue.shift(); job; job = queue.shift()) await job();
  };
  await Promise.all([lane(), lane()]);
}

const boundaries =
  (name, config, ...folders) =>
  () =>
    check(name, binary('depcruise'), ['--config', config, ...folders]);

await twoAtATime([
  () => check('Lint', binary('eslint'), ['.', '--max-warnings=0']),
  build,
  () => check('Formatting', binary('prettier'), ['--check', '--log-level=warn', '.']),
  () => check('Types', binary('tsc'), ['--noEmit', '-p', 'tsconfig.json']),
  // The build checks the web's own types; its tests are checked here.
  () => check('Types of the web and its tests', binary('tsc'), ['--noEmit', '-p', 'web/tsconfig.spec.json']),
  boundaries('Boundaries', '.dependency-cruiser.cjs', 'core', 'contract', 'server', 'web/src', 'demo'),
  boundaries('Boundaries of folders', '.dependency-cruiser.folders.cjs', 'core/src', 'server/src', 'web/src'),
]);
const [units, rigs] = await Promise.all([jest(), playwright('Rigs', 'playwright.rigs.config.ts')]);
const parts = [units, rigs, await playwright('Browser tests', 'playwright.config.ts')];
await check('Share of tests', process.execPath, ['scripts/test-ratio.mjs']);
rmSync(results, { recursive: true, force: true });

const passed = parts.reduce((sum, part) => sum + part.passed, 0);
const failed = parts.reduce((sum, part) => sum + part.failed, 0) + broken;
console.log(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 && passed > 0 ? 0 : 1;
