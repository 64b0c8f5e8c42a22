import { z } from 'zod'

const side = z.number().positive().max(10_000)
const point = z.tuple([z.number().finite(), z.number().finite(), z.number().finite()])

/**
 * A face of a part: what hangs together with the facet at a point of it and turns by no more than some degrees from facet to facet. In coordinates of
 * the part as it was read, before it is scaled and turned, so that it stays where it is however the part lies; mm.
 */
export const pickedFaceSchema = z.object({ at: point, withinDeg: z.number().min(0).max(90).default(20) })
export type PickedFace = z.infer<typeof pickedFaceSchema>

/** An end of a part: all of it that lies furthest along a direction, up to a share of its length that way; in the part's own coordinates alike. */
export const pickedEndSchema = z.object({ outwards: point, share: z.number().positive().max(0.5) })
export type PickedEnd = z.infer<typeof pickedEndSchema>

/** All of a part in a box along the part's own axes: its middle and its sides, mm, alike. */
export const pickedBoxSchema = z.object({ middle: point, sides: z.tuple([side, side, side]) })
export type PickedBox = z.infer<typeof pickedBoxSchema>

const placeSchema = z.union([pickedFaceSchema, pickedEndSchema, pickedBoxSchema])
export type PickedPlace = z.infer<typeof placeSchema>

/**
 * What may act on a place: a force, N; a mass that hangs on it, kg; a moment, N·m; a pressure, MPa; a slip, so many mm that it is moved, however much
 * force that takes.
 */
export const actions = ['force', 'mass', 'moment', 'pressure', 'slip'] as const
export type Action = (typeof actions)[number]

/** One way in which a part is held and loaded. */
export const pickedCaseSchema = z.object({
  id: z.string().min(1).max(40),
  name: z.string().trim().min(1).max(60),
  holds: z.array(z.object({ face: placeSchema, slides: z.boolean().default(false) })).max(12),
  loads: z
    .array(
      z.object({
        face: placeSchema,
        action: z.enum(actions),
        amount: z.number().positive().max(1e6),
        /** Which way, in the part's own coordinates; into the face, or about its normal, where nothing is said. */
        along: point.optional(),
      }),
    )
    .max(12),
  /** Its own weight acts on all of it, so many times: 1 where it stands still, more where it is shaken or dropped. */
  weight: z.object({ times: z.number().positive().max(1000), along: point }).optional(),
})
export type PickedCase = z.infer<typeof pickedCaseSchema>

/** Those that are held and loaded somewhere; the others are still being picked, and say nothing yet. */
export const wholeCases = ({ cases }: { readonly cases: readonly PickedCase[] }): readonly PickedCase[] =>
  cases.filter(({ holds, loads, weight }) => holds.length > 0 && (loads.length > 0 || weight !== undefined))
