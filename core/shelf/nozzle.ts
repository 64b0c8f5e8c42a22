import { z } from 'zod'
import { settingValuesSchema } from '../profile/settings'
import type { Printer } from './printer'

export const nozzleBodies = ['brass', 'hardenedSteel', 'tungstenCarbide', 'platedCopper', 'diamondTip'] as const
export type NozzleBody = (typeof nozzleBodies)[number]

/** A nozzle that can be screwed in. Lengths mm. */
export const nozzleSchema = z.object({
  key: z.string().regex(/^[a-z0-9.-]+$/),
  name: z.string().min(1).max(80),
  bore: z.number().positive().max(3),
  /** Brass unless told otherwise. */
  body: z.enum(nozzleBodies).optional(),
  /** Of the filament that it takes. */
  inlet: z.number().positive().max(4).optional(),
  thread: z.string().max(20).optional(),
  /** From its shoulder to where the thread ends: about 5.5, 14 or 50 mm. */
  threadLength: z.number().positive().max(100).optional(),
  /** A long one has a longer melt zone. */
  length: z.enum(['standard', 'long']).optional(),
  /** What the filament runs through inside: one channel, or one that is split and joined to heat faster. */
  geometry: z.enum(['plain', 'split']).optional(),
  /** So far: printing hours, and grams of abrasive filament. */
  hoursRun: z.number().min(0).optional(),
  abrasiveGrams: z.number().min(0).optional(),
  /** Over what follows from its bore. */
  defaults: settingValuesSchema.optional(),
})
export type Nozzle = z.infer<typeof nozzleSchema>

/** Grams of abrasive filament after which a nozzle of each body is worn out. Assumed: hobbyists report a few hundred for brass. */
const LIFE: Readonly<Record<NozzleBody, number>> = {
  brass: 300,
  platedCopper: 600,
  hardenedSteel: 10_000,
  tungstenCarbide: 50_000,
  diamondTip: 100_000,
}

/** Share of a nozzle's life that abrasive filament has taken, 0 new to 1 worn out and beyond. Assumed. */
export const wearOf = ({ body = 'brass', abrasiveGrams = 0 }: Pick<Nozzle, 'body' | 'abrasiveGrams'>): number => abrasiveGrams / LIFE[body]

export const isHard = ({ body = 'brass' }: Pick<Nozzle, 'body'>): boolean => body !== 'brass' && body !== 'platedCopper'

/** Why a nozzle does not fit a printer; undefined where it does, or where too little is known to say. */
export function misfit({ inlet, thread }: Nozzle, { filamentDiameter, hotEnd }: Printer): string | undefined {
  if (inlet !== undefined && inlet !== filamentDiameter)
    return `Its inlet takes ${inlet} mm filament; the printer is fed with ${filamentDiameter} mm.`
  if (thread !== undefined && hotEnd.thread !== undefined && thread !== hotEnd.thread)
    return `Its thread is ${thread}; the hot end takes ${hotEnd.thread}.`
  return undefined
}

/** By how much a nozzle is longer than the block takes, mm; less than nothing where it is too short, nothing where it is not known. */
export const sticksOut = ({ threadLength }: Pick<Nozzle, 'threadLength'>, { hotEnd }: Pick<Printer, 'hotEnd'>): number | undefined =>
  threadLength === undefined || hotEnd.threadLength === undefined ? undefined : threadLength - hotEnd.threadLength
