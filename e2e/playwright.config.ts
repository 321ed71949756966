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

export const DEMO = 'http://127.0.0.1:5391'
export const EMPTY = 'http://127.0.0.1:5392'

const scratch = (url: string, options: string) => ({
  command: `../border scratch ${options} --port ${new URL(url).port}`,
  url: `${url}/api/health`,
  timeout: 180_000,
  reuseExistingServer: false,
  gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 10_000 },
})

export default defineConfig({
  testDir: '.',
  testIgnore: 'screenshots/**',
  outputDir: '../test-results',
  timeout: 90_000,
  expect: { timeout: 20_000 },
  workers: 1,
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
  webServer: [scratch(DEMO, '--demo'), scratch(EMPTY, '')],
})
