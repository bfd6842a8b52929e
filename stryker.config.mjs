/**
 * Faults put into the core on purpose, to see which of them its tests find: `npm run mutation`, some minutes, by hand.
 * What is left, and why, stands in docs/mutation.md.
 */
export default {
  testRunner: 'core',
  plugins: ['./scripts/mutation/runner.mjs'],
  coverageAnalysis: 'perTest',
  mutate: [
    'core/src/{pit,stock,ground,inspect,practice,water}/**/*.ts',
    '!core/src/**/*.test.ts',
    '!core/src/**/index.ts',
    // Tables of words and limits: what stands in them is checked as data.
    '!core/src/practice/*-choices.ts',
    '!core/src/practice/*-options.ts',
  ],
  ignorePatterns: [
    'web',
    'server',
    'contract',
    'demo',
    'e2e',
    'standins',
    'bench',
    'docs',
    'examples',
    'dist',
    '.sombra',
  ],
  mutator: { excludedMutations: ['StringLiteral'] },
  // What is worked out once while a file loads is not run again by any test.
  ignoreStatic: true,
  concurrency: 2,
  reporters: ['clear-text', 'json', 'progress-append-only'],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false },
  jsonReporter: { fileName: 'coverage/mutation.json' },
  tempDirName: '.stryker-tmp',
  disableTypeChecks: false,
};
