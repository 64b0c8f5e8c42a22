import { DataTypes } from 'sequelize'
import { count, id, json, refers, when } from './columns'
import type { Step } from './step'

export const searches: Step = {
  name: '06-searches',
  async up(db) {
    await db.createTable('searches', {
      id,
      lineup_id: { type: DataTypes.CHAR(36), allowNull: false, ...refers('lineups'), onDelete: 'CASCADE' },
      spec: json,
      context: json,
      state: { type: DataTypes.STRING(16), allowNull: false },
      done: count,
      size: count,
      reused: count,
      computed: count,
      seconds: { type: DataTypes.DOUBLE, allowNull: false },
      problem: { type: DataTypes.TEXT('long'), allowNull: true },
      created_at: when,
    })
    await db.createTable('search_variants', {
      search_id: { type: DataTypes.CHAR(36), primaryKey: true, ...refers('searches'), onDelete: 'CASCADE' },
      position: { ...count, primaryKey: true },
      choices: json,
      figures: { type: DataTypes.TEXT('long'), allowNull: true },
    })
  },
}
