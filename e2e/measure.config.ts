import { defineConfig } from '@playwright/test'
import shared from './playwright.config'

/** Measures the application in a real browser, one JSON line a figure: run by `npm run bench`. */
export default defineConfig({
  ...shared,
  projects: [{ name: 'drawn' }],
  testDir: 'measure',
  workers: 1,
  timeout: 600_000,
  reporter: [['./measure/linesOnly.ts']],
})
