const { createCjsPreset } = require('jest-preset-angular/presets');

module.exports = {
  ...createCjsPreset({ tsconfig: '<rootDir>/tsconfig.spec.json' }),
  displayName: 'web',
  rootDir: __dirname,
  testMatch: ['<rootDir>/src/**/*.spec.ts'],
  setupFilesAfterEnv: ['<rootDir>/testing/setup.ts'],
  moduleNameMapper: { '^@sombra/(core|contract)$': '<rootDir>/../$1/src/index.ts' },
  transformIgnorePatterns: ['/node_modules/(?!(.*\\.mjs$|uuid/|@angular/|date-fns/|d3-[a-z-]+/|internmap/))'],
};
