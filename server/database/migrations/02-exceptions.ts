import { DataTypes } from 'sequelize'
import { addColumn, type Step } from './step'

export const exceptions: Step = {
  name: '02-exceptions',
  async up(db) {
    for (const table of ['profiles', 'profile_revisions'])
      await addColumn(db, table, 'exceptions', { type: DataTypes.TEXT('long'), allowNull: false, defaultValue: '[]' })
  },
}
