/** Units in the packages of TypeScript alone run through swc, checked by tsc apart; the web's through Angular's compiler. */
const swc = {
  '^.+\\.ts$': [
    '@swc/jest',
    { jsc: { parser: { syntax: 'typescript', decorators: true }, target: 'es2022' }, module: { type: 'commonjs' } },
  ],
};

const packages = {
  '^@sombra/(core|contract|demo)$': '<rootDir>/../$1/src/index.ts',
};

const plain = (name) => ({
  displayName: name,
  rootDir: name,
  testEnvironment: 'node',
  testMatch: ['<rootDir>/src/**/*.test.ts'],
  transform: swc,
  moduleNameMapper: packages,
  // ES modules without a CommonJS build.
  transformIgnorePatterns: [
    '/node_modules/(?!(uuid|pbf|@mapbox/vector-tile|@mapbox/point-geometry|@tus/[a-z-]+|srvx|d3-[a-z-]+|internmap)/)',
  ],
});

swc['^.+/node_modules/(uuid|pbf|@mapbox/[a-z-]+|@tus/[a-z-]+|srvx|d3-[a-z-]+|internmap)/.+\\.m?js$'] = swc['^.+\\.ts$'];

module.exports = {
  // A slow machine is no fault of the code: this only ends what would never end.
  testTimeout: 60_000,
  // All cores: by itself it leaves one to whoever types.
  maxWorkers: '100%',
  projects: [
    plain('core'),
    plain('contract'),
    plain('demo'),
    {
      ...plain('server'),
      globalSetup: '<rootDir>/testing/cluster-setup.cjs',
      globalTeardown: '<rootDir>/testing/cluster-teardown.cjs',
    },
    '<rootDir>/web/jest.config.cjs',
  ],
};
