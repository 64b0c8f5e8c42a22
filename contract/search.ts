import { placementSchema } from '@sable/core/mesh/place'
import { purposeSchema } from '@sable/core/physics/strength/purpose'
import { figureLimitSchema, figuresSchema, objectiveSchema } from '@sable/core/search/figures'
import { dimensionSchema, idOf, MOST_DIMENSIONS } from '@sable/core/search/space'
import { z } from 'zod'
import { jobSchema } from './job'
import { candidateSchema } from './lineup'
import { shelfSchema } from './shelf'

/** Most variants that one search evaluates. */
export const LARGEST_BUDGET = 5000

/** What a search is asked for: the part and a candidate to start from, what may vary, what matters, and how much to try. */
export const searchSpecSchema = z.object({
  lineupId: z.uuid(),
  partId: z.uuid(),
  placement: placementSchema,
  purpose: purposeSchema,
  base: candidateSchema,
  dimensions: z
    .array(dimensionSchema)
    .min(1, 'Something must be let vary.')
    .max(MOST_DIMENSIONS)
    .refine((dimensions) => new Set(dimensions.map(idOf)).size === dimensions.length, 'Something is named twice among what may vary.'),
  objectives: z.array(objectiveSchema).min(1, 'Something must matter.').max(8),
  limits: z.array(figureLimitSchema),
  budget: z.number().int().min(1).max(LARGEST_BUDGET),
  /** The same seed finds the same variants. */
  seed: z.number().int().min(0).max(2_000_000_000),
})
export type SearchSpec = z.infer<typeof searchSpecSchema>

/** What a search prints with, as it stood when it was asked for: later changes of the shelf do not change what it finds. */
export const searchContextSchema = z.object({
  shelf: shelfSchema.pick({ printers: true, nozzles: true, materials: true, spools: true, evidence: true }),
  day: z.iso.date(),
})
export type SearchContext = z.infer<typeof searchContextSchema>

/** A variant that was evaluated: its choices in the order of the dimensions, and its figures where it can be printed. */
export const variantSchema = z.object({
  /** In the order in which the search asked for them. */
  position: z.number().int(),
  choices: z.array(z.number().int()),
  figures: figuresSchema.optional(),
})
export type FoundVariant = z.infer<typeof variantSchema>

export const searchSchema = jobSchema.extend({ kind: z.literal('search'), spec: searchSpecSchema })
export type Search = z.infer<typeof searchSchema>
export const searchListSchema = z.array(searchSchema)

/** What the server tells while a search runs: how it stands, and what was found since it told last. */
export const searchEventSchema = z.object({
  search: searchSchema,
  fresh: z.array(variantSchema),
  /** s; nothing until a guess can be made. */
  secondsLeft: z.number().optional(),
})
export type SearchEvent = z.infer<typeof searchEventSchema>
