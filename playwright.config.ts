import { defineConfig } from '@playwright/test'

const port = Number(process.env.TOBBIN_TEST_PORT ?? 4879)

export default defineConfig({
  testDir: 'tests/browser',
  timeout: 120_000,
  workers: 1,
  // As long as for an action: two processors serve, prove and draw at once.
  expect: { timeout: 10_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
  use: {
    actionTimeout: 10_000,
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM_PATH || '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: {
    command: `node scripts/demo.mjs --port ${port} --data test-results/data`,
    url: `http://localhost:${port}/sign-in`,
    timeout: 600_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5_000 },
  },
})
