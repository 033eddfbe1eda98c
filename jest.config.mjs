/** Unit and property tests; what needs a browser is in e2e/. */
export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/src', '<rootDir>/scripts'],
  setupFiles: ['fake-indexeddb/auto'],
  testMatch: ['**/*.test.ts'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1', '^tests/(.*)$': '<rootDir>/tests/$1' },
  transform: {
    '^.+\\.(t|j)sx?$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true } } }],
  },
  transformIgnorePatterns: ['/node_modules/(?!(@noble)/)'],
};
