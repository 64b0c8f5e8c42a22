import { QueryTypes } from 'sequelize'
import type { Step } from './step'

/**
 * Places with other values are called overrides. The history of lineups and of their columns goes: it grew with every
 * keystroke and nothing ever read it. Columns that were removed long ago go with it.
 */
export const overridesAndNoHistory: Step = {
  name: '08-overrides-and-no-history',
  async up(db) {
    const run = (sql: string): Promise<unknown> => db.sequelize.query(sql, { type: QueryTypes.RAW })
    await db.dropTable('profile_revisions')
    await db.dropTable('lineup_revisions')
    const columns = await db.describeTable('profiles')
    if ('exceptions' in columns) await run('ALTER TABLE profiles RENAME COLUMN exceptions TO overrides')
    if ('revision' in columns) await run('ALTER TABLE profiles DROP COLUMN revision')
    await run('DELETE FROM profiles WHERE id NOT IN (SELECT profile_id FROM candidates)')
  },
}
