import js from '@eslint/js'
import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

/** Imports go web, server, cli, demo -> contract -> core, and never back or sideways between web and server. */
const not = (...names) => ({
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
  'performance',
  'diagnosis',
  'walk',
  'care',
  'verdict',
  'schedule',
  'exchange',
]

export default tseslint.config(
  { ignores: ['**/dist/**', '.border/**', 'test-results/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-console': 'error',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  { files: ['**/*.mjs', '*.js'], languageOptions: { globals: { URL: 'readonly', process: 'readonly' } } },
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
    ignores: ['**/*.test.ts'],
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
  {
    files: ['**/*.test.{ts,tsx}', '**/test/**', 'e2e/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.object.callee.name="expect"] > AwaitExpression.arguments',
          message: 'What is expected of was read before this is waited for: wait first, then compare.',
        },
      ],
    },
  },
  // Flows know screens alone; how a practice is begun for them is the command line’s.
  { files: ['e2e/**'], rules: not('core', 'contract', 'server', 'web', 'demo', 'cli') },
  { files: ['e2e/practice.ts', 'e2e/template.ts'], rules: not('core', 'contract', 'server', 'web', 'demo') },
  {
    files: ['web/src/**'],
    plugins: { 'react-hooks': reactHooks },
    rules: { ...reactHooks.configs.recommended.rules, ...not('server', 'cli', 'demo', 'e2e') },
  },
)
