/** Unit tests of every room, and the server's against a real PostgreSQL. */
export default {
  testEnvironment: '<rootDir>/ops/plain-environment.mjs',
  testMatch: ['<rootDir>/{document,core,edit,server,cli,web,ops}/test/**/*.test.{ts,tsx}'],
  globalSetup: '<rootDir>/ops/before-tests.mjs',
  setupFiles: ['<rootDir>/ops/browser-of-tests.ts', '<rootDir>/ops/seed-of-tests.ts'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
          target: 'es2022',
        },
        module: { type: 'es6' },
      },
    ],
  },
  modulePathIgnorePatterns: ['<rootDir>/.data', '<rootDir>/web/dist'],
  // All cores, or on a machine of two only one of them would work.
  maxWorkers: '100%',
  testTimeout: 120_000,
  // A run that has passed ends, whatever a package may have left ticking.
  forceExit: true,
};
