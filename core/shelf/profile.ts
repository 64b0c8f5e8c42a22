import { z } from 'zod'
import { overridesSchema } from '../profile/overrides'
import { settingValuesSchema } from '../profile/settings'

/** A profile kept for other parts: values over what printer, nozzle, material and spool say. */
export const profileSchema = z.object({
  key: z.string().regex(/^[a-z0-9.-]+$/),
  name: z.string().min(1).max(80),
  notes: z.string().max(4000).default(''),
  tags: z.array(z.string().trim().min(1).max(30)).max(20).default([]),
  /** Key of the material that it was made for. */
  material: z.string().max(64).optional(),
  values: settingValuesSchema,
  overrides: overridesSchema.default([]),
})
export type Profile = z.infer<typeof profileSchema>
