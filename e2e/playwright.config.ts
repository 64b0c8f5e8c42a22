import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { defineConfig } from '@playwright/test'

// The configuration is read again in every worker; the desk must be the same for all of them.
process.env.SABLE_DATA ??= mkdtempSync(join(tmpdir(), 'sable-e2e-'))
export const PORT = 4920

const chromium = (...more: string[]) => ({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    ...more,
  ],
})
/** Pictures of solids drawn by software: slow, so only for what looks at them. */
const drawing = chromium('--use-gl=angle', '--use-angle=swiftshader', '--enable-unsafe-swiftshader')
const withoutDrawing = chromium('--disable-gpu', '--disable-3d-apis')
const drawn = /(views|looks)\.spec\.ts$/

export default defineConfig({
  testDir: 'tests',
  // One desk, one database: tests that change it must not run beside each other.
  workers: 1,
  timeout: 120_000,
  expect: { timeout: 25_000 },
  reporter: process.env.CI ? [['list']] : [['line']],
  outputDir: 'test-results',
  webServer: {
    command: `node scripts/start.mjs --port ${PORT}`,
    cwd: join(import.meta.dirname, '..'),
    url: `http://localhost:${PORT}/api/health`,
    timeout: 300_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGINT', timeout: 40_000 },
    stdout: 'ignore',
    stderr: 'pipe',
  },
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    colorScheme: 'dark',
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions: drawing,
  },
  projects: [
    { name: 'plain', testIgnore: drawn, use: { launchOptions: withoutDrawing } },
    { name: 'drawn', testMatch: drawn },
  ],
})
