import { experimentSchema } from '@sable/core/log/experiment'
import { z } from 'zod'

export const storedExperimentSchema = experimentSchema.extend({
  id: z.uuid(),
  changedAt: z.string(),
  revision: z.number().int().positive(),
})
export type StoredExperiment = z.infer<typeof storedExperimentSchema>
export const experimentsSchema = z.array(storedExperimentSchema)
/** A change carries the revision that it started from. */
export const experimentWriteSchema = z.object({ revision: z.number().int().positive(), experiment: experimentSchema })
