import { defineConfig } from '@playwright/test'

/** The server is started by Cargo's test runner, which says where it is. */
export default defineConfig({
  testDir: 'tests',
  outputDir: 'test-results',
  fullyParallel: false,
  workers: 1,
  reporter: 'line',
  timeout: 90_000,
  expect: { timeout: 15_000 },
  use: {
    baseURL: process.env.ZYMARCH_ADDRESS ?? 'http://127.0.0.1:8420',
    // What a device keeps has journeys of its own; in all others each page comes from the program.
    serviceWorkers: 'block',
    locale: 'en-GB',
    timezoneId: 'UTC',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
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
  projects: [
    { name: 'demo', testMatch: 'demo/*.spec.ts' },
    { name: 'offline', testMatch: 'offline/*.spec.ts', use: { serviceWorkers: 'allow' } },
    { name: 'phones', testMatch: 'phones/*.spec.ts', use: { serviceWorkers: 'allow' } },
    { name: 'people', testMatch: 'people/*.spec.ts' },
    { name: 'first-day', testMatch: 'first-day/*.spec.ts' },
    { name: 'pictures', testMatch: 'pictures/*.spec.ts' },
  ],
})
