import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'

declare module 'vitest' {
  export interface ProvidedContext {
    database: { socketPath: string; password: string; pid: number }
  }
}

/** A private MariaDB for the tests, in a folder that goes with them: the very code that `npm start` uses. */
export default async function startDatabaseForTests(project: TestProject): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), 'sable-tests-'))
  process.env.SABLE_DATA = folder
  // @ts-expect-error the scripts are plain JavaScript, so that they run before any package is there
  const { startDatabase } = await import('../../scripts/lib/database.mjs')
  // @ts-expect-error
  const { holdPort } = await import('../../scripts/lib/ports.mjs')
  let held: unknown
  for (let port = 15_850; held === undefined; port++) held = await holdPort(port)
  const database = await startDatabase(held, () => undefined)
  project.provide('database', { socketPath: database.socketPath, password: database.password, pid: database.pid })
  return async () => {
    await database.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
