import { createRequire } from 'node:module';

/** One runner for everything. `npm test -- core` runs a part. */
const expo = createRequire(import.meta.url)('jest-expo/web/jest-preset.js');

const typescript = {
  '\\.[jt]sx?$': [
    'babel-jest',
    {
      babelrc: false,
      configFile: false,
      presets: [['@babel/preset-env', { targets: { node: 'current' } }], '@babel/preset-typescript'],
    },
  ],
};
const plain = { testEnvironment: 'node', transform: typescript };

const onPostgres = {
  globals: { cordelOnPostgres: true },
  globalSetup: '<rootDir>/../scripts/preparePostgres.mjs',
  globalTeardown: '<rootDir>/../scripts/endPostgres.mjs',
};

export default {
  // Servers and browsers wait for each other: with two, a fifth of both cores has nothing to do.
  maxWorkers: 3,
  // Three files at once on two cores: what takes a moment alone may take some.
  testTimeout: 30_000,
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
      // The same tests on a PostgreSQL server of their own.
      displayName: 'server on PostgreSQL',
      rootDir: 'server',
      ...plain,
      ...onPostgres,
      // About the folder of an embedded database, or about what no database has a part in.
      testPathIgnorePatterns: ['/node_modules/', '(folder|logOnDisk|machine|photos)\\.test'],
    },
    {
      displayName: 'app',
      rootDir: 'app',
      preset: 'jest-expo/web',
      // The preset's own, and a package that is shipped as modules only.
      transformIgnorePatterns: expo.transformIgnorePatterns.map((pattern) =>
        pattern.replace('(?!(', '(?!(uuid|'),
      ),
    },
    {
      // On PostgreSQL, where a fresh copy of the demo takes a moment; the embedded database has the server's own tests.
      displayName: 'e2e',
      rootDir: 'e2e',
      ...plain,
      ...onPostgres,
    },
  ],
};
