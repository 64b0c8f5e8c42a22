import { z } from 'zod'
import { frozenPrintSchema } from './prints'

const key = z.string().min(1).max(64)
const clock = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$|^24:00$/, 'Write an hour as 08:00.')
const minutes = z.number().min(0).max(600)

/** Hours of the week in which somebody is there; days from Monday, 0, to Sunday, 6. */
export const hoursSchema = z
  .object({ days: z.array(z.number().int().min(0).max(6)).min(1).max(7), from: clock, to: clock })
  .refine(({ from, to }) => to > from, 'Hours end before they begin.')

export const reelChoices = ['own', 'alike', 'any'] as const

/** Something to be printed, as it was foretold when it was put there: later edits of its column change nothing. */
export const queueJobSchema = z.object({
  id: z.uuid(),
  name: z.string().min(1).max(120),
  copies: z.number().int().min(1).max(200).default(1),
  deadline: z.iso.datetime().optional(),
  notBefore: z.iso.datetime().optional(),
  /** It should be done by then if it can be; nothing is late for it. */
  wishedBy: z.iso.datetime().optional(),
  /** Late copies of it count so many times as much as others'. */
  weight: z.number().positive().max(100).optional(),
  /** Ways to print it, any of which will do. */
  ways: z.array(frozenPrintSchema).min(1).max(12),
  /** It is to be printed there, if one of its ways is. */
  heldTo: key.optional(),
  /** Off which reels: the one that was foretold, any of its material and colour, any of its material. */
  reel: z.enum(reelChoices).default('own'),
  /** Several copies stand on a plate, one at a time, where the printer has room for its head. */
  plates: z.boolean().default(false),
  /** Prints of the log that were begun from it, the oldest first; and of how many copies, where a plate has several. */
  prints: z.array(z.uuid()).max(400).default([]),
  onPlate: z.record(z.uuid(), z.number().int().min(1).max(200)).default({}),
})
export type QueueJob = z.infer<typeof queueJobSchema>

/** A machine in a queue: what a person does between two prints, and whether it is away. */
export const queueMachineSchema = z.object({
  printer: key,
  changeMinutes: minutes.default(10),
  spoolMinutes: minutes.default(5),
  nozzleMinutes: minutes.default(15),
  away: z.boolean().default(false),
})
export type QueueMachine = z.infer<typeof queueMachineSchema>

/** What is to become of a reel: it is used up before others, and where a print outlasts it another follows. */
export const queueReelSchema = z.object({ spool: key, useUp: z.boolean().default(false), followedBy: key.optional() })
export type QueueReel = z.infer<typeof queueReelSchema>

export const queueSchema = z.object({
  name: z.string().trim().min(1).max(80),
  machines: z
    .array(queueMachineSchema)
    .max(60)
    .refine((all) => new Set(all.map(({ printer }) => printer)).size === all.length, 'A printer stands there twice.'),
  /** Nothing where somebody is always there. */
  hours: z.array(hoursSchema).max(40).default([]),
  /** From when to when nothing is printed, each day; into the next day where it ends before it begins. */
  quiet: z
    .object({ from: clock, to: clock })
    .refine(({ from, to }) => from !== to, 'Quiet hours would be all day.')
    .optional(),
  reels: z
    .array(queueReelSchema)
    .max(200)
    .refine((all) => all.every(({ spool, followedBy }) => spool !== followedBy), 'A reel follows itself.')
    .default([]),
  jobs: z.array(queueJobSchema).max(1000).default([]),
})
export type QueueContent = z.infer<typeof queueSchema>

export const storedQueueSchema = queueSchema.extend({ id: z.uuid(), changedAt: z.string(), revision: z.number().int().positive() })
export type StoredQueue = z.infer<typeof storedQueueSchema>
export const queuesSchema = z.array(storedQueueSchema)

/** A change carries the revision that it started from. */
export const queueWriteSchema = z.object({ revision: z.number().int().positive(), queue: queueSchema })
