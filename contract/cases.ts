import { faultCaseSchema } from '@sable/core/faults/case'
import { z } from 'zod'
import { candidateSchema, lineupContentSchema } from './lineup'

/** A case of a fault, with the candidate that failed as it then was: later edits of its lineup change nothing here. */
export const caseSchema = faultCaseSchema.extend({
  candidate: candidateSchema,
  ...lineupContentSchema.pick({ partId: true, placement: true, purpose: true }).shape,
  partName: z.string().min(1).max(200),
  /** Where it came from, and where a changed column goes to. */
  lineup: z.uuid().optional(),
  print: z.uuid().optional(),
})
export type Case = z.infer<typeof caseSchema>

export const storedCaseSchema = caseSchema.extend({ id: z.uuid(), changedAt: z.string(), revision: z.number().int().positive() })
export type StoredCase = z.infer<typeof storedCaseSchema>
export const casesSchema = z.array(storedCaseSchema)

/** A case that is passed on; what it says of causes is for those who read it without the print. */
export const caseFileSchema = z.object({ format: z.literal('sable-lantern/case'), version: z.literal(1), case: caseSchema })

/** A change carries the revision that it started from. */
export const caseWriteSchema = z.object({ revision: z.number().int().positive(), case: caseSchema })
