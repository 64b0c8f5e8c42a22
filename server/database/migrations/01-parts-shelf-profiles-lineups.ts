import { DataTypes } from 'sequelize'
import { count, id, json, name, refers, when, yes } from './columns'
import type { Step } from './step'

export const partsShelfProfilesLineups: Step = {
  name: '001-parts-shelf-profiles-lineups',
  up: async (db) => {
    await db.createTable('blobs', {
      content_key: { type: DataTypes.CHAR(64), primaryKey: true },
      bytes: { type: DataTypes.BLOB('long'), allowNull: false },
      size: count,
    })
    await db.createTable('parts', {
      id,
      name,
      file_name: { type: DataTypes.STRING(255), allowNull: false },
      content_key: { type: DataTypes.CHAR(64), allowNull: false, unique: true, ...refers('blobs', 'content_key') },
      report: json,
      demo: yes,
      created_at: when,
    })
    for (const table of ['printers', 'nozzles', 'materials']) {
      await db.createTable(table, {
        record_key: { type: DataTypes.STRING(64), primaryKey: true },
        position: count,
        record: json,
        starter: yes,
      })
    }
    await db.createTable('profiles', { id, name, revision: count, setting_values: json })
    await db.createTable('profile_revisions', {
      profile_id: { type: DataTypes.CHAR(36), primaryKey: true, ...refers('profiles') },
      revision: { ...count, primaryKey: true },
      name,
      setting_values: json,
      created_at: when,
    })
    await db.createTable('lineups', {
      id,
      name,
      part_id: { type: DataTypes.CHAR(36), allowNull: false, ...refers('parts') },
      placement: json,
      revision: count,
      demo: yes,
      updated_at: when,
    })
    await db.createTable('candidates', {
      lineup_id: { type: DataTypes.CHAR(36), primaryKey: true, ...refers('lineups'), onDelete: 'CASCADE' },
      position: { ...count, primaryKey: true },
      profile_id: { type: DataTypes.CHAR(36), allowNull: false, ...refers('profiles') },
      printer: { type: DataTypes.STRING(64), allowNull: false, ...refers('printers', 'record_key') },
      nozzle: { type: DataTypes.STRING(64), allowNull: false, ...refers('nozzles', 'record_key') },
      material: { type: DataTypes.STRING(64), allowNull: false, ...refers('materials', 'record_key') },
    })
    await db.createTable('lineup_revisions', {
      lineup_id: { type: DataTypes.CHAR(36), primaryKey: true, ...refers('lineups'), onDelete: 'CASCADE' },
      revision: { ...count, primaryKey: true },
      content: json,
      created_at: when,
    })
  },
}
