import { z } from 'zod'

/** Kinds of long work that the server does for a desk. A new kind gets its name here, its file among its feature, its units in `server/app/units.ts`. */
export const jobKinds = ['search'] as const
export type JobKindName = (typeof jobKinds)[number]

export const jobStates = ['waiting', 'running', 'paused', 'done', 'cancelled', 'failed'] as const
export type JobState = (typeof jobStates)[number]

/** How a job stands. */
export const jobSchema = z.object({
  id: z.uuid(),
  kind: z.enum(jobKinds),
  state: z.enum(jobStates),
  /** Units of work that are done, and that there are. */
  done: z.number().int(),
  of: z.number().int(),
  /** Stages of the pipeline that were at hand, and that had to be computed. */
  reused: z.number().int(),
  computed: z.number().int(),
  /** Time spent so far, s. */
  seconds: z.number(),
  problem: z.string().optional(),
  createdAt: z.string(),
})
export type Job = z.infer<typeof jobSchema>
export const jobListSchema = z.array(jobSchema)

export const jobActionSchema = z.object({ action: z.enum(['pause', 'resume', 'cancel']) })
