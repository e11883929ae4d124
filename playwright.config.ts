import { defineConfig } from '@playwright/test'
import { chromium } from './commands/chromium'

export default defineConfig({
  testDir: 'e2e',
  testIgnore: 'kills/**',
  globalSetup: './e2e/startWendrel.ts',
  // The tests of a file follow each other as an administrator's work does. Much of their time is waiting for what the estate does: two
  // files at a time, each process on an estate of its own.
  workers: 2,
  fullyParallel: false,
  // Of a machine that others share: what fails must have been wrong, not slow.
  timeout: 600_000,
  expect: { timeout: 60_000 },
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    // What stood on the page at each step, and no film of it: that would cost a tenth of both cores.
    trace: { mode: 'retain-on-failure', screenshots: false },
    launchOptions: {
      executablePath: chromium,
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
})
