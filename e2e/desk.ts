import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { test as plain } from '@playwright/test'
import { type Desk, openDesk } from '../soak/desk'

export { expect, type Locator, type Page } from '@playwright/test'

const FIRST_PORT = 4920
/** The ports of two desks lie so far apart. */
const APART = 10

const isFree = (port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const probe = createServer()
    probe.once('error', () => resolve(false))
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)))
  })

/** Where a desk can be: another run of these tests may be under way beside this one. */
async function freePort(worker: number): Promise<number> {
  let port = FIRST_PORT + APART * worker
  while (!(await isFree(port))) port += 10 * APART
  return port
}

/** Tests of one worker share a desk of their own, with its own database, so that those of different files run beside each other. */
export const test = plain.extend<object, { desk: Desk }>({
  desk: [
    // biome-ignore lint/correctness/noEmptyPattern: the runner reads from the pattern what a fixture needs
    async ({}, use, { parallelIndex }) => {
      const data = mkdtempSync(join(tmpdir(), 'sable-e2e-'))
      const desk = await openDesk(data, await freePort(parallelIndex))
      await use(desk)
      await desk.stop()
      rmSync(data, { recursive: true, force: true })
    },
    { scope: 'worker', timeout: 300_000 },
  ],
  baseURL: async ({ desk }, use) => use(desk.address),
})
