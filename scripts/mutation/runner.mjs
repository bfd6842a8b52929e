/**
 * Runs the core's tests for the mutation tester inside one process: tests and instrumented sources are bundled once, and
 * a fault is switched on while they run. The core has no state, so nothing needs to be loaded again between two faults;
 * through the test runner itself each of thousands would take seconds.
 */
import { declareClassPlugin, PluginKind } from '@stryker-mutator/api/plugin';
import { build } from 'esbuild';
import { expect } from 'expect';
import { readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import vm from 'node:vm';

/** Tests read from the bundle: a title, unique by its place, and what it does. */
function collect(code) {
  const tests = [];
  const titles = [];
  const addOne = (title, run) => {
    const name = [...titles, title].join(' › ');
    tests.push({ id: String(tests.length), name: `${tests.length} ${name}`, run });
  };
  const describe = (title, body) => {
    titles.push(title);
    body();
    titles.pop();
  };
  const each = (add) => (rows) => (title, body) =>
    rows.forEach((row) => add(title, () => (Array.isArray(row) ? body(...row) : body(row))));
  describe.each = each((title, body) => describe(title, body));
  addOne.each = each(addOne);
  const require = createRequire(import.meta.url);
  const module = { exports: {} };
  const wrap = vm.runInThisContext(`(function (require, module, exports, describe, it, test, expect) {${code}\n})`);
  wrap(require, module, module.exports, describe, addOne, addOne, expect);
  return tests;
}

/** Sweeps that look for crashes alone and drawings of what is computed: much time for few faults. */
const leftOut = /^\d+ every option of every choice/;
const testFiles = (folder) =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && entry.name.endsWith('.test.ts') && !entry.parentPath.endsWith('drawing'))
    .map((entry) => path.join(entry.parentPath, entry.name));

class CoreRunner {
  capabilities() {
    return { reloadEnvironment: false };
  }

  async init() {
    this.space = globalThis.__stryker__ ?? (globalThis.__stryker__ = {});
    const imports = testFiles(path.resolve('core/src')).map((file) => `import ${JSON.stringify(file)};`);
    // Properties are tried with the same cases each time, and with fewer: each fault meets them a thousand times over.
    const seeded = `import fc from 'fast-check'; fc.configureGlobal({ seed: 20261127, numRuns: 15 });`;
    const { outputFiles } = await build({
      stdin: { contents: [seeded, ...imports].join('\n'), resolveDir: path.resolve('core'), loader: 'ts' },
      bundle: true,
      write: false,
      platform: 'node',
      format: 'cjs',
      target: 'node20',
      // The core says it has no side effects; its tests are nothing else.
      ignoreAnnotations: true,
      logLevel: 'silent',
    });
    this.tests = collect(outputFiles[0].text).filter(({ name }) => !leftOut.test(name));
  }

  async run(test) {
    const started = performance.now();
    try {
      await test.run();
      return { failed: null, timeSpentMs: performance.now() - started };
    } catch (error) {
      return { failed: String(error?.message ?? error).slice(0, 300), timeSpentMs: performance.now() - started };
    }
  }

  async dryRun() {
    this.space.mutantCoverage ??= { static: {}, perTest: {} };
    const tests = [];
    for (const test of this.tests) {
      this.space.currentTestId = test.id;
      const { failed, timeSpentMs } = await this.run(test);
      const base = { id: test.id, name: test.name, timeSpentMs };
      tests.push(failed === null ? { ...base, status: 0 } : { ...base, status: 1, failureMessage: failed });
    }
    this.space.currentTestId = undefined;
    // Quick ones first: most faults are found by a test of a millisecond.
    const spent = new Map(tests.map(({ id, timeSpentMs }) => [id, timeSpentMs]));
    this.tests.sort((a, b) => spent.get(a.id) - spent.get(b.id));
    return { status: 'complete', tests, mutantCoverage: this.space.mutantCoverage };
  }

  async mutantRun({ activeMutant, testFilter, hitLimit }) {
    this.space.activeMutant = activeMutant.id;
    this.space.hitLimit = hitLimit;
    this.space.hitCount = hitLimit === undefined ? undefined : 0;
    const chosen = new Set(testFilter ?? this.tests.map(({ id }) => id));
    let count = 0;
    try {
      for (const test of this.tests) {
        if (!chosen.has(test.id)) continue;
        count += 1;
        const { failed } = await this.run(test);
        if (this.space.hitCount !== undefined && this.space.hitCount > hitLimit) return { status: 'timeout' };
        if (failed !== null) return { status: 'killed', killedBy: [test.id], failureMessage: failed, nrOfTests: count };
      }
      return { status: 'survived', nrOfTests: count };
    } finally {
      this.space.activeMutant = undefined;
    }
  }
}

export const strykerPlugins = [declareClassPlugin(PluginKind.TestRunner, 'core', CoreRunner)];
