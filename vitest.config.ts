import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    // Every file makes its own database and its own server, so that files run side by side.
    maxWorkers: '100%',
    projects: [
      {
        test: {
          name: 'core',
          // What is worked out keeps no state: reading it anew for every file takes longer than most of the tests.
          isolate: false,
          include: ['core/src/**/*.test.ts', 'contract/src/**/*.test.ts'],
          setupFiles: ['core/test/propertySeed.ts'],
          testTimeout: 240_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/src/**/*.test.ts', 'demo/src/**/*.test.ts', 'cli/src/**/*.test.ts'],
          globalSetup: './cli/src/vitestSetup.ts',
          setupFiles: ['core/test/propertySeed.ts'],
          testTimeout: 240_000,
          hookTimeout: 240_000,
        },
      },
      './web/vitest.config.ts',
    ],
  },
})
