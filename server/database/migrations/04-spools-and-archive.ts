import { DataTypes } from 'sequelize'
import { count, first, json, refers, when, yes } from './columns'
import { addColumn, type Step } from './step'

export const spoolsAndArchive: Step = {
  name: '04-spools-and-archive',
  async up(db) {
    await db.createTable('spools', {
      record_key: { type: DataTypes.STRING(64), primaryKey: true },
      position: count,
      record: json,
      starter: yes,
      archived: yes,
      revision: first,
    })
    for (const table of ['printers', 'nozzles', 'materials']) {
      await addColumn(db, table, 'archived', yes)
      await addColumn(db, table, 'revision', first)
    }
    await db.createTable('profile_library', {
      record_key: { type: DataTypes.STRING(64), primaryKey: true },
      position: count,
      record: json,
      starter: yes,
      archived: yes,
      revision: first,
    })
    await db.createTable('shelf_revisions', {
      kind: { type: DataTypes.STRING(16), primaryKey: true },
      record_key: { type: DataTypes.STRING(64), primaryKey: true },
      revision: { ...count, primaryKey: true },
      record: json,
      created_at: when,
    })
    await addColumn(db, 'candidates', 'spool', { type: DataTypes.STRING(64), allowNull: true, ...refers('spools', 'record_key') })
  },
}
