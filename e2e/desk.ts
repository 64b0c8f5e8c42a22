import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { test as plain } from '@playwright/test'
import { type Desk, openDesk } from '../soak/desk'

export { expect, type Locator, type Page } from '@playwright/test'

const FIRST_PORT = 4920
/** The ports of two desks lie so far apart. */
const APART = 10

/** Tests of one worker share a desk of their own, with its own database, so that those of different files run beside each other. */
export const test = plain.extend<object, { desk: Desk }>({
  desk: [
    // biome-ignore lint/correctness/noEmptyPattern: the runner reads from the pattern what a fixture needs
    async ({}, use, { parallelIndex }) => {
      const data = mkdtempSync(join(tmpdir(), 'sable-e2e-'))
      const desk = await openDesk(data, FIRST_PORT + APART * parallelIndex)
      await use(desk)
      await desk.stop()
      rmSync(data, { recursive: true, force: true })
    },
    { scope: 'worker', timeout: 300_000 },
  ],
  baseURL: async ({ desk }, use) => use(desk.address),
})
