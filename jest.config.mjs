import { createRequire } from 'node:module';

/** One runner for everything. `npm test -- core` runs a part. */
const expo = createRequire(import.meta.url)('jest-expo/web/jest-preset.js');

/** Our own sources; ten times as fast as Babel. */
const typescript = [
  '@swc/jest',
  {
    swcrc: false,
    jsc: {
      target: 'es2023',
      parser: { syntax: 'typescript', tsx: true },
      transform: { react: { runtime: 'automatic' } },
    },
  },
];
const globals = { cordelSoak: process.env.CORDEL_SOAK === 'yes' };
const plain = {
  globals,
  testEnvironment: 'node',
  transform: { '\\.tsx?$': typescript },
  setupFilesAfterEnv: ['<rootDir>/../scripts/countExpects.cjs'],
};

const onPostgres = {
  globals: { ...globals, cordelOnPostgres: true },
  globalSetup: '<rootDir>/../scripts/preparePostgres.mjs',
  globalTeardown: '<rootDir>/../scripts/endPostgres.mjs',
};

export default {
  // Servers and browsers wait for each other: with two, a fifth of both cores has nothing to do.
  maxWorkers: 3,
  // Three files at once on two cores: what takes a moment alone may take some.
  testTimeout: 30_000,
  testSequencer: '<rootDir>/scripts/longestFirst.cjs',
  projects: [
    { displayName: 'core', rootDir: 'core', ...plain },
    {
      displayName: 'server',
      rootDir: 'server',
      ...plain,
      // About several servers on one PostgreSQL database.
      testPathIgnorePatterns: ['/node_modules/', 'several\\.test'],
      globalSetup: '<rootDir>/../scripts/prepareTests.mjs',
    },
    {
      // What touches the database, on a PostgreSQL server of its own. The others are about no database, or about the
      // folder of an embedded one.
      displayName: 'server on PostgreSQL',
      rootDir: 'server',
      ...plain,
      ...onPostgres,
      testRegex:
        'test/(backup|facts|gear|handover|import|kill|nights|plan|several|upgrade|wholeShelf)\\.test\\.ts$',
    },
    {
      displayName: 'app',
      rootDir: 'app',
      preset: 'jest-expo/web',
      globals,
      // Before the preset's own, which stays for packages that are shipped for Metro.
      transform: { '\\.[jt]sx?$': typescript },
      // As the preset's Babel writes it.
      moduleNameMapper: { '^react-native$': 'react-native-web' },
      // The preset's own, and a package that is shipped as modules only.
      transformIgnorePatterns: expo.transformIgnorePatterns.map((pattern) =>
        pattern.replace('(?!(', '(?!(uuid|'),
      ),
      setupFilesAfterEnv: ['<rootDir>/../scripts/countExpects.cjs', '<rootDir>/test/withoutCascade.ts'],
    },
    {
      // On PostgreSQL, where a fresh copy of the demo takes a moment; the embedded database has the server's own tests.
      displayName: 'e2e',
      rootDir: 'e2e',
      ...plain,
      ...onPostgres,
      globalSetup: '<rootDir>/support/prepareJourneys.mjs',
      globalTeardown: '<rootDir>/support/endJourneys.mjs',
    },
  ],
};
