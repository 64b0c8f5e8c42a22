import { DataTypes } from 'sequelize'
import { addColumn, type Step } from './step'

/** No purpose at all, as it was written when this step was made. */
const NO_PURPOSE = JSON.stringify({
  kind: 'work',
  seen: 'all',
  touchesFood: false,
  load: { kind: 'bend', axis: 'weakest', azimuthDeg: 0, elevationDeg: 45, heldTo: 10, loadedFrom: 90 },
  limits: {},
})

export const purpose: Step = {
  name: '03-purpose',
  async up(db) {
    await addColumn(db, 'lineups', 'purpose', { type: DataTypes.TEXT('long'), allowNull: false, defaultValue: NO_PURPOSE })
  },
}
