const shared = {
  transform: {
    '^.+\\.(ts|tsx|mjs|js)$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
        },
      },
    ],
  },
  transformIgnorePatterns: [
    '/node_modules/(?!(immer|ohash|quick-lru|fuse.js|ts-graphviz|@ts-graphviz|tinyqueue|jsondiffpatch|@dmsnell)/)',
  ],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  testEnvironment: 'node',
  setupFiles: ['<rootDir>/scripts/test-seed.mjs'],
  // A test runs in a context of its own, where every name that is global is asked for through the
  // context: twice the time for arithmetic. These are handed to each module instead.
  sandboxInjectedGlobals: [
    ...['Array', 'Float64Array', 'Infinity', 'JSON', 'Map', 'Math', 'Number', 'Object'],
    ...['Set', 'String', 'Symbol', 'WeakMap'],
  ],
};

/**
 * Core and ui tests need nothing; server tests a PostgreSQL (DATABASE_URL); browser tests a running
 * Yantrel (YANTREL_URL).
 */
export default {
  projects: [
    {
      ...shared,
      displayName: 'core',
      testMatch: [
        '<rootDir>/src/{core,cli,print,ui,worker}/**/*.test.{ts,tsx}',
        // Many of those in few files (scripts/test-groups.mjs).
        ...(process.env.YANTREL_GROUPS ? ['<rootDir>/.test-groups/*/*.test.ts'] : []),
      ],
    },
    { ...shared, displayName: 'server', testMatch: ['<rootDir>/src/server/**/*.test.ts'] },
    { ...shared, displayName: 'browser', testMatch: ['<rootDir>/e2e/**/*.test.ts'] },
  ],
};
