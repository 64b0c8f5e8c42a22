import { z } from 'zod'

const heat = z.object({ now: z.number(), target: z.number() })

/** How a machine at the end of a wire stands, as far as it told. */
export const machineStateSchema = z.object({
  address: z.string(),
  /** `away`: not connected. `held`: a program waits. */
  phase: z.enum(['away', 'idle', 'printing', 'held']),
  nozzle: heat,
  bed: heat,
  /** Of the last line that it accepted, mm. */
  z: z.number(),
  print: z.string().optional(),
  /** Lines of the program that it accepted, and of it all. */
  accepted: z.number().int(),
  total: z.number().int(),
  /** What it said last of itself, or why it is away. */
  message: z.string(),
  /** A print that broke off here after so many lines, and can be gone on with. */
  broken: z.object({ print: z.string(), accepted: z.number().int(), total: z.number().int(), why: z.string() }).optional(),
})
export type MachineState = z.infer<typeof machineStateSchema>

/** Connecting beyond this computer needs a person's word that somebody is there. */
export const connectSchema = z.object({ confirmed: z.boolean().default(false) })
export const printOnSchema = z.object({ print: z.uuid() })
/** Largest program that is taken in, bytes. */
export const LARGEST_PROGRAM = 300 * 2 ** 20
