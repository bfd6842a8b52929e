const stages = 'ground|match|stock|pit|day|water|inspect|results';
const rooms = `${stages}|season|practice|record|desk|drawing|wording|units|calendar|reason`;

/** The walls of the house; docs/architecture.md says why they stand where they do. */
module.exports = {
  forbidden: [
    {
      name: 'no-circles-of-files',
      comment: 'Imports of types alone count too.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'production-knows-no-testing',
      severity: 'error',
      from: { path: '^(core|contract|server|web)/src/', pathNot: '\\.(test|spec)\\.ts$' },
      to: { path: '/testing/' },
    },
    {
      name: 'platform-knows-no-stage',
      severity: 'error',
      from: { path: '^server/src/platform/', pathNot: '\\.test\\.ts$' },
      to: { path: '^server/src/(?!platform/)' },
    },
    {
      name: 'core-stands-alone',
      severity: 'error',
      comment:
        'date-fns is whole-date arithmetic, suncalc the position of the sun, d3-scale the scale of a drawing: pure, no clock.',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$' },
      to: { pathNot: '^(core/src|node_modules/(@types/)?(date-fns|suncalc|d3-))' },
    },
    {
      name: 'contract-needs-zod-and-core',
      severity: 'error',
      from: { path: '^contract/src', pathNot: '\\.test\\.ts$' },
      to: { pathNot: '^(contract/src|core/src|node_modules/zod)' },
    },
    { name: 'server-knows-no-web', severity: 'error', from: { path: '^server' }, to: { path: '^web' } },
    { name: 'web-knows-no-server', severity: 'error', from: { path: '^web' }, to: { path: '^(server|demo)' } },
    {
      name: 'demo-builds-on-core',
      severity: 'error',
      from: { path: '^demo/src', pathNot: '\\.test\\.ts$' },
      to: { pathNot: '^(demo/src|core/src)' },
    },
    {
      name: 'stages-of-the-core-meet-at-their-index',
      severity: 'error',
      from: { path: `^core/src/(${rooms})/` },
      to: {
        path: `^core/src/(${rooms})/`,
        pathNot: ['^core/src/$1/', '/index\\.ts$'],
      },
    },
    {
      name: 'only-repositories-and-platform-use-knex',
      severity: 'error',
      from: {
        path: '^server/src',
        pathNot:
          '(repository|service|routes|derive|tend|load-demo|load-big|big-town|rebuild|migrate|main)\\.ts$|/platform/|/app/|import-service|export-service|\\.test\\.ts$',
      },
      to: { path: 'node_modules/knex' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
