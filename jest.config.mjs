/** One runner for everything. `npx jest --selectProjects core` runs a part. */
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

export default {
  projects: [
    { displayName: 'core', rootDir: 'core', ...plain },
    {
      displayName: 'server',
      rootDir: 'server',
      ...plain,
      globalSetup: '<rootDir>/../scripts/prepareTests.mjs',
    },
    { displayName: 'app', rootDir: 'app', preset: 'jest-expo/web' },
    { displayName: 'e2e', rootDir: 'e2e', ...plain, globalSetup: '<rootDir>/../scripts/prepareTests.mjs' },
  ],
};
