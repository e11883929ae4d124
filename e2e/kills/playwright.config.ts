import { defineConfig } from '@playwright/test'

/** Every kind of change with every process killed in the middle of it: an estate of its own, and no browser. */
export default defineConfig({
  testDir: '.',
  globalSetup: '../startWendrel.ts',
  workers: 1,
  fullyParallel: false,
  timeout: 900_000,
  expect: { timeout: 60_000 },
  reporter: [['list']],
})
