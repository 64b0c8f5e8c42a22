import { plateOrders } from '@sable/core/plate/platePart'
import { z } from 'zod'

/** Most parts of one plate. */
export const MOST_ON_PLATE = 64

/** A column of a lineup where it stands on a plate: mm from the middle of the bed, ° counter-clockwise. It follows its column as that is edited. */
export const plateItemSchema = z.object({
  id: z.uuid(),
  lineup: z.uuid(),
  candidate: z.uuid(),
  x: z.number().min(-2000).max(2000),
  y: z.number().min(-2000).max(2000),
  turn: z.number().min(-360).max(360).default(0),
})
export type PlateItem = z.infer<typeof plateItemSchema>

/** Columns of lineups that are printed on one bed. */
export const plateSchema = z.object({
  name: z.string().trim().min(1).max(80),
  order: z.enum(plateOrders).default('together'),
  items: z.array(plateItemSchema).max(MOST_ON_PLATE).default([]),
})
export type Plate = z.infer<typeof plateSchema>

export const storedPlateSchema = plateSchema.extend({ id: z.uuid(), changedAt: z.string(), revision: z.number().int().positive() })
export type StoredPlate = z.infer<typeof storedPlateSchema>
export const storedPlatesSchema = z.array(storedPlateSchema)

/** A change carries the revision that it started from. */
export const plateWriteSchema = z.object({ revision: z.number().int().positive(), plate: plateSchema })
