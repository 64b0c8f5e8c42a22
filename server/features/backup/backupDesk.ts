import { mkdir, readdir, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import type { DeskCounts } from '@sable/contract/backup'
import type { Sequelize } from 'sequelize'
import { connect, type DatabaseAddress } from '../../database/connect'
import { ProblemError } from '../../http/problems'
import { deskCounts, restoreBackup } from './restoreBackup'
import { writeBackup, writeBackupFile } from './writeBackup'

const DAY_MS = 24 * 3600 * 1000
const LOOK_MS = 3600 * 1000
/** The desk is left alone while it starts. */
const FIRST_LOOK_MS = 60_000
const KEPT = 7
/** Putting gigabytes back is one statement a table, and takes as long as it takes. */
const PATIENCE_MS = 3600 * 1000
const DAILY = /^daily-.*\.zip$/

/** Backups of the desk: written on request and once a day, put back on request. @param folder where those lie that it writes by itself */
export function createBackups(sequelize: Sequelize, address: DatabaseAddress, folder: string) {
  /** Opens another database of the same server, made if need be. */
  const beside = async (name: string): Promise<Sequelize> => {
    await sequelize.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`)
    return connect({ ...address, database: name }, PATIENCE_MS)
  }
  const fileName = (kind: string, now: Date): string => `${kind}-${now.toISOString().slice(0, 19).replaceAll(':', '-')}.zip`
  const daily = async (): Promise<string[]> => (await readdir(folder).catch(() => [])).filter((name) => DAILY.test(name)).sort()

  /** Writes today's backup unless it is there, and lets go of those older than the last seven. */
  const writeDaily = async (now = new Date()): Promise<void> => {
    await mkdir(folder, { recursive: true, mode: 0o700 })
    const last = (await daily()).at(-1)
    if (last !== undefined && now.getTime() - (await stat(join(folder, last))).mtimeMs < DAY_MS) return
    await writeBackupFile(sequelize, join(folder, fileName('daily', now)))
    for (const old of (await daily()).slice(0, -KEPT)) await rm(join(folder, old), { force: true })
  }

  return {
    write: (out: NodeJS.WritableStream): Promise<void> => writeBackup(sequelize, out),
    counts: (): Promise<DeskCounts> => deskCounts(sequelize),
    writeDaily,

    /**
     * Puts a backup in the place of what the desk holds. What is replaced is written as a backup first.
     *
     * @param over whether anything of the user's may be replaced. @throws ProblemError 409 with what there is, when it may not
     */
    async restore(path: string, over: boolean): Promise<void> {
      const counts = await deskCounts(sequelize)
      const isUsed = Object.values(counts).some((n) => n > 0)
      if (isUsed && !over)
        throw new ProblemError(
          409,
          'desk-not-empty',
          `The desk holds ${counts.lineups} lineups, ${counts.parts} parts and ${counts.records} records of yours.`,
          '',
          'Say that they may be replaced: they are written as a backup first.',
          counts,
        )
      if (isUsed) await writeBackupFile(sequelize, join(folder, fileName('before-restore', new Date())))
      const patient = connect(address, PATIENCE_MS)
      try {
        await restoreBackup(patient, beside, path)
      } finally {
        await patient.close()
      }
    },

    /** Writes a backup once a day from now on. Returns how to stop. */
    keepDaily(): () => void {
      const look = (): void => {
        writeDaily().catch((error) => console.error(`Today's backup could not be written to ${folder}: ${error.message}`))
      }
      const first = setTimeout(look, FIRST_LOOK_MS)
      const later = setInterval(look, LOOK_MS)
      return () => {
        clearTimeout(first)
        clearInterval(later)
      }
    },
  }
}

export type Backups = ReturnType<typeof createBackups>
