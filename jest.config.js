/** Unit tests of every room, and the server's against a real PostgreSQL. */
export default {
  testEnvironment: 'node',
  testMatch: ['<rootDir>/{document,core,edit,server,cli,web,ops}/test/**/*.test.ts'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      { jsc: { parser: { syntax: 'typescript', tsx: false }, target: 'es2022' }, module: { type: 'es6' } },
    ],
  },
  modulePathIgnorePatterns: ['<rootDir>/.data', '<rootDir>/web/dist'],
  testTimeout: 120_000,
};
