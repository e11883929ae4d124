import next from 'eslint-config-next/core-web-vitals'
import tseslint from 'typescript-eslint'

const askingAhead = { regex: '^next/link$', message: 'Take Link of ui/parts: it asks for nothing ahead.' }

/** What is said of components and hooks is looked for where these are: most of it costs as much as all other rules together. */
const ofReact = [...new Set(next.flatMap(({ rules = {} }) => Object.keys(rules)))].filter(rule => /^react/.test(rule))
const off = rules => Object.fromEntries(rules.map(rule => [rule, 'off']))
const byTheirText = ['react-hooks/rules-of-hooks', 'react-hooks/exhaustive-deps']

export default tseslint.config(
  {
    ignores: [
      'node_modules/',
      '.next/',
      '.built/',
      '.data/',
      'next-env.d.ts',
      'test-results/',
      'playwright-report/',
      'src/ui/drafts/shapes.js',
    ],
  },
  ...next,
  ...tseslint.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      'no-console': ['error', { allow: ['error'] }],
      'max-lines': ['error', { max: 300, skipBlankLines: true, skipComments: true }],
      '@next/next/no-location-assign-relative-destination': 'off', // signing in and out must leave nothing of the page behind
      'react-hooks/incompatible-library': 'off', // the compiler is not used
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'prefer-const': 'error',
    },
  },
  { files: ['**/*.test.ts', 'src/app/api/v1/contract.ts'], rules: { 'max-lines': 'off' } },
  { files: ['**/*'], ignores: ['src/ui/**', 'src/app/**'], rules: off(ofReact) },
  {
    files: ['**/*.test.ts', '**/*.test.tsx', 'src/app/api/**'],
    rules: off(ofReact.filter(rule => rule.startsWith('react-hooks/') && !byTheirText.includes(rule))),
  },
  {
    // Nothing is read without a right to it: pages and routes reach the records through the guarded reader alone.
    files: ['src/app/**/*.ts', 'src/app/**/*.tsx'],
    ignores: ['src/app/server/**', '**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: 'server/context$',
              message: 'Ask reader() of server/guard, or take the scope that answer() hands on.',
            },
            { regex: '^(pg|sequelize)$', message: 'The records have queries for that.' },
            askingAhead,
          ],
        },
      ],
    },
  },
  {
    files: ['src/ui/**/*.ts', 'src/ui/**/*.tsx'],
    ignores: ['src/ui/parts/Link.tsx'],
    rules: { 'no-restricted-imports': ['error', { patterns: [askingAhead] }] },
  },
  { files: ['*.mjs'], rules: { 'import/no-anonymous-default-export': 'off' } },
  {
    // The core is pure: no clock, no chance, no network, no files.
    files: ['src/core/**/*.ts'],
    ignores: ['src/core/**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'process', 'fetch', 'setTimeout', 'setInterval', 'console'],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Core takes the time as a parameter.' },
        { object: 'Math', property: 'random', message: 'Core takes a seed as a parameter.' },
      ],
      'no-restricted-imports': [
        'error',
        { patterns: [{ regex: '^(node:|react|next|sequelize|fastify)', message: 'Core is pure.' }] },
      ],
    },
  },
)
