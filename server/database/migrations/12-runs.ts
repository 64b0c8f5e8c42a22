import { DataTypes } from 'sequelize'
import { count, id, json, refers, when } from './columns'
import { addColumn, type Step } from './step'

/** Programs of prints, packed; and how far a machine has come with one. */
export const runs: Step = {
  name: '12-runs',
  async up(db) {
    await addColumn(db, 'prints', 'clock_s', { type: DataTypes.DOUBLE, allowNull: true })
    await db.createTable('print_programs', {
      print_id: { ...id, ...refers('prints') },
      sha256: { type: DataTypes.CHAR(64), allowNull: false },
      packed: json,
    })
    await db.createTable('print_runs', {
      print_id: { ...id, ...refers('prints') },
      printer: { type: DataTypes.STRING(64), allowNull: false },
      state: { type: DataTypes.STRING(16), allowNull: false },
      accepted: count,
      total: count,
      why: json,
      changed_at: when,
    })
  },
}
