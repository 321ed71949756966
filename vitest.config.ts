import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'core',
          include: ['core/src/**/*.test.ts', 'contract/src/**/*.test.ts'],
          testTimeout: 60_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/src/**/*.test.ts', 'demo/src/**/*.test.ts', 'cli/src/**/*.test.ts'],
          globalSetup: './cli/src/vitestSetup.ts',
          testTimeout: 60_000,
          hookTimeout: 120_000,
          fileParallelism: false,
        },
      },
      './web/vitest.config.ts',
    ],
  },
})
