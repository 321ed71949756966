import { defineConfig } from 'oxlint'

/** Imports go web, server, cli, demo -> contract -> core, and never back or sideways between web and server. */
const not = (...names: string[]) => ({
  'no-restricted-imports': [
    'error',
    {
      patterns: names.map((name) => ({
        group: [`@border/${name}`, `@border/${name}/*`, `**/${name}/src/*`],
        message: `This folder may not import ${name}: see docs/decisions.md.`,
      })),
    },
  ],
})

/** Within core the order of dependence is the order of this list: a folder imports only those before it. */
const coreOrder = [
  'dates',
  'words',
  'written',
  'random',
  'once',
  'search',
  'geometry',
  'sun',
  'light',
  'readings',
  'climate',
  'plants',
  'garden',
  'survey',
  'quantities',
  'performance',
  'diagnosis',
  'walk',
  'care',
  'remedies',
  'verdict',
  'gold',
  'schedule',
  'rework',
  'containers',
  'exchange',
  'frontView',
  'painting',
]

const errors = (...rules: string[]) => Object.fromEntries(rules.map((rule) => [rule, 'error' as const]))

export default defineConfig({
  plugins: ['eslint', 'typescript', 'oxc', 'react'],
  jsPlugins: ['./lint/awaited.js'],
  // What is wrong or useless whatever the taste; the rules below come on top.
  categories: { correctness: 'error' },
  ignorePatterns: ['**/dist/**', '.border/**', 'test-results/**'],
  rules: {
    ...errors(
      'no-array-constructor',
      'no-case-declarations',
      'no-console',
      'no-empty',
      'no-fallthrough',
      'no-prototype-builtins',
      'no-regex-spaces',
      'no-unexpected-multiline',
      'no-useless-assignment',
      'no-var',
      'prefer-const',
      'prefer-rest-params',
      'preserve-caught-error',
      'typescript/ban-ts-comment',
      'typescript/no-empty-object-type',
      'typescript/no-explicit-any',
      'typescript/no-namespace',
      'typescript/no-require-imports',
      'typescript/no-unnecessary-type-constraint',
      'typescript/no-unsafe-function-type',
    ),
    'no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    eqeqeq: ['error', 'always', { null: 'ignore' }],
  },
  overrides: [
    {
      files: ['core/src/**'],
      rules: {
        ...not('contract', 'server', 'web', 'cli', 'demo', 'e2e'),
        'no-restricted-globals': [
          'error',
          'window',
          'document',
          'process',
          'fetch',
          'setTimeout',
          'localStorage',
        ],
        'no-restricted-properties': [
          'error',
          { object: 'Math', property: 'random', message: 'Randomness comes from a seed: core/random.' },
          { object: 'Date', property: 'now', message: 'Time arrives as an argument.' },
        ],
      },
    },
    ...coreOrder.map((name, i) => ({
      files: [`core/src/${name}/**`],
      excludeFiles: ['**/*.test.ts'],
      rules: {
        'no-restricted-imports': [
          'error',
          {
            patterns: [
              ...coreOrder.slice(i + 1).map((later) => ({
                group: [`../${later}/*`],
                message: `Within core, ${name} comes before ${later} and may not import it.`,
              })),
              { group: ['@border/*'], message: 'core imports none of the other workspaces.' },
            ],
          },
        ],
      },
    })),
    { files: ['contract/src/**'], rules: not('server', 'web', 'cli', 'demo', 'e2e') },
    { files: ['server/src/**'], rules: not('web', 'cli', 'demo', 'e2e') },
    { files: ['demo/src/**'], rules: not('web', 'cli', 'e2e') },
    { files: ['cli/src/**'], rules: not('web', 'e2e') },
    { files: ['**/*.test.{ts,tsx}', '**/test/**', 'e2e/**'], rules: errors('border/awaited') },
    // Flows know screens alone; how a practice is begun for them is the command line’s.
    { files: ['e2e/**'], rules: not('core', 'contract', 'server', 'web', 'demo', 'cli') },
    {
      files: ['e2e/practice.ts', 'e2e/template.ts'],
      rules: not('core', 'contract', 'server', 'web', 'demo'),
    },
    {
      files: ['web/src/**'],
      rules: {
        ...not('server', 'cli', 'demo', 'e2e'),
        ...errors(
          'react/error-boundaries',
          'react/exhaustive-deps',
          'react/globals',
          'react/immutability',
          'react/incompatible-library',
          'react/preserve-manual-memoization',
          'react/purity',
          'react/refs',
          'react/rules-of-hooks',
          'react/set-state-in-effect',
          'react/set-state-in-render',
          'react/static-components',
          'react/unsupported-syntax',
          'react/use-memo',
        ),
      },
    },
  ],
})
