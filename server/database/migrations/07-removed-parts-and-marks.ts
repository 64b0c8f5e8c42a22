import { DataTypes, QueryTypes } from 'sequelize'
import { addColumn, type Step } from './step'

/** A part that is deleted is kept for a while, so that deleting can be undone; and what was done once is marked as done. */
export const removedPartsAndMarks: Step = {
  name: '07-removed-parts-and-marks',
  async up(db) {
    await addColumn(db, 'parts', 'removed_at', { type: DataTypes.DATE(3), allowNull: true })
    await db.createTable('marks', {
      name: { type: DataTypes.STRING(40), primaryKey: true },
      made_at: { type: DataTypes.DATE(3), allowNull: false },
    })
    // Profiles are written with a lineup, all or nothing: where there is one, the demo was once made to its end. Starter
    // materials came last of the starter records.
    for (const [mark, table] of [
      ['demo', 'profiles'],
      ['starters', 'materials'],
    ])
      await db.sequelize.query(`INSERT IGNORE INTO marks (name, made_at) SELECT '${mark}', UTC_TIMESTAMP(3) FROM ${table} LIMIT 1`, {
        type: QueryTypes.RAW,
      })
  },
}
