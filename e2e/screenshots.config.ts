import { defineConfig } from '@playwright/test'
import checks from './playwright.config.ts'

/** Renews docs/screenshots from a throw-away demo: npm run screenshots -w e2e */
export default defineConfig({
  ...checks,
  testDir: './screenshots',
  testIgnore: [],
  reporter: [['list']],
})
