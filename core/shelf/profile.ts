import { z } from 'zod'
import { overridesSchema } from '../profile/overrides'
import { settingValuesSchema } from '../profile/settings'

/** A profile kept for other parts: values over what printer, nozzle, material and spool say. */
export const profileSchema = z.object({
  key: z.string().regex(/^[a-z0-9.-]+$/),
  name: z.string().min(1).max(80),
  notes: z.string().max(4000).default(''),
  tags: z.array(z.string().trim().min(1).max(30)).max(20).default([]),
  /** What profiles of one intent are called together, whatever they are printed from: the user's own word. */
  family: z.string().trim().max(40).default(''),
  /** Keys of the materials that it is for; empty: any. */
  materials: z.array(z.string().min(1).max(64)).max(40).default([]),
  /** Bores that it is for, mm, both included; absent: any. */
  bores: z
    .tuple([z.number().positive().max(3), z.number().positive().max(3)])
    .refine(([least, most]) => least <= most, 'The least bore comes first.')
    .optional(),
  /** Key of the profile that it was carried over from. */
  carriedFrom: z.string().max(64).optional(),
  values: settingValuesSchema,
  overrides: overridesSchema.default([]),
})
export type Profile = z.infer<typeof profileSchema>
