import { DataTypes } from 'sequelize'
import { id, json, refers, when, yes } from './columns'
import type { Step } from './step'

const key = { type: DataTypes.STRING(64), allowNull: false } as const
const later = { type: DataTypes.DATE(3), allowNull: true } as const

/** Prints, with what is looked for in columns of their own; and their photographs. */
export const prints: Step = {
  name: '11-prints',
  async up(db) {
    await db.createTable('prints', {
      id,
      state: { type: DataTypes.STRING(16), allowNull: false },
      printer: key,
      spool: { type: DataTypes.STRING(64), allowNull: true },
      profile: { type: DataTypes.STRING(120), allowNull: false },
      part: { type: DataTypes.STRING(64), allowNull: true },
      words: { type: DataTypes.TEXT('long'), allowNull: false },
      summary: json,
      frozen: json,
      outcome: { ...json, allowNull: true },
      left_out: yes,
      planned_at: when,
      started_at: later,
      ended_at: later,
    })
    await db.createTable('print_photos', {
      id,
      print_id: { ...id, primaryKey: false, allowNull: false, ...refers('prints') },
      photo: json,
      taken_at: when,
    })
  },
}
