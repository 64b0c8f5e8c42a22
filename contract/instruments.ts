import { z } from 'zod'

const span = z.tuple([z.number(), z.number()])
/** A thing as it stands on the table, seen from the front, mm. */
export const seenThingSchema = z.object({
  widthMm: z.number(),
  heightMm: z.number(),
  rows: z.array(
    z.object({ from: z.number(), to: z.number(), spans: z.array(span), dull: z.number(), sagMm: z.number(), waveMm: z.number() }),
  ),
  strings: z.array(z.object({ z: z.number(), from: z.number(), to: z.number(), sag: z.number() })),
  gaps: z.array(z.object({ z: z.number(), x: z.number(), width: z.number() })),
})
export type SeenThing = z.infer<typeof seenThingSchema>

/** What an eye on the table of a machine sees: nothing where nothing lies there. And the load at which the thing parts when it is pulled upwards, N. */
export const onTableSchema = z.object({ thing: seenThingSchema.nullable(), pulledApartAtN: z.number() })
export type OnTable = z.infer<typeof onTableSchema>

/** Which instruments are connected. */
export const instrumentsSchema = z.object({ scale: z.boolean(), caliper: z.boolean(), table: z.boolean() })
export type InstrumentName = keyof z.infer<typeof instrumentsSchema>

export const axisSchema = z.enum(['X', 'Y', 'Z'])
export type Axis = z.infer<typeof axisSchema>
