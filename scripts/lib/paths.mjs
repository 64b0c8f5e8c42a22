import { createHash } from 'node:crypto'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

/** Folder of the project. */
export const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))))

/** Where a desk keeps its database and what it needs while it runs. `SABLE_DATA` moves it, for tests. */
export const dataDir = process.env.SABLE_DATA ?? join(root, '.data')

/** A socket's path may hold about 100 characters, so it stands in the system's temporary folder, named after the desk. */
export const socketPath = join(tmpdir(), `sable-${createHash('sha256').update(dataDir).digest('hex').slice(0, 12)}.sock`)
