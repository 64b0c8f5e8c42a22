import { z } from 'zod'
import { type ConstantId, constantIds } from '../constants/constants'

const positive = z.number().positive().max(1e9)

/**
 * What a reading says about the constants that models rest on, in the terms in which it was read. It is kept as it was read;
 * what is thought of a constant is worked out from all of it, every time (`setup/learned.ts`).
 */
export const evidenceSchema = z.discriminatedUnion('on', [
  /** The constant itself, with what one reading scatters by and what those of one print have in common, as logarithms. */
  z.object({
    on: z.literal('constant'),
    constant: z.enum(constantIds as readonly [ConstantId, ...ConstantId[]]),
    values: z.array(z.number()).min(1).max(40),
    noise: positive,
    batch: z.number().min(0).optional(),
  }),
  /** The flow at which a hot end failed, mm³/s at °C; and how well that is known, as a logarithm, where it is not as well as a ladder tells it. */
  z.object({ on: z.literal('ladder'), temperature: z.number().min(100).max(600), flow: positive, noise: positive.optional() }),
  /** Strings that were counted over what is exposed to them (`stringCounts.ts`). */
  z.object({ on: z.literal('strings'), count: z.number().min(0).max(10_000), exposure: z.number().min(0).max(1e6) }),
  /** A print on the scale, g. */
  z.object({ on: z.literal('weight'), predictedG: positive, weighedG: positive }),
  /** A print by the clock (`timed.ts`). */
  z.object({
    on: z.literal('timed'),
    predictedS: positive,
    slope: z.number().min(0).max(1),
    startS: z.number().min(0).max(1e6),
    actualS: positive,
  }),
])
export type Evidence = z.infer<typeof evidenceSchema>
