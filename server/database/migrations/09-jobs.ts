import { DataTypes, QueryTypes } from 'sequelize'
import { count, id, when } from './columns'
import type { Step } from './step'

const standing = ['state', 'done', 'size', 'reused', 'computed', 'seconds', 'problem', 'created_at'] as const

/** How long work stands is kept in one place for all kinds of it; searches were the first. */
export const jobs: Step = {
  name: '09-jobs',
  async up(db) {
    const run = (sql: string): Promise<unknown> => db.sequelize.query(sql, { type: QueryTypes.RAW })
    await db.createTable('jobs', {
      id,
      kind: { type: DataTypes.STRING(16), allowNull: false },
      state: { type: DataTypes.STRING(16), allowNull: false },
      done: count,
      size: count,
      reused: count,
      computed: count,
      seconds: { type: DataTypes.DOUBLE, allowNull: false },
      problem: { type: DataTypes.TEXT('long'), allowNull: true },
      created_at: when,
    })
    const left = await db.describeTable('searches')
    // The last to go, so that a step that was killed finds all of it or nothing to move.
    if ('created_at' in left) {
      await run(`INSERT IGNORE INTO jobs (id, kind, ${standing.join(', ')}) SELECT id, 'search', ${standing.join(', ')} FROM searches`)
      await run(`ALTER TABLE searches ${standing.map((column) => `DROP COLUMN ${column}`).join(', ')}`)
    }
    await run('DELETE FROM searches WHERE id NOT IN (SELECT id FROM jobs)')
    await run('ALTER TABLE searches ADD CONSTRAINT searches_job FOREIGN KEY IF NOT EXISTS (id) REFERENCES jobs (id) ON DELETE CASCADE')
  },
}
