import { defineConfig } from '@playwright/test'
import checks from './playwright.config.ts'

/** Measures what a person waits for and what travels, on a throw-away demo, nothing else running: npm run figures -w e2e */
export default defineConfig({
  ...checks,
  testDir: './figures',
  testIgnore: [],
  workers: 1,
  reporter: [['list']],
})
