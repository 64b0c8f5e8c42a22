import { DataTypes } from 'sequelize'
import { addColumn, type Step } from './step'

/** A lineup that is removed is kept for a while, as parts are. */
export const removedLineups: Step = {
  name: '15-removed-lineups',
  async up(db) {
    await addColumn(db, 'lineups', 'removed_at', { type: DataTypes.DATE(3), allowNull: true })
  },
}
