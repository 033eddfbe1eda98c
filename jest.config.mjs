/** Unit and property tests; what needs a browser is in e2e/. */
export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/src', '<rootDir>/scripts'],
  setupFiles: ['fake-indexeddb/auto'],
  testMatch: ['**/*.test.ts'],
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
    '^tests/(.*)$': '<rootDir>/tests/$1',
    // Its file for require() does not work as one.
    '^mimetext/browser$': '<rootDir>/node_modules/mimetext/dist/mimetext.browser.es.js',
  },
  transform: {
    '^.+\\.(t|j)sx?$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true } } }],
  },
  // A machine shared with others may be several times slower than the one the tests were written on.
  testTimeout: 60_000,
  // The usual choice leaves one of two cores idle.
  maxWorkers: '100%',
  // A worker that has grown large spends its time tidying memory; a new one is quicker.
  workerIdleMemoryLimit: '700MB',
  transformIgnorePatterns: [
    '/node_modules/(?!(@noble|iso-3166|uint8array-extras|mimetext|@babel\\/runtime-corejs3|js-base64)/)',
  ],
};
