import { defineConfig } from '@playwright/test'

/** Chromium from Debian, offline: nothing it does by itself may reach for the network. */
const chromium = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]

export default defineConfig({
  testDir: '.',
  testIgnore: ['screenshots/**', 'figures/**'],
  outputDir: '../test-results',
  // They end a flow that hangs, not one on a machine with more to do: no flow sets a shorter one of its own.
  timeout: 600_000,
  expect: { timeout: 150_000 },
  // Every flow has its own practice, so that none minds which others run before it or beside it.
  fullyParallel: true,
  workers: 2,
  globalSetup: './template.ts',
  forbidOnly: true,
  reporter: [['list'], ['json']],
  use: {
    locale: 'en-GB',
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    serviceWorkers: 'block',
    screenshot: 'only-on-failure',
    launchOptions: { executablePath: '/usr/bin/chromium', args: chromium },
  },
})
