import { defineConfig } from '@playwright/test'
import shared from './playwright.config'

/** Takes the pictures in docs/screenshots from a fresh demo: `npm run pictures`. */
export default defineConfig({ ...shared, projects: [{ name: 'drawn' }], testDir: 'pictures', workers: 1 })
