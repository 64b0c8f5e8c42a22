import { DataTypes } from 'sequelize'

/** Columns as the steps write them. A step that has run anywhere must go on meaning the same, and so must these. */
export const id = { type: DataTypes.CHAR(36), primaryKey: true } as const
export const when = { type: DataTypes.DATE(3), allowNull: false } as const
export const json = { type: DataTypes.TEXT('long'), allowNull: false } as const
export const name = { type: DataTypes.STRING(80), allowNull: false } as const
export const yes = { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false } as const
export const first = { type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 } as const
export const count = { type: DataTypes.INTEGER.UNSIGNED, allowNull: false } as const
export const refers = (table: string, key = 'id') =>
  ({ references: { model: table, key }, onDelete: 'RESTRICT', onUpdate: 'CASCADE' }) as const
