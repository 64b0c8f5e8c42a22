import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { mkdir, rename, rm } from 'node:fs/promises'
import { dirname } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { BackupManifest } from '@sable/contract/backup'
import { QueryTypes, type Sequelize, Transaction } from 'sequelize'
import { ZipFile } from 'yazl'
import { stepsDone } from '../../database/migrations/migrate'
import { FILES_TABLE, MANIFEST, pathOfModel, pathOfTable, tables } from './tables'

/**
 * Writes all that the desk holds as one archive: rows as JSON, models as their own files, and a manifest with the checksum of
 * each. All is read in one transaction, so it is of one moment however long it takes and whatever is written meanwhile.
 */
export async function writeBackup(sequelize: Sequelize, out: NodeJS.WritableStream): Promise<void> {
  await sequelize.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ }, async (transaction) => {
    const select = <T extends object>(sql: string, replacements: string[] = []): Promise<T[]> =>
      sequelize.query<T>(sql, { type: QueryTypes.SELECT, replacements, transaction })
    const zip = new ZipFile()
    const files: BackupManifest['files'] = []
    const steps = await stepsDone(sequelize, transaction)
    // One file is held at a time: the next is fetched when the archive comes to it.
    const add = (path: string, content: () => Promise<Buffer>): void =>
      zip.addReadStreamLazy(path, {}, (give) => {
        content().then(
          (bytes) => {
            files.push({ path, bytes: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') })
            give(null, Readable.from([bytes]))
          },
          (error: Error) => give(error, Readable.from([])),
        )
      })
    for (const table of tables) add(pathOfTable(table), async () => Buffer.from(JSON.stringify(await select(`SELECT * FROM ${table}`))))
    for (const { content_key } of await select<{ content_key: string }>(`SELECT content_key FROM ${FILES_TABLE}`))
      add(pathOfModel(content_key), async () => {
        const [row] = await select<{ bytes: Buffer }>(`SELECT bytes FROM ${FILES_TABLE} WHERE content_key = ?`, [content_key])
        return row!.bytes
      })
    zip.addReadStreamLazy(MANIFEST, {}, (give) => {
      const manifest: BackupManifest = { format: 'sable-lantern/backup', version: 1, writtenAt: new Date().toISOString(), steps, files }
      give(null, Readable.from([Buffer.from(JSON.stringify(manifest, null, 2))]))
    })
    zip.end()
    const failed = new Promise<never>((_, reject) => zip.on('error', reject))
    await Promise.race([pipeline(zip.outputStream, out), failed])
  })
}

/** Writes a backup as a file, which has its name only once it is whole. */
export async function writeBackupFile(sequelize: Sequelize, path: string): Promise<void> {
  await mkdir(dirname(path), { recursive: true })
  const making = `${path}.making`
  try {
    await writeBackup(sequelize, createWriteStream(making, { mode: 0o600 }))
    await rename(making, path)
  } finally {
    await rm(making, { force: true })
  }
}
