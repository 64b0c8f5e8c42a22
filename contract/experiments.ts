import { experimentSchema } from '@sable/core/log/experiment'
import { z } from 'zod'

export const storedExperimentSchema = experimentSchema.extend({
  id: z.uuid(),
  changedAt: z.string(),
  revision: z.number().int().positive(),
})
export type StoredExperiment = z.infer<typeof storedExperimentSchema>
export const experimentsSchema = z.array(storedExperimentSchema)
/** What all experiments ruled out. */
export const ruledOutSchema = z.array(
  z.object({
    fault: z.string(),
    printer: z.string(),
    spool: z.string().optional(),
    label: z.string(),
    was: z.string(),
    is: z.string(),
    times: z.number().int(),
    questions: z.array(z.string()),
  }),
)
export type RuledOutList = z.infer<typeof ruledOutSchema>

/** A change carries the revision that it started from. */
export const experimentWriteSchema = z.object({ revision: z.number().int().positive(), experiment: experimentSchema })
