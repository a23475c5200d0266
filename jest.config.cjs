/** @type {import('jest').Config} */
module.exports = {
  testEnvironment: 'node',
  testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/demo/**/*.test.ts'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  transform: {
    '^.+\\.(t|j|mj)sx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', decorators: true, tsx: true },
          transform: { legacyDecorator: true, decoratorMetadata: true },
          keepClassNames: true,
          target: 'es2022',
        },
        module: { type: 'commonjs' },
      },
    ],
  },
  transformIgnorePatterns: ['/node_modules/(?!(nanoid|d3-[^/]+|mediabunny|marked)/)'],
  // What is looked up for each sample: through the sandbox's global object each takes a microsecond.
  sandboxInjectedGlobals: ['Math', 'Uint8Array', 'Float32Array', 'Float64Array', 'Number', 'Array'],
  testTimeout: 120000,
  maxWorkers: 2,
};
