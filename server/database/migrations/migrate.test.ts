import { QueryTypes, Sequelize } from 'sequelize'
import { afterAll, describe, expect, inject, it } from 'vitest'
import { connect } from '../connect'
import { migrate, NewerDatabase, stepNames, stepsDone } from './migrate'

const opened: Sequelize[] = []
afterAll(() => Promise.all(opened.map((sequelize) => sequelize.close())))

/** An empty database of its own. */
async function empty(name: string): Promise<Sequelize> {
  const { socketPath, password } = inject('database')
  const root = new Sequelize('mysql', 'root', password, { dialect: 'mariadb', dialectOptions: { socketPath }, logging: false })
  await root.query(`CREATE DATABASE ${name}`)
  await root.close()
  const sequelize = connect({ socketPath, user: 'root', password, database: name })
  opened.push(sequelize)
  return sequelize
}

class Killed extends Error {}

/** Runs one step, and is killed before the statement after so many; tells whether it came to its end before. */
async function runStep(sequelize: Sequelize, step: string, statements: number): Promise<boolean> {
  const query = sequelize.query
  let left = statements
  sequelize.query = ((...args: Parameters<typeof query>) => {
    if (left-- <= 0) throw new Killed()
    return query.apply(sequelize, args)
  }) as typeof query
  try {
    await migrate(sequelize, step)
    return true
  } catch (error) {
    // The runner of the steps wraps what stopped it.
    if (!(error instanceof Killed) && !((error as Error).cause instanceof Killed)) throw error
    return false
  } finally {
    sequelize.query = query
  }
}

/** Runs each step killed before its first statement, then before its second, and so on, each time from its beginning. @returns how often it was killed */
async function migrateThroughKills(sequelize: Sequelize): Promise<number> {
  const done = await stepsDone(sequelize)
  let kills = 0
  for (const step of stepNames.filter((name) => !done.includes(name)))
    for (let statements = 0; !(await runStep(sequelize, step, statements)); statements++) kills++
  return kills
}

const rowsOf = (sequelize: Sequelize, sql: string): Promise<object[]> => sequelize.query(sql, { type: QueryTypes.SELECT })

/** Columns, keys and references of all tables. */
async function schemaOf(sequelize: Sequelize): Promise<object> {
  const own = 'table_schema = DATABASE()'
  return {
    columns: await rowsOf(
      sequelize,
      `SELECT table_name, column_name, column_type, is_nullable, column_default, column_key FROM information_schema.columns WHERE ${own} ORDER BY table_name, column_name`,
    ),
    keys: await rowsOf(
      sequelize,
      `SELECT table_name, column_name, referenced_table_name, referenced_column_name FROM information_schema.key_column_usage WHERE ${own} ORDER BY table_name, column_name, referenced_table_name`,
    ),
  }
}

const HEATED = JSON.stringify([
  { name: 'a', fromZ: 0, box: { minX: 0, maxX: 5, minY: 0, maxY: 5 }, values: { nozzleTemperature: 230, fanSpeed: 10 } },
])

/** Rows as the first release wrote them. */
async function fillFirstRelease(sequelize: Sequelize): Promise<void> {
  for (const sql of [
    "INSERT INTO blobs VALUES (REPEAT('a', 64), 'solid', 5)",
    "INSERT INTO parts (id, name, file_name, content_key, report, demo, created_at) VALUES ('p', 'hook', 'hook.stl', REPEAT('a', 64), '{}', 0, NOW())",
    ...['printers', 'nozzles', 'materials'].map(
      (table) => `INSERT INTO ${table} (record_key, position, record, starter) VALUES ('k', 0, '{"key":"k"}', 1)`,
    ),
    "INSERT INTO profiles (id, name, revision, setting_values) VALUES ('c', 'everyday', 1, '{}')",
    "INSERT INTO profile_revisions (profile_id, revision, name, setting_values, created_at) VALUES ('c', 1, 'everyday', '{}', NOW())",
    "INSERT INTO lineups (id, name, part_id, placement, revision, demo, updated_at) VALUES ('l', 'mine', 'p', '{}', 1, 0, NOW())",
    "INSERT INTO candidates (lineup_id, position, profile_id, printer, nozzle, material) VALUES ('l', 0, 'c', 'k', 'k', 'k')",
  ])
    await sequelize.query(sql)
}

const counted = async (sequelize: Sequelize): Promise<object[]> =>
  rowsOf(
    sequelize,
    `SELECT ${['blobs', 'parts', 'printers', 'profiles', 'lineups', 'candidates', 'marks'].map((table) => `(SELECT COUNT(*) FROM ${table}) AS ${table}`).join(', ')}`,
  )

describe('migrations', () => {
  it('that are killed before each of their statements come to the same schema', async () => {
    const [whole, killed] = [await empty('migrate_whole'), await empty('migrate_killed')]
    await migrate(whole)
    expect(await migrateThroughKills(killed)).toBeGreaterThan(80)
    expect(await schemaOf(killed)).toEqual(await schemaOf(whole))
    expect(await stepsDone(killed)).toEqual([...stepNames])
  })

  it('that are killed so on the data of the first release lose no row', async () => {
    const [whole, killed] = [await empty('migrate_rows'), await empty('migrate_rows_killed')]
    for (const sequelize of [whole, killed]) {
      await migrate(sequelize, stepNames[0])
      await fillFirstRelease(sequelize)
    }
    await migrate(whole)
    expect(await migrateThroughKills(killed)).toBeGreaterThan(60)
    expect(await schemaOf(killed)).toEqual(await schemaOf(whole))
    expect(await counted(killed)).toEqual(await counted(whole))
    expect(await counted(killed)).toEqual([{ blobs: 1, parts: 1, printers: 1, profiles: 1, lineups: 1, candidates: 1, marks: 2 }])
  })

  it('take heat out of boxes once, however often they are killed on the way', async () => {
    const killed = await empty('migrate_heat')
    await migrate(killed, stepNames[0])
    await fillFirstRelease(killed)
    await migrate(killed, '04-spools-and-archive')
    await killed.query('UPDATE profiles SET exceptions = ?', { replacements: [HEATED] })
    await migrateThroughKills(killed)
    const [{ overrides }] = (await rowsOf(killed, 'SELECT overrides FROM profiles')) as [{ overrides: string }]
    expect(JSON.parse(overrides)[0]).toMatchObject({ box: { maxX: 5 }, values: { fanSpeed: 10 } })
    expect(overrides).not.toContain('nozzleTemperature')
  })

  it('leave a database of a newer version as it is, and say so', async () => {
    const newer = await empty('migrate_newer')
    await migrate(newer)
    await newer.query("INSERT INTO SequelizeMeta VALUES ('99-from-the-future')")
    await newer.query('ALTER TABLE parts DROP COLUMN removed_at')
    const before = await schemaOf(newer)
    await expect(migrate(newer)).rejects.toThrow(NewerDatabase)
    await expect(migrate(newer)).rejects.toThrow(/newer version.*99-from-the-future.*Nothing was changed/)
    expect(await schemaOf(newer)).toEqual(before)
  })
})
