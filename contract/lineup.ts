import { placementSchema } from '@sable/core/mesh/place'
import { noPurpose, purposeSchema } from '@sable/core/physics/strength/purpose'
import { overridesSchema } from '@sable/core/profile/overrides'
import { settingValuesSchema } from '@sable/core/profile/settings'
import { z } from 'zod'

const name = z.string().trim().min(1).max(80)
const key = z.string().min(1).max(64)

/** Most candidates that one lineup holds. */
export const MOST_CANDIDATES = 24

/** One column of the ledger: a profile on a machine with a material. */
export const candidateSchema = z.object({
  id: z.uuid(),
  name,
  printer: key,
  nozzle: key,
  material: key,
  /** The very reel, where one is chosen; what it is of goes before the material. */
  spool: key.optional(),
  /** What the profile itself says; the rest comes from the shelf. */
  values: settingValuesSchema,
  /** Places where other values hold. */
  overrides: overridesSchema.default([]),
})
export type Candidate = z.infer<typeof candidateSchema>

/** What a person works on: a part and its candidates in order. */
export const lineupContentSchema = z.object({
  name,
  partId: z.uuid(),
  placement: placementSchema,
  /** What the part is for, how it is loaded, and what it must keep to. */
  purpose: purposeSchema.default(noPurpose),
  candidates: z
    .array(candidateSchema)
    .max(MOST_CANDIDATES)
    .refine((candidates) => new Set(candidates.map(({ id }) => id)).size === candidates.length, 'Two candidates have the same id.'),
})
export type LineupContent = z.infer<typeof lineupContentSchema>

/** A stored lineup. A write carries the revision it started from. */
export const lineupSchema = lineupContentSchema.extend({
  id: z.uuid(),
  revision: z.number().int().positive(),
  demo: z.boolean(),
  updatedAt: z.string(),
})
export type Lineup = z.infer<typeof lineupSchema>

export const lineupWriteSchema = lineupContentSchema.extend({ revision: z.number().int().positive() })
export type LineupWrite = z.infer<typeof lineupWriteSchema>

export const lineupListSchema = z.array(lineupSchema.pick({ id: true, name: true, partId: true, demo: true, updatedAt: true }))
export type LineupList = z.infer<typeof lineupListSchema>

/** Lineups that were removed and can still be brought back. */
export const removedLineupsSchema = z.array(lineupSchema.pick({ id: true, name: true }).extend({ removedAt: z.string() }))
export type RemovedLineups = z.infer<typeof removedLineupsSchema>
