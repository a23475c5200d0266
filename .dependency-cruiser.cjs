/**
 * Arrows point down only: app, ui, cli -> preview, capture, server -> compositor, practice ->
 * kernels -> core; what both ends of a request know is the contract.
 */
const below = {
  core: [],
  contract: ['core'],
  practice: ['core'],
  capture: ['practice', 'contract', 'core'],
  kernels: ['core'],
  compositor: ['kernels', 'core'],
  sight: ['kernels', 'core'],
  preview: ['compositor', 'kernels', 'contract', 'core'],
  server: ['compositor', 'sight', 'kernels', 'contract', 'core'],
  cli: ['server', 'compositor', 'sight', 'kernels', 'contract', 'core'],
  ui: ['preview', 'capture', 'practice', 'compositor', 'kernels', 'contract', 'core'],
  app: [
    'ui',
    'preview',
    'capture',
    'practice',
    'server',
    'compositor',
    'sight',
    'kernels',
    'contract',
    'core',
  ],
};

module.exports = {
  forbidden: [
    {
      name: 'no-circular',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    ...Object.entries(below).map(([layer, allowed]) => ({
      name: `${layer}-looks-down`,
      severity: 'error',
      from: { path: `^src/${layer}/` },
      to: {
        path: '^src/',
        pathNot: `^src/(${[layer, ...allowed].join('|')})/`,
      },
    })),
    {
      name: 'core-is-closed',
      severity: 'error',
      comment: 'core may use these pure packages, nothing else',
      from: { path: '^src/core/', pathNot: '(\\.test|/testing)\\.ts$' },
      to: {
        pathNot:
          '^(src/core/|node_modules/(@types/)?(@sinclair/typebox|d3-interpolate|ajv|papaparse|marked|linebreak|bidi-js|fastest-levenshtein|fft.js)/)',
      },
    },
    {
      name: 'kernels-compositor-and-sight-know-no-host',
      severity: 'error',
      from: { path: '^src/(kernels|compositor|sight)/', pathNot: '(\\.test|/testing)\\.ts$' },
      to: { pathNot: '^src/(core|kernels|compositor|sight)/' },
    },
    {
      name: 'demo-uses-core',
      severity: 'error',
      from: { path: '^demo/' },
      to: { path: '^src/', pathNot: '^src/(core|practice)/' },
    },
    {
      name: 'bench-measures-what-has-no-interface',
      severity: 'error',
      from: { path: '^bench/' },
      to: { path: '^src/(ui|app|cli|capture|preview)/' },
    },
    {
      name: 'nothing-of-src-needs-what-is-around-it',
      severity: 'error',
      comment: 'src is whole by itself: demo, bench, docs, scripts and tests use it',
      from: { path: '^src/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(demo|bench|docs|scripts|e2e)/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: 'src/kernels/assembly' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
