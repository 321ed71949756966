import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    // Every file makes its own database and its own server, so that files run side by side.
    maxWorkers: '100%',
    // None reads the application anew: that takes longer than most of the tests. What they change they put back.
    projects: [
      {
        test: {
          name: 'core',
          isolate: false,
          include: ['core/src/**/*.test.ts', 'contract/src/**/*.test.ts'],
          setupFiles: ['core/test/propertySeed.ts'],
          testTimeout: 240_000,
          hookTimeout: 240_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/src/**/*.test.ts', 'demo/src/**/*.test.ts', 'cli/src/**/*.test.ts'],
          isolate: false,
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
