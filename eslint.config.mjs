import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/** Forbids imports in some files, with the reason. */
const forbid = (files, patterns, rest = {}) => ({
  files,
  rules: { '@typescript-eslint/no-restricted-imports': ['error', { patterns }] },
  ...rest,
});

const tests = ['**/*.test.ts', '**/*.test.tsx'];

export default tseslint.config(
  { ignores: ['**/node_modules', '**/dist', '**/.expo', '.cordel', 'server/migrations'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    rules: {
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
    },
  },
  {
    files: ['**/*.mjs', '**/*.cjs', '**/*.js'],
    languageOptions: { globals: { ...globals.node } },
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
  { files: ['app/**/*.{ts,tsx}'], ...reactHooks.configs.flat['recommended-latest'] },
  // The core computes and nothing else: no interface, no machine, no clock, no chance.
  forbid(
    ['core/src/**/*.ts'],
    [
      {
        regex: '^(?!\\.{1,2}/|zod$|papaparse$)',
        message: 'The core imports nothing but itself, zod, and papaparse, which reads tables.',
      },
    ],
    { ignores: tests },
  ),
  {
    files: ['core/src/**/*.ts'],
    ignores: tests,
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'console', 'setTimeout'],
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
          message: 'Hand the time in.',
        },
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'Hand the time in.' },
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: 'Hand chance in.',
        },
      ],
    },
  },
  forbid(
    ['server/src/**/*.ts'],
    [
      {
        group: ['@cordel/app', '@cordel/app/*', '**/app/src/**', 'react', 'react-native'],
        message: 'The server knows no interface.',
      },
    ],
  ),
  forbid(
    ['app/src/**/*.{ts,tsx}'],
    [
      {
        group: ['@cordel/server', '@cordel/server/*'],
        allowTypeImports: true,
        message: 'Only types come from the server.',
      },
      {
        group: ['**/server/src/**', '**/core/src/**', 'node:*'],
        message: 'Import the package, not its files.',
      },
    ],
  ),
  // Colors, sizes and faces are tokens of ui/; a screen names them and writes none.
  {
    files: ['app/src/features/**/*.tsx', 'app/src/shell/**/*.tsx', 'app/src/app/**/*.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: 'Literal[value=/^#[0-9A-Fa-f]{3,8}$/]', message: 'Colors are tokens of ui/tokens.ts.' },
        { selector: "Property[key.name='fontSize'] > Literal", message: 'Sizes are tokens of ui/tokens.ts.' },
      ],
    },
  },
);
