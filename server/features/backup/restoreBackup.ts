import { basename } from 'node:path'
import type { DeskCounts } from '@sable/contract/backup'
import { QueryTypes, type Sequelize } from 'sequelize'
import { migrate } from '../../database/migrations/migrate'
import { type Backup, openBackup } from './openBackup'
import { FILES_TABLE, pathOfTable, tables } from './tables'

/** Rows are put back in bundles of so many. */
const BUNDLE = 500

/**
 * Puts a backup in the place of all that the desk holds. It is filled into a database beside the desk's, with the schema that it
 * was written with, brought to the newest one there, and then takes the desk's place in one transaction: all or nothing.
 *
 * @param beside opens another database of the same server, empty
 * @throws InputError for a backup that is damaged or newer, before anything is touched
 */
export async function restoreBackup(sequelize: Sequelize, beside: (name: string) => Promise<Sequelize>, path: string): Promise<void> {
  const backup = await openBackup(path)
  const own = sequelize.getDatabaseName()
  const scratchName = `${own}_restoring`
  try {
    await sequelize.query(`DROP DATABASE IF EXISTS ${scratchName}`)
    const scratch = await beside(scratchName)
    try {
      await migrate(scratch, backup.manifest.steps.at(-1))
      await fill(scratch, backup)
      await migrate(scratch)
    } finally {
      await scratch.close()
    }
    await takePlace(sequelize, own, scratchName)
  } finally {
    backup.close()
    await sequelize.query(`DROP DATABASE IF EXISTS ${scratchName}`).catch(() => {})
  }
}

async function fill(scratch: Sequelize, { manifest, read }: Backup): Promise<void> {
  const db = scratch.getQueryInterface()
  for (const { path, bytes } of manifest.files.filter(({ path }) => path.startsWith('models/')))
    await scratch.query(`INSERT INTO ${FILES_TABLE} (content_key, bytes, size) VALUES ($1, $2, $3)`, {
      bind: [basename(path), await read(path), bytes],
      type: QueryTypes.RAW,
    })
  for (const table of tables) {
    if (!manifest.files.some(({ path }) => path === pathOfTable(table))) continue
    const rows = (JSON.parse((await read(pathOfTable(table))).toString('utf8')) as Record<string, unknown>[]).map(withDates)
    // A step of the schema may have put rows there that the backup has, too.
    await db.bulkDelete(table, {})
    for (let at = 0; at < rows.length; at += BUNDLE) await db.bulkInsert(table, rows.slice(at, at + BUNDLE))
  }
}

/** Times are texts in JSON; columns of times end alike. */
const withDates = (row: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(
    Object.entries(row).map(([column, value]) => [column, column.endsWith('_at') && typeof value === 'string' ? new Date(value) : value]),
  )

async function takePlace(sequelize: Sequelize, own: string, scratch: string): Promise<void> {
  const all = [FILES_TABLE, ...tables]
  await sequelize.transaction(async (transaction) => {
    for (const table of [...all].reverse()) await sequelize.query(`DELETE FROM ${own}.${table}`, { transaction })
    for (const table of all) {
      const columns = await sequelize.query<{ name: string }>(
        'SELECT column_name AS name FROM information_schema.columns WHERE table_schema = ? AND table_name = ? ORDER BY ordinal_position',
        { type: QueryTypes.SELECT, replacements: [own, table], transaction },
      )
      const names = columns.map(({ name }) => `\`${name}\``).join(', ')
      await sequelize.query(`INSERT INTO ${own}.${table} (${names}) SELECT ${names} FROM ${scratch}.${table}`, { transaction })
    }
  })
}

/** What the desk holds beside the demo: nothing where all of it may be replaced without asking. */
export async function deskCounts(sequelize: Sequelize): Promise<DeskCounts> {
  const count = async (sql: string): Promise<number> =>
    (await sequelize.query<{ n: number }>(`SELECT COUNT(*) AS n FROM ${sql}`, { type: QueryTypes.SELECT }))[0]!.n
  const records = await Promise.all(
    ['printers', 'nozzles', 'materials', 'spools', 'profile_library'].map((table) => count(`${table} WHERE starter = 0 OR revision > 1`)),
  )
  return {
    lineups: await count('lineups WHERE demo = 0 OR revision > 1'),
    parts: await count('parts WHERE demo = 0 AND removed_at IS NULL'),
    records: records.reduce((sum, n) => sum + n, 0),
  }
}
