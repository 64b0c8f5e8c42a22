import { evidenceSchema } from '@sable/core/learning/evidence'
import { trialSpecSchema } from '@sable/core/trials/spec/trial'
import { z } from 'zod'

const key = z.string().min(1).max(64)

/** What a trial is printed with. */
export const trialPlaceSchema = z.object({ printer: key, nozzle: key, material: key, spool: key.optional() })
export type TrialPlace = z.infer<typeof trialPlaceSchema>

/** What was foretold of its print, against which a reading is held. */
const foretoldSchema = z.object({
  timeS: z.number().min(0),
  massG: z.number().min(0),
  bond: z.number(),
  inForce: z.record(z.string(), z.number()).readonly(),
  bands: z.array(z.object({ swayMm: z.number(), cooling: z.number() })).readonly(),
  barMm3: z.number().positive().optional(),
})

export const trialWriteSchema = trialPlaceSchema.extend({
  spec: trialSpecSchema,
  foretold: foretoldSchema.optional(),
  /** Printed though it was refused, and with which words: a wet spool, say. */
  insisted: z.string().max(400).optional(),
})
export type TrialWrite = z.infer<typeof trialWriteSchema>

/** A test print that was decided on. It is never changed: other bands are another trial. */
export const trialSchema = trialWriteSchema.extend({ id: z.uuid(), madeAt: z.string() })
export type Trial = z.infer<typeof trialSchema>

const answersSchema = z.record(z.string().max(40), z.union([z.number(), z.string().max(400)]))

export const readingWriteSchema = z.object({
  trial: z.uuid(),
  bands: z.array(answersSchema).max(60),
  whole: answersSchema,
  /** In the reader's own words. */
  note: z.string().max(4000).default(''),
  by: z.string().max(80).default(''),
})
export type ReadingWrite = z.infer<typeof readingWriteSchema>

/** What was read of a print: added, never changed. It can be left out, and taken in again. */
export const readingSchema = readingWriteSchema.extend({
  id: z.uuid(),
  readAt: z.string(),
  leftOut: z.boolean(),
  /** What it came to, in a sentence, and what it says about constants. */
  found: z.string(),
  evidence: z.array(evidenceSchema),
})
export type Reading = z.infer<typeof readingSchema>

/** A photograph of a print; its picture has an address of its own. */
export const trialPhotoSchema = z.object({ id: z.uuid(), trial: z.uuid() })
export type TrialPhoto = z.infer<typeof trialPhotoSchema>
/** Largest photograph that is taken in, bytes; it is kept much smaller. */
export const LARGEST_PHOTO = 40 * 2 ** 20
/** Largest that is kept as the camera took it, bytes. */
export const LARGEST_ORIGINAL = 20 * 2 ** 20

export const trialsSchema = z.object({
  trials: z.array(trialSchema),
  readings: z.array(readingSchema),
  photos: z.array(trialPhotoSchema).default([]),
})
export type Trials = z.infer<typeof trialsSchema>

export const leftOutSchema = z.object({ leftOut: z.boolean() })

/** A reading where it belongs: what learns from it needs no more. */
export const placedReadingSchema = trialPlaceSchema.extend({
  /** Which reading, or which print, it is of. */
  reading: z.string(),
  evidence: z.array(evidenceSchema),
  /** Of a print: by how many standard deviations what was foretold was off. */
  scores: z.object({ time: z.number(), filament: z.number() }).partial().optional(),
  /** Of the spool. */
  maker: z.string().optional(),
  from: z.string(),
})
export type PlacedReading = z.infer<typeof placedReadingSchema>
