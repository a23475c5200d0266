/** Packages that are modules only, and what they are made of. */
const MODULES = [
  ...['nanoid', 'd3-[^/]+', 'mediabunny', 'marked', 'tinykeys'],
  ...['execa', 'figures', 'get-stream', 'human-signals', 'is-plain-obj', 'is-stream'],
  ...['npm-run-path', 'path-key', 'pretty-ms', 'parse-ms', 'strip-final-newline', 'yoctocolors'],
  ...['unicorn-magic', 'is-unicode-supported', '@sindresorhus/[^/]+', '@sec-ant/[^/]+'],
];

/** @type {import('jest').Config} */
module.exports = {
  testEnvironment: 'node',
  testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}', '<rootDir>/demo/**/*.test.ts'],
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
    // Offers itself to `import` alone, which the modules of the tests are not.
    '^unicorn-magic$': '<rootDir>/node_modules/unicorn-magic/node.js',
  },
  transform: {
    '^.+\\.(t|j|mj)sx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', decorators: true, tsx: true },
          transform: {
            ...{ legacyDecorator: true, decoratorMetadata: true },
            react: { runtime: 'automatic' },
          },
          keepClassNames: true,
          target: 'es2022',
        },
        module: { type: 'commonjs' },
      },
    ],
  },
  transformIgnorePatterns: [`/node_modules/(?!(${MODULES.join('|')})/)`],
  // What is looked up for each sample: through the sandbox's global object each takes a microsecond.
  sandboxInjectedGlobals: ['Math', 'Uint8Array', 'Float32Array', 'Float64Array', 'Number', 'Array'],
  testTimeout: 120000,
  maxWorkers: 2,
};
