import { z } from 'zod'
import { seenParts } from '../finish/surfaceFigures'
import type { Direction } from './direction'
import { type Grip, usualGrip } from './grip'
import { pickedCaseSchema } from './pickedCases'
import { loadKinds } from './sectionLoads'

/** What a part is for, how it will be loaded, and what it must keep to. Lengths mm, times s, forces N. */
export const purposeSchema = z.object({
  kind: z.enum(['show', 'work', 'load']),
  /** What of its surface will be seen. */
  seen: z.enum(seenParts).default('all'),
  touchesFood: z.boolean().default(false),
  load: z.object({
    kind: z.enum(loadKinds),
    /** Along which it is loaded; the weakest when that is not known; `free`: along the direction below. */
    axis: z.enum(['x', 'y', 'z', 'weakest', 'free']),
    /** From x towards y, and up from the bed, degrees. */
    azimuthDeg: z.number().min(-180).max(360).default(0),
    elevationDeg: z.number().min(-90).max(90).default(45),
    /** Held from the low end up to here and loaded from there on, per cent of the length along the load. */
    heldTo: z
      .number()
      .min(0)
      .max(45)
      .default(100 * usualGrip.heldTo),
    loadedFrom: z
      .number()
      .min(55)
      .max(100)
      .default(100 * usualGrip.loadedFrom),
  }),
  /** Ways in which it is held and loaded, face by face; where there are any, its strength is that of the worst of them. */
  cases: z.array(pickedCaseSchema).max(8).default([]),
  limits: z
    .object({
      maxTimeS: z.number().positive(),
      maxMassG: z.number().positive(),
      maxCost: z.number().positive(),
      maxRaUm: z.number().positive(),
      minLoadN: z.number().positive(),
    })
    .partial(),
})
export type Purpose = z.infer<typeof purposeSchema>
export type LimitName = keyof Purpose['limits']

/** Bent in whichever direction it is weakest, and nothing to keep to. */
export const noPurpose: Purpose = purposeSchema.parse({ kind: 'work', load: { kind: 'bend', axis: 'weakest' }, limits: {} })

/** What has to be known of a load before a prediction: it cuts the part across a direction of its own only when asked to. */
export interface LoadPlace {
  readonly grip: Grip
  readonly direction?: Direction
  /** It acts along an axis of the bed: which level directions are the part's own does not matter. */
  readonly named?: true
}

/** `undefined` where every prediction tells the figure anyway. */
export function placeOf({ load }: Purpose): LoadPlace | undefined {
  const grip = { heldTo: load.heldTo / 100, loadedFrom: load.loadedFrom / 100 }
  const usual = grip.heldTo === usualGrip.heldTo && grip.loadedFrom === usualGrip.loadedFrom
  if (load.axis === 'free') return { grip, direction: { azimuthDeg: load.azimuthDeg, elevationDeg: load.elevationDeg } }
  if (load.axis !== 'weakest') return { grip, named: true }
  return usual ? undefined : { grip }
}

/** "30°, 45° up" */
export function directionWords(azimuthDeg: number, elevationDeg: number): string {
  const shown = (degrees: number): string => `${Number(degrees.toFixed(1))}°`
  return `${shown(azimuthDeg)}, ${shown(Math.abs(elevationDeg))} ${elevationDeg < 0 ? 'down' : 'up'}`
}
