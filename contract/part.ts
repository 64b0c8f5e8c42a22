import { z } from 'zod'

/** Largest model file that is taken, bytes. */
export const LARGEST_UPLOAD = 64 * 1024 * 1024

/** A stored part; its file is fetched apart, by id. */
export const partSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  fileName: z.string(),
  /** SHA-256 of the file. */
  contentKey: z.string().regex(/^[0-9a-f]{64}$/),
  bytes: z.number().int(),
  report: z.object({
    triangles: z.number().int(),
    volumeMm3: z.number(),
    areaMm2: z.number(),
    sizeMm: z.tuple([z.number(), z.number(), z.number()]).readonly(),
    watertight: z.boolean(),
    shells: z.number().int(),
    openEdges: z.number().int(),
    crowdedEdges: z.number().int(),
    notes: z.array(z.string()).readonly(),
  }),
  demo: z.boolean(),
  createdAt: z.string(),
})
export type StoredPart = z.infer<typeof partSchema>

export const partListSchema = z.array(partSchema)

/** Taking a part away, and bringing it back. */
export const removedSchema = z.object({ removed: z.boolean() })
