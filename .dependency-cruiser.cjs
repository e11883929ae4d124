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
