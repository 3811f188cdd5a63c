import { availableParallelism } from 'node:os'

const swc = [
  '@swc/jest',
  { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } },
]
const common = {
  moduleFileExtensions: ['ts', 'mjs', 'js', 'json'],
  testEnvironment: 'node',
}
export default {
  // Two even of two cores: a browser test waits for what others do. Half of more cores, the browsers take the rest.
  maxWorkers: Math.max(2, Math.floor(availableParallelism() / 2)),
  projects: [
    {
      ...common,
      displayName: 'unit',
      testMatch: ['<rootDir>/tests/{core,server,cli}/**/*.test.ts'],
      // In plain Node, where the core is loaded and compiled once a worker: Jest's own runner does it anew in a
      // context of its own for every file, which took 40 % of the time of all unit tests.
      runner: ['jest-light-runner', { runtime: 'child_process' }],
      setupFiles: ['<rootDir>/tests/support/typescript.mjs'],
    },
    {
      ...common,
      displayName: 'browser',
      testMatch: ['<rootDir>/tests/e2e/**/*.test.ts'],
      transform: { '^.+\\.(ts|mjs)$': swc },
      moduleNameMapper: {
        '^#core$': '<rootDir>/core/index.ts',
        '^#core/(.*)$': '<rootDir>/core/$1.ts',
        '^#shared/(.*)$': '<rootDir>/shared/$1.ts',
      },
      globalSetup: '<rootDir>/tests/support/before-browser.mjs',
      globalTeardown: '<rootDir>/tests/support/after-browser.mjs',
      setupFilesAfterEnv: ['<rootDir>/tests/support/slow.ts'],
    },
  ],
  reporters: ['default', '<rootDir>/tests/support/count-reporter.cjs'],
}
