import { defineConfig } from '@playwright/test'

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
  globalSetup: './build.ts',
  // Each has a desk of its own (see desk.ts).
  workers: 2,
  // Far beyond what any step takes: they end what hangs, and measure nothing. A busy machine is no failure.
  timeout: 300_000,
  expect: { timeout: 60_000 },
  reporter: process.env.CI ? [['list']] : [['line']],
  outputDir: 'test-results',
  use: {
    viewport: { width: 1280, height: 800 },
    colorScheme: 'dark',
    contextOptions: { reducedMotion: 'reduce' },
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions: drawing,
  },
  projects: [
    { name: 'plain', testIgnore: drawn, use: { launchOptions: withoutDrawing } },
    { name: 'drawn', testMatch: drawn },
  ],
})
