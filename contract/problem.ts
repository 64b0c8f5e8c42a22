import { z } from 'zod'

/** An error as it crosses HTTP: RFC 9457 problem details, with the place and the way out. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string(),
  /** Stable word, e.g. `stl-truncated`. */
  code: z.string(),
  where: z.string(),
  remedy: z.string(),
  /** For a stale write: what the server holds now. */
  current: z.unknown().optional(),
})
export type Problem = z.infer<typeof problemSchema>
