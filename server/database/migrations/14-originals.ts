import { DataTypes } from 'sequelize'
import { addColumn, type Step } from './step'

/** Photographs as the camera took them, where somebody wished to keep those too. */
export const originals: Step = {
  name: '14-originals',
  async up(db) {
    for (const table of ['trial_photos', 'print_photos'])
      await addColumn(db, table, 'original', { type: DataTypes.TEXT('long'), allowNull: true })
  },
}
