import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    name: 'web',
    include: ['src/**/*.test.{ts,tsx}'],
    setupFiles: ['src/test/setup.ts', '../core/test/propertySeed.ts'],
    testTimeout: 240_000,
    hookTimeout: 240_000,
    isolate: false,
  },
})
