/** Who may import whom. A room that is not named imports nothing but core. */
const mayImport = {
  core: [],
  ports: ['core'],
  connectors: ['core', 'ports'],
  records: ['core', 'ports'],
  changes: ['core', 'ports'],
  drafting: ['core', 'changes', 'records'],
  looking: ['core', 'changes', 'connectors', 'records'],
  worker: ['core', 'ports', 'changes', 'connectors', 'drafting', 'looking', 'records'],
  standins: ['core'],
  ui: ['core'],
  app: ['core', 'changes', 'drafting', 'looking', 'records', 'ui'],
  // The front asks who asks, and whether records have changed; nothing of the pages.
  web: ['app'],
}

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      comment: 'A cycle has no first file to read.',
      from: {},
      to: { circular: true },
    },
    {
      name: 'no-orphans',
      severity: 'error',
      from: {
        orphan: true,
        pathNot: ['(^|/)(page|layout|route|error|not-found)\\.tsx?$', '\\.test\\.tsx?$', '\\.d\\.ts$', 'testing/'],
      },
      to: {},
    },
    ...Object.entries(mayImport).map(([room, others]) => ({
      name: `${room}-imports-what-it-may`,
      severity: 'error',
      comment: 'Tests try a room by whatever shows that it works.',
      from: { path: `^src/${room}/`, pathNot: '(\\.test\\.tsx?$|/testing/)' },
      to: { path: `^src/(?!(${[room, ...others].join('|')})/)` },
    })),
    { name: 'core-is-alone', severity: 'error', from: { path: '^src/core' }, to: { path: '^src/(?!core)' } },
    {
      name: 'standins-know-core-only',
      severity: 'error',
      from: { path: '^src/standins' },
      to: { path: '^src/(?!core|standins)' },
    },
    { name: 'ui-knows-core-only', severity: 'error', from: { path: '^src/ui' }, to: { path: '^src/(?!core|ui)' } },
    {
      name: 'nobody-needs-the-standins',
      severity: 'error',
      from: { path: '^src/(?!standins)', pathNot: '(\\.test\\.tsx?$|/testing/)' },
      to: { path: '^src/standins' },
    },
    ...['core', 'records', 'changes', 'ports', 'connectors', 'drafting', 'looking', 'ui', 'standins'].map(room => ({
      name: `${room}-by-its-index`,
      severity: 'error',
      comment: 'A room, and each subject in it, says by its index what it offers.',
      from: { path: '^src/', pathNot: `(^src/${room}/|\\.test\\.tsx?$|/testing/|^src/[^/]+/main\\.ts$)` },
      to: {
        path: `^src/${room}/`,
        pathNot: [`^src/${room}/.*index[.]tsx?$`, '/testing/', '^src/ui/parts/'],
      },
    })),
    {
      name: 'rooms-by-their-index',
      severity: 'error',
      comment: 'Test support is for tests, and for what is measured.',
      from: { pathNot: '(\\.test\\.tsx?$|/testing/|^bench/)' },
      to: { path: '^src/records/testing' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
}
