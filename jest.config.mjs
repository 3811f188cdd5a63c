const swc = [
  '@swc/jest',
  { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } },
]
const common = {
  transform: { '^.+\\.(ts|mjs)$': swc },
  moduleFileExtensions: ['ts', 'mjs', 'js', 'json'],
  moduleNameMapper: {
    '^#core$': '<rootDir>/core/index.ts',
    '^#core/(.*)$': '<rootDir>/core/$1.ts',
    '^#shared/(.*)$': '<rootDir>/shared/$1.ts',
  },
  testEnvironment: 'node',
}
export default {
  // A browser test waits most of its time, so two of them share two cores well.
  maxWorkers: 2,
  projects: [
    {
      ...common,
      displayName: 'unit',
      testMatch: ['<rootDir>/tests/{core,server,cli}/**/*.test.ts'],
    },
    {
      ...common,
      displayName: 'browser',
      testMatch: ['<rootDir>/tests/e2e/**/*.test.ts'],
      globalSetup: '<rootDir>/tests/support/before-browser.mjs',
      globalTeardown: '<rootDir>/tests/support/after-browser.mjs',
      setupFilesAfterEnv: ['<rootDir>/tests/support/slow.ts'],
    },
  ],
  reporters: ['default', '<rootDir>/tests/support/count-reporter.cjs'],
}
