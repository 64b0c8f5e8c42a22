import { evidenceSchema } from '@sable/core/learning/evidence'
import { foretoldPrintSchema } from '@sable/core/log/foretoldPrint'
import { outcomeSchema, results } from '@sable/core/log/outcome'
import { placementSchema } from '@sable/core/mesh/place'
import { overridesSchema } from '@sable/core/profile/overrides'
import { settingValuesSchema } from '@sable/core/profile/settings'
import { z } from 'zod'
import { trialPlaceSchema } from './trials'

/** `overdue` is no state of its own: it is a running print that nobody ended in the time that it could take. */
export const printStates = ['planned', 'running', ...results] as const
export type PrintState = (typeof printStates)[number]

/** What a print is begun from. It is never changed: other settings are another print. */
export const frozenPrintSchema = trialPlaceSchema.extend({
  /** Of the part, or what it is. */
  name: z.string().min(1).max(120),
  /** Of the column that it was begun from. */
  profile: z.string().max(120).default(''),
  part: z.uuid().optional(),
  lineup: z.uuid().optional(),
  trial: z.uuid().optional(),
  placement: placementSchema,
  /** Whether its reel had likely taken up water by then; nothing where that was not told. */
  wet: z.boolean().optional(),
  /** The column's own values and places with others; and what all settings came to, each with where from. */
  values: settingValuesSchema,
  overrides: overridesSchema,
  resolved: z.record(z.string(), z.object({ value: z.union([z.number(), z.string()]), origin: z.string() })),
  foretold: foretoldPrintSchema,
  /** SHA-256 of the program, hexadecimal, and its length. */
  program: z.object({ sha256: z.string().regex(/^[0-9a-f]{64}$/), bytes: z.number().int().positive() }).optional(),
  /** The reel on the scale before it began, g. */
  beforeG: z.number().positive().max(30_000).optional(),
})
export type FrozenPrint = z.infer<typeof frozenPrintSchema>

/** What is kept of an outcome beside what was said: what it teaches. */
export const keptOutcomeSchema = z.object({
  outcome: outcomeSchema,
  evidence: z.array(evidenceSchema),
  scores: z.object({ time: z.number(), filament: z.number() }).partial(),
})
export type KeptOutcome = z.infer<typeof keptOutcomeSchema>

/** A line of the day book: small, for there are many. */
export const printLineSchema = trialPlaceSchema.extend({
  id: z.uuid(),
  name: z.string(),
  profile: z.string(),
  part: z.string().optional(),
  state: z.enum(printStates),
  plannedAt: z.string(),
  startedAt: z.string().optional(),
  endedAt: z.string().optional(),
  /** What a machine's own clock said that it took, s. */
  clockS: z.number().optional(),
  leftOut: z.boolean(),
  /** Foretold from start to end, s, and g, each with its 80 % range. */
  timeS: z.number(),
  timeRange: z.tuple([z.number(), z.number()]),
  massG: z.number(),
  massRange: z.tuple([z.number(), z.number()]),
  cost: z.number(),
  heightMm: z.number(),
  actualS: z.number().optional(),
  /** On the scale, or what went off its reels. */
  weighedG: z.number().optional(),
  atZ: z.number().optional(),
  faults: z.array(z.object({ what: z.string(), atZ: z.number().optional() })).default([]),
})
export type PrintLine = z.infer<typeof printLineSchema>
export const printLinesSchema = z.object({ prints: z.array(printLineSchema), total: z.number().int() })
export type PrintLines = z.infer<typeof printLinesSchema>

/** What is looked for in the day book. */
export const printFilterSchema = z.object({
  printer: z.string().max(64).optional(),
  spool: z.string().max(64).optional(),
  profile: z.string().max(120).optional(),
  part: z.string().max(64).optional(),
  state: z.enum(printStates).optional(),
  /** Words of its name, its note and its faults. */
  words: z.string().max(200).optional(),
  limit: z.coerce.number().int().min(1).max(10_000).default(200),
  skip: z.coerce.number().int().min(0).default(0),
})
export type PrintFilter = z.infer<typeof printFilterSchema>

export const printSchema = z.object({
  line: printLineSchema,
  frozen: frozenPrintSchema,
  kept: keptOutcomeSchema.optional(),
  photos: z.array(z.uuid()),
})
export type Print = z.infer<typeof printSchema>

const changedSchema = z.object({ label: z.string(), was: z.string(), is: z.string() })

/** A print of a part beside the one before it. */
export const trailSchema = z.array(
  z.object({
    line: printLineSchema,
    changed: z.array(changedSchema),
    mark: z.number().optional(),
    verdict: z.enum(['better', 'same', 'worse']).optional(),
  }),
)
export type Trail = z.infer<typeof trailSchema>

export const startSchema = z.object({ at: z.iso.datetime().optional() })
export const outcomeWriteSchema = z.object({ outcome: outcomeSchema, endedAt: z.iso.datetime().optional() })
